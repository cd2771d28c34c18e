'use client';
/** A name at a chart's axis: shortened in the middle where it is long, whole when it is pointed at. */
import { shortened } from './words/shortened';

interface Props {
  readonly x?: number | string | undefined;
  readonly y?: number | string | undefined;
  readonly payload?: { readonly value: string };
  /** The most characters that have room. */
  readonly most: number;
  /** The name behind the axis' value; the value itself without it. */
  readonly nameOf?: (value: string) => string;
  readonly size?: number;
}

export function NameTick({ x, y, payload, most, nameOf = (value) => value, size = 11.5 }: Props) {
  const name = nameOf(payload?.value ?? '');
  return (
    <text x={x} y={Number(y) + 4} textAnchor="end" fontSize={size} fontFamily="var(--mono)" fill="var(--ink-soft)">
      <title>{name}</title>
      {shortened(name, most)}
    </text>
  );
}
