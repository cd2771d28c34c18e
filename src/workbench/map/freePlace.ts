/** Where there is room for one more switch on the map. Pure. */
import type { Point } from './geometry';

/** Room that a switch wants around its middle, map units. */
const ROOM = { x: 190, y: 120 } as const;
/** How many rings around the wish are tried. */
const MOST = 60;

/** The nearest place to `wish` at which no other switch stands. */
export function freePlace(wish: Point, others: Iterable<Point>): Point {
  const taken = [...others];
  const free = ({ x, y }: Point): boolean =>
    taken.every((other) => Math.abs(other.x - x) >= ROOM.x || Math.abs(other.y - y) >= ROOM.y);
  for (let ring = 0; ring < MOST; ring += 1) {
    const around = ringOf(ring)
      .map(([dx, dy]) => ({ x: Math.round(wish.x + dx * ROOM.x), y: Math.round(wish.y + dy * ROOM.y) }))
      .filter(free);
    if (around[0]) return around[0];
  }
  return { x: Math.round(wish.x), y: Math.round(Math.max(wish.y, ...taken.map(({ y }) => y)) + ROOM.y) };
}

/** The steps to a square ring around nothing, the nearest first, below and beside before above. */
function ringOf(ring: number): [number, number][] {
  const side = Array.from({ length: 2 * ring + 1 }, (_, i) => i - ring);
  return side
    .flatMap((dx) => side.map((dy): [number, number] => [dx, dy]))
    .filter(([dx, dy]) => Math.max(Math.abs(dx), Math.abs(dy)) === ring)
    .sort((a, b) => Math.hypot(...a) - Math.hypot(...b) || b[1] - a[1] || b[0] - a[0]);
}
