/**
 * Folded groups need less room than what is in them: the places of boxes are drawn together, axis by axis, so that none
 * changes sides with another. Pure.
 */
import type { Point } from './drawn';

/** The most that is left between boxes side by side and between rows of boxes, map units. */
export const STEP = { x: 218, y: 150 } as const;
/** The least between columns that have no box in a row together, where there was as much. */
const SHIFT = 60;

export interface Closing {
  /** From a place in the design to where it is drawn. */
  readonly closed: (point: Point) => Point;
  /** Back from where it is drawn. */
  readonly opened: (point: Point) => Point;
}

/** Nothing is drawn together. */
export const AS_IS: Closing = { closed: (point) => point, opened: (point) => point };

/** Draws places together; what lies beyond them keeps its distance to the outermost. */
export function closingOf(places: readonly Point[]): Closing {
  if (places.length < 2) return AS_IS;
  const y = rowsOf(places.map((place) => place.y));
  const x = columnsOf(places);
  return {
    closed: (point) => ({ x: along(x.real, x.drawn, point.x), y: along(y.real, y.drawn, point.y) }),
    opened: (point) => ({ x: along(x.drawn, x.real, point.x), y: along(y.drawn, y.real, point.y) }),
  };
}

interface Axis {
  readonly real: readonly number[];
  readonly drawn: readonly number[];
}

const inOrder = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** Rows, and where each is drawn: gaps beyond a step are cut to it. */
function rowsOf(values: readonly number[]): Axis {
  const real = inOrder(values);
  const drawn = [real[0]!];
  for (let i = 1; i < real.length; i += 1) drawn.push(drawn[i - 1]! + Math.min(STEP.y, real[i]! - real[i - 1]!));
  return { real, drawn };
}

/** Columns, and where each is drawn: a step from those before that have a box in the same row, and right of all of them. */
function columnsOf(places: readonly Point[]): Axis {
  const real = inOrder(places.map((place) => place.x));
  const column = new Map(real.map((x, i) => [x, i]));
  const left = [...places].sort((a, b) => a.x - b.x);
  const drawn: number[] = [];
  let from = 0;
  real.forEach((x, i) => {
    let at = i === 0 ? x : drawn[i - 1]! + Math.min(SHIFT, x - real[i - 1]!);
    for (; left[from] && left[from]!.x === x; from += 1)
      for (const other of left.slice(0, from))
        if (other.x < x && Math.abs(other.y - left[from]!.y) < STEP.y)
          at = Math.max(at, drawn[column.get(other.x)!]! + Math.min(STEP.x, x - other.x));
    drawn.push(at);
  });
  return { real, drawn };
}

/** A value carried from one row of marks to the other: linear between neighbours, unchanged in distance outside. */
function along(from: readonly number[], to: readonly number[], value: number): number {
  const last = from.length - 1;
  if (value <= from[0]!) return to[0]! + value - from[0]!;
  if (value >= from[last]!) return to[last]! + value - from[last]!;
  const i = from.findIndex((mark) => mark > value) - 1;
  const part = (value - from[i]!) / (from[i + 1]! - from[i]!);
  return to[i]! + part * (to[i + 1]! - to[i]!);
}
