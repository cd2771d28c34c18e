/** Pairs on the map: a line around both boxes of one, drawn whole while they act as one. Pure; pixels of the screen. */
import type { Network } from '../../core/topology/network';
import { isOne } from '../../core/topology/acting';
import { nameOf } from '../../core/model/names';
import type { Box, Point } from './drawn';

export interface Yoke {
  readonly key: string;
  readonly d: string;
  /** Whether they are one now. */
  readonly whole: boolean;
  readonly title: string;
}

/** How far it stands off the boxes. */
const OFF = 7;

export function yokesOf({ pairs, switches }: Pick<Network, 'pairs' | 'switches'>, boxes: readonly Box[]): Yoke[] {
  const at = new Map<string, Box>(boxes.map((box) => [box.id, box]));
  return pairs.flatMap((pair): Yoke[] => {
    const both = [switches[pair.first]!, switches[pair.first + 1]!];
    const own = both.flatMap(({ id }) => at.get(id) ?? []);
    if (own.length < 2) return [];
    const whole = isOne(pair);
    const names = both.map(nameOf).join(' and ');
    return [
      {
        key: both[0]!.id,
        d: closed(around(own, boxes)),
        whole,
        title: `${names}: a pair${whole ? '' : ' that has come apart'}`,
      },
    ];
  });
}

/** A rectangle where no other box stands in it, else as narrow a line as goes around both. */
function around(own: readonly Box[], boxes: readonly Box[]): Point[] {
  const corners = own.flatMap(cornersOf);
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const meets = ({ centre: { x, y }, width, height }: Box): boolean =>
    x + width / 2 > left && x - width / 2 < right && y + height / 2 > top && y - height / 2 < bottom;
  return boxes.some((box) => !own.includes(box) && meets(box))
    ? hull(corners)
    : [
        { x: left, y: top },
        { x: right, y: top },
        { x: right, y: bottom },
        { x: left, y: bottom },
      ];
}

const closed = (points: readonly Point[]): string =>
  `M${points.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;

const cornersOf = ({ centre, width, height }: Box): Point[] =>
  [-1, 1].flatMap((x) =>
    [-1, 1].map((y) => ({ x: centre.x + x * (width / 2 + OFF), y: centre.y + y * (height / 2 + OFF) })),
  );

/** The convex hull, clockwise on the screen: lower and upper chain of the points in order. */
function hull(points: readonly Point[]): Point[] {
  const inOrder = [...points].sort((p, q) => p.x - q.x || p.y - q.y);
  const turn = (o: Point, p: Point, q: Point): number => (p.x - o.x) * (q.y - o.y) - (p.y - o.y) * (q.x - o.x);
  const chain = (all: readonly Point[]): Point[] => {
    const found: Point[] = [];
    for (const point of all) {
      while (found.length > 1 && turn(found.at(-2)!, found.at(-1)!, point) <= 0) found.pop();
      found.push(point);
    }
    return found.slice(0, -1);
  };
  return [...chain(inOrder), ...chain(inOrder.reverse())];
}
