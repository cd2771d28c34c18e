/** The sides of two boxes between which a link runs: those that face each other, unless the way between them leads across a third box and another does not. Pure. */
import type { Point, Side } from './drawn';
import type { Rectangle } from './occupied';

export type Sides2 = readonly [Side, Side];

const SIDES: readonly Side[] = ['top', 'bottom', 'left', 'right'];
/** Side of the squares that boxes are filed in. */
const CELL = 96;
/** A box is filed with a rim, so that points of a line half a square apart do not miss it. */
const RIM = CELL / 4;
/** A way this much longer is taken to save a crossing; in pixels for each. */
const WORTH = 4000;
/** And a way this much longer so as not to leave along a border. */
const GRAZING = 600;

/** The side of a box at `from` that faces `to`. */
export function facing(from: Point, to: Point): Side {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (Math.abs(dx) > Math.abs(dy) * 1.1) return dx > 0 ? 'right' : 'left';
  return dy > 0 ? 'bottom' : 'top';
}

/** Finds the boxes that lines run across. */
export class Boxes {
  readonly #boxes: readonly Rectangle[];
  readonly #cells = new Map<number, number[]>();

  /** By box: the last question for which it was tried. */
  readonly #tried: Int32Array;
  #asked = 0;
  #steps = 0;

  /** Steps along lines so far: what the answers cost. */
  get steps(): number {
    return this.#steps;
  }

  constructor(boxes: readonly Rectangle[]) {
    this.#boxes = boxes;
    this.#tried = new Int32Array(boxes.length);
    boxes.forEach(({ x, y, width, height }, i) => {
      const cell = (at: number): number => Math.floor(at / CELL);
      for (let c = cell(x - RIM); c <= cell(x + width + RIM); c += 1)
        for (let r = cell(y - RIM); r <= cell(y + height + RIM); r += 1) {
          const filed = this.#cells.get(keyOf(c, r));
          if (filed) filed.push(i);
          else this.#cells.set(keyOf(c, r), [i]);
        }
    });
  }

  /** The boxes that a straight line runs across, but for two of them. */
  across(from: Point, to: Point, but: readonly [number, number]): number[] {
    const steps = Math.max(1, Math.ceil((Math.hypot(to.x - from.x, to.y - from.y) * 2) / CELL));
    const found: number[] = [];
    const line = { from, to };
    this.#asked += 1;
    this.#steps += steps + 1;
    let last = NaN;
    for (let s = 0; s <= steps; s += 1) {
      const [x, y] = [from.x + ((to.x - from.x) * s) / steps, from.y + ((to.y - from.y) * s) / steps];
      const key = keyOf(Math.floor(x / CELL), Math.floor(y / CELL));
      if (key === last) continue;
      last = key;
      for (const i of this.#cells.get(key) ?? []) {
        if (this.#tried[i] === this.#asked || i === but[0] || i === but[1]) continue;
        this.#tried[i] = this.#asked;
        if (crosses(line, this.#boxes[i]!)) found.push(i);
      }
    }
    return found;
  }

  /** The sides of two boxes that face each other. */
  usual(a: number, b: number): Sides2 {
    const [one, two] = [middleOf(this.#boxes[a]!), middleOf(this.#boxes[b]!)];
    return [facing(one, two), facing(two, one)];
  }

  /** The sides between which a link from one box to another runs best; `bent` gives a line's points once it bends around boxes. */
  sides(a: number, b: number, bent: (from: Point, to: Point, own: readonly [number, number]) => Point[]): Sides2 {
    const usual = this.usual(a, b);
    const costOf = (sides: Sides2, how: typeof bent): number => {
      const [from, to] = [sideMiddle(this.#boxes[a]!, sides[0]), sideMiddle(this.#boxes[b]!, sides[1])];
      const points = how(from, to, [a, b]);
      // A way that begins by running through its own box is none.
      const own = Number(behind(from, points[1]!, sides[0])) + Number(behind(to, points.at(-2)!, sides[1]));
      let cost = 2 * own * WORTH + grazing(from, points[1]!, sides[0]) + grazing(to, points.at(-2)!, sides[1]);
      points.slice(1).forEach((end, i) => {
        const start = points[i]!;
        cost += this.across(start, end, [a, b]).length * WORTH + Math.hypot(end.x - start.x, end.y - start.y);
      });
      return cost;
    };
    let best = { sides: usual, cost: costOf(usual, straight) };
    const tryAll = (all: readonly Sides2[], how: typeof bent): void => {
      for (const sides of all) {
        const cost = costOf(sides, how);
        if (cost < best.cost) best = { sides, cost };
      }
    };
    if (best.cost >= WORTH) tryAll(ALL, straight);
    if (best.cost >= WORTH)
      tryAll(
        [...SIDES.map((side): Sides2 => [usual[0], side]), ...SIDES.map((side): Sides2 => [side, usual[1]])],
        bent,
      );
    return best.sides;
  }
}

const straight = (from: Point, to: Point): Point[] => [from, to];
const ALL: readonly Sides2[] = SIDES.flatMap((first) => SIDES.map((second): Sides2 => [first, second]));

const keyOf = (column: number, row: number): number => column * 100_003 + row;

const middleOf = ({ x, y, width, height }: Rectangle): Point => ({ x: x + width / 2, y: y + height / 2 });

function sideMiddle({ x, y, width, height }: Rectangle, side: Side): Point {
  return {
    x: side === 'left' ? x : side === 'right' ? x + width : x + width / 2,
    y: side === 'top' ? y : side === 'bottom' ? y + height : y + height / 2,
  };
}

/** What it costs that a way leaves a side along it rather than away from it: its end could not be told from the border. */
function grazing(from: Point, to: Point, side: Side): number {
  const [dx, dy] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  const out = side === 'left' || side === 'right' ? dx : dy;
  return GRAZING * Math.max(0, 0.5 - out / (Math.hypot(dx, dy) || 1));
}

/** Whether `to` lies behind the side that a way leaves by. */
const behind = (from: Point, to: Point, side: Side): boolean =>
  ({ left: to.x > from.x, right: to.x < from.x, top: to.y > from.y, bottom: to.y < from.y })[side];

/** Whether a straight line passes through a rectangle. */
export function crosses(
  { from, to }: { readonly from: Point; readonly to: Point },
  { x, y, width, height }: Rectangle,
): boolean {
  // Quickly no where the line's own rectangle misses it; then the part of the line, 0 to 1, that lies between the sides, and between top and bottom of that.
  if (Math.max(from.x, to.x) < x || Math.min(from.x, to.x) > x + width) return false;
  if (Math.max(from.y, to.y) < y || Math.min(from.y, to.y) > y + height) return false;
  const [along, down] = [to.x - from.x, to.y - from.y];
  let [start, end] = [0, 1];
  if (along !== 0) {
    const [a, b] = [(x - from.x) / along, (x + width - from.x) / along];
    start = Math.max(start, Math.min(a, b));
    end = Math.min(end, Math.max(a, b));
  }
  if (down !== 0) {
    const [a, b] = [(y - from.y) / down, (y + height - from.y) / down];
    start = Math.max(start, Math.min(a, b));
    end = Math.min(end, Math.max(a, b));
  }
  return start <= end;
}
