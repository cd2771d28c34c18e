/** A design at a glance: a small picture of its network, and how much there is to find in it. */
import type { Design } from '../../model/document';
import { solve } from '../../tree/solve';
import { findingsOf } from '../findings/findings';
import { placesOf } from '../structure/places';

/** What there is to see and to find. Places are whole numbers within `SIZE`. */
export interface Glance {
  /** A switch each: its middle, and how strong its tier is: 2 core, 1 distribution, 0 access. */
  readonly switches: readonly (readonly [x: number, y: number, strength: number])[];
  /** A pair of joined switches each, by their places in the list above. */
  readonly links: readonly (readonly [a: number, b: number])[];
  /** Null where there was no solving it. */
  readonly findings: number | null;
}

/** The room that a picture takes, and what stays free at its edges. */
export const SIZE = { width: 120, height: 72, rim: 7 } as const;

const STRENGTH = { core: 2, distribution: 1, access: 0 } as const;

export function glanceAt(design: Design): Glance {
  const places = placesOf(design);
  const points = design.switches.map(({ id }) => places.get(id) ?? { x: 0, y: 0 });
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, top] = [least(xs), least(ys)];
  const [wide, high] = [Math.max(1, -least(xs.map((x) => -x)) - left), Math.max(1, -least(ys.map((y) => -y)) - top)];
  const free = { width: SIZE.width - 2 * SIZE.rim, height: SIZE.height - 2 * SIZE.rim };
  const scale = Math.min(free.width / wide, free.height / high, 0.25);
  const at = (value: number, from: number, size: number, room: number): number =>
    Math.round(room / 2 + (value - from - size / 2) * scale);
  const index = new Map(design.switches.map((sw, i) => [sw.id, i]));
  const joined = new Map<string, readonly [number, number]>();
  for (const { a, b } of design.links) {
    const [i, j] = [index.get(a.switch)!, index.get(b.switch)!];
    if (i !== j) joined.set(i < j ? `${i} ${j}` : `${j} ${i}`, [i, j]);
  }
  return {
    switches: design.switches.map((sw, i) => [
      at(points[i]!.x, left, wide, SIZE.width),
      at(points[i]!.y, top, high, SIZE.height),
      STRENGTH[sw.tier],
    ]),
    links: [...joined.values()],
    findings: findingsIn(design),
  };
}

const least = (values: readonly number[]): number => values.reduce((min, value) => Math.min(min, value), Infinity);

/** How many findings; a design that cannot be solved is shown all the same. */
function findingsIn(design: Design): number | null {
  try {
    return findingsOf(design, solve(design)).length;
  } catch {
    return null;
  }
}
