/** Ways around boxes: where a straight line would run across a box, it bends at one of that box's corners. Pure. */
import type { Point } from './drawn';
import { Boxes, type Sides2 } from './facing';
import type { Rectangle } from './occupied';

/** How far from a corner the first way around it bends, and how far apart further ones. */
const CLEAR = 6;
const LANE = 3;
/** Ways beyond this many share lanes. */
const LANES = 8;
/** What a box still run across costs, in pixels of the way. */
const WORTH = 4000;
/** Steps along lines that were tried before the rest run straight: in a tangle there is no way around, and looking for it would hold up the page. */
const ENOUGH = 600_000;
/** A line across more boxes than this is left straight. */
const TANGLED = 12;
/** No way bends more often than these halvings give. */
const MOST = 2;
/** Among so few boxes the shortest way between them is looked for where those bends do not help. */
const FEW = 80;
/** What a bend costs there, pixels. */
const BENT = 30;

/** Finds bends, one link after the other: ways around the same corner run side by side. */
export class Detours {
  readonly #boxes: Boxes;
  readonly #rectangles: readonly Rectangle[];
  readonly #enough: number;
  readonly #lanes = new Map<string, number>();

  constructor(rectangles: readonly Rectangle[], enough = ENOUGH) {
    this.#enough = enough;
    this.#boxes = new Boxes(rectangles);
    this.#rectangles = rectangles;
  }

  /** The sides between which a link from one box to another runs best. */
  sides(a: number, b: number): Sides2 {
    if (this.#boxes.steps > this.#enough) return this.#boxes.usual(a, b);
    return this.#boxes.sides(a, b, (from, to, own) => [
      from,
      ...this.#bends(from, to, own, 1).map(({ via }) => via),
      to,
    ]);
  }

  /** The bends of a line between two boxes; none where it runs across no other box, or where no bend helps. */
  bends(from: Point, to: Point, own: readonly [number, number]): Point[] {
    if (this.#boxes.steps > this.#enough) return [];
    let found: readonly Pick<Bend, 'via' | 'key'>[] = this.#bends(from, to, own, MOST);
    if (this.#rectangles.length <= FEW && this.#crosses([from, ...found.map(({ via }) => via), to], own))
      found = this.#between(from, to, own) ?? found;
    for (const { key } of found) this.#lanes.set(key, (this.#lanes.get(key) ?? 0) + 1);
    return found.map(({ via }) => via);
  }

  #bends(from: Point, to: Point, own: readonly [number, number], most: number): Bend[] {
    const crossed = this.#boxes.across(from, to, own);
    if (crossed.length === 0 || crossed.length > TANGLED || most === 0) return [];
    let best: (Bend & { readonly cost: number }) | null = null;
    for (const box of crossed)
      for (const [dx, dy] of CORNERS) {
        const key = `${box} ${dx} ${dy}`;
        const via = this.#corner(box, dx, dy, key);
        const over = this.#boxes.across(from, via, own).length + this.#boxes.across(via, to, own).length;
        const cost = over * WORTH + Math.hypot(via.x - from.x, via.y - from.y) + Math.hypot(to.x - via.x, to.y - via.y);
        if (!best || cost < best.cost) best = { via, key, cost };
      }
    if (!best || best.cost >= crossed.length * WORTH) return [];
    const { via } = best;
    return [...this.#bends(from, via, own, most - 1), best, ...this.#bends(via, to, own, most - 1)];
  }

  #crosses(points: readonly Point[], own: readonly [number, number]): boolean {
    return points.slice(1).some((to, i) => this.#boxes.across(points[i]!, to, own).length > 0);
  }

  /** The shortest way from corner to corner that runs across no box; null where there is none. Dijkstra over what is in sight. */
  #between(from: Point, to: Point, own: readonly [number, number]): Pick<Bend, 'via' | 'key'>[] | null {
    const corners = this.#rectangles.flatMap((_, box) =>
      CORNERS.map(([dx, dy]) => {
        const key = `${box} ${dx} ${dy}`;
        return { via: this.#corner(box, dx, dy, key), key };
      }),
    );
    const points = [...corners.map(({ via }) => via), from, to];
    const [goal, start] = [points.length - 1, points.length - 2];
    const far = points.map((_, i) => (i === start ? 0 : Infinity));
    const before = points.map(() => -1);
    const open = new Set(points.keys());
    for (;;) {
      let next = -1;
      for (const i of open) if (far[i]! < Infinity && (next < 0 || far[i]! < far[next]!)) next = i;
      if (next < 0) return null;
      if (next === goal) break;
      open.delete(next);
      const here = points[next]!;
      for (const i of open) {
        const length = far[next]! + Math.hypot(points[i]!.x - here.x, points[i]!.y - here.y) + BENT;
        if (length >= far[i]! || this.#boxes.across(here, points[i]!, own).length > 0) continue;
        far[i] = length;
        before[i] = next;
      }
    }
    const way: Pick<Bend, 'via' | 'key'>[] = [];
    for (let i = before[goal]!; i !== start; i = before[i]!) way.unshift(corners[i]!);
    return way;
  }

  #corner(box: number, dx: -1 | 1, dy: -1 | 1, key: string): Point {
    const { x, y, width, height } = this.#rectangles[box]!;
    const away = CLEAR + LANE * ((this.#lanes.get(key) ?? 0) % LANES);
    return { x: x + width / 2 + dx * (width / 2 + away), y: y + height / 2 + dy * (height / 2 + away) };
  }
}

interface Bend {
  readonly via: Point;
  /** The corner that it runs around. */
  readonly key: string;
}

const CORNERS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;
