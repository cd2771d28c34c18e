/** Places for switches that have none: near what they are cabled to, on a staggered grid so that no cable runs behind a third box. */
import type { Command } from '../../core/edit/commands';
import type { SwitchId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { positionsOf, skeletonOf, type Point } from './geometry';

const STEP = { x: 240, y: 170 } as const;
/** Closer than this two boxes would touch. */
const CLEAR = { x: 200, y: 120 } as const;

/** `commands` with a place for every switch that they add without one. */
export function withPlaces(design: Design, commands: readonly Command[]): Command[] {
  const loose = commands.flatMap((command) =>
    command.do === 'add-switch' && !command.switch.position ? [command.switch.id] : [],
  );
  if (loose.length === 0) return [...commands];
  const neighbours = new Map<SwitchId, SwitchId[]>();
  for (const command of commands) {
    if (command.do !== 'add-link') continue;
    for (const [near, far] of [
      [command.link.a, command.link.b],
      [command.link.b, command.link.a],
    ] as const) {
      neighbours.set(near.switch, [...(neighbours.get(near.switch) ?? []), far.switch]);
    }
  }
  const placed = positionsOf(skeletonOf(design, null));
  const found = new Map<SwitchId, Point>();
  for (const id of loose) {
    const near = (neighbours.get(id) ?? []).flatMap((other) => placed.get(other) ?? []);
    const spot = freeSpot(near.length > 0 ? middleOf(near) : middleOf([...placed.values()]), [...placed.values()]);
    placed.set(id, spot);
    found.set(id, spot);
  }
  return commands.map((command) => {
    const position = command.do === 'add-switch' ? found.get(command.switch.id) : undefined;
    return command.do === 'add-switch' && position ? { ...command, switch: { ...command.switch, position } } : command;
  });
}

const middleOf = (points: readonly Point[]): Point =>
  points.length === 0
    ? { x: 0, y: 0 }
    : {
        x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
        y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
      };

/** The free place of the staggered grid that is nearest to a point; the grid hangs on the first placed switch. */
function freeSpot(wish: Point, taken: readonly Point[]): Point {
  const origin = taken[0] ?? wish;
  const row0 = Math.round((wish.y - origin.y) / STEP.y);
  const column0 = Math.round((wish.x - origin.x) / STEP.x);
  for (let ring = 0; ; ring += 1) {
    const spots: Point[] = [];
    for (let row = row0 - ring; row <= row0 + ring; row += 1) {
      for (let column = column0 - ring; column <= column0 + ring; column += 1) {
        const stagger = Math.abs(row) % 2 === 1 ? STEP.x / 2 : 0;
        spots.push({ x: Math.round(origin.x + column * STEP.x + stagger), y: Math.round(origin.y + row * STEP.y) });
      }
    }
    const free = spots.filter((spot) =>
      taken.every((other) => Math.abs(other.x - spot.x) >= CLEAR.x || Math.abs(other.y - spot.y) >= CLEAR.y),
    );
    const away = (p: Point): number => Math.hypot(p.x - wish.x, p.y - wish.y) - (p.y > wish.y ? 1 : 0);
    const [best] = free.sort((a, b) => away(a) - away(b));
    if (best) return best;
  }
}
