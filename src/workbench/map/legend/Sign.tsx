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
