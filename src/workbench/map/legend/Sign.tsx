/** A row of the legend: a sign as the map draws it, and what it means. */
import type { ReactNode } from 'react';

/** Of the drawing, pixels. */
export const SIGN = { width: 56, height: 20 } as const;

export function Sign({ says, children }: { readonly says: string; readonly children: ReactNode }) {
  return (
    <li>
      <svg {...SIGN} viewBox={`0 0 ${SIGN.width} ${SIGN.height}`} aria-hidden="true" fill="none">
        {children}
      </svg>
      <span>{says}</span>
    </li>
  );
}

/** Text in a sign, as the map sets it. */
export function SignText({
  x,
  text,
  anchor = 'end',
  colour = 'var(--ink)',
}: {
  readonly x: number;
  readonly text: string;
  readonly anchor?: 'end' | 'middle';
  readonly colour?: string;
}) {
  return (
    <text x={x} y={14} textAnchor={anchor} fontSize={11} fontWeight={700} fontFamily="var(--mono)" fill={colour}>
      {text}
    </text>
  );
}
