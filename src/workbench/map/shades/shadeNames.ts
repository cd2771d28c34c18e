/** Where the name of a shade goes on the map: beside one of its switches, where it hides least. Pure. */
import { crosses } from '../facing';
import type { Box, Line } from '../geometry';
import type { Rectangle } from '../occupied';

/** What a name is placed for. */
export interface Named {
  readonly label: string;
  readonly boxes: readonly Box[];
}

/** Between a name and the outline of its shade. */
const GAP = 5;
/** Boxes of a shade that are tried, from its top and from its bottom. */
const TRIED = 8;
/** Room for the hosts that are listed beside a box. */
const HOSTS = 20;
/** What a name costs: per square unit over a box and over another name, per link under it, per unit outside of the map. */
const COST = { box: 1, name: 4, link: 60, outside: 4 } as const;

/** The rectangle of each name, in the order given; `around` is how far an outline runs outside of its boxes. */
export function placeNames(
  named: readonly Named[],
  all: readonly Box[],
  lines: readonly Line[],
  size: number,
  around: number,
): Rectangle[] {
  const taken: Rectangle[] = [];
  const boxes = all.map(withHosts);
  const map = boundsOf(boxes, around);
  for (const { label, boxes: own } of named) {
    const [width, height] = [label.length * size * 0.58, size * 1.2];
    const down = [...own].sort((a, b) => a.centre.y - b.centre.y || a.centre.x - b.centre.x);
    const tried = down.length <= 2 * TRIED ? down : [...down.slice(0, TRIED), ...down.slice(-TRIED)];
    let best: { readonly at: Rectangle; readonly cost: number } | null = null;
    for (const box of tried) {
      for (const at of placesAt(box, width, height, around)) {
        const cost = costOf(at);
        if (best === null || cost < best.cost) best = { at, cost };
      }
    }
    taken.push(best?.at ?? { x: 0, y: 0, width, height });
  }
  return taken;

  function costOf(at: Rectangle): number {
    const over = (others: readonly Rectangle[]): number => others.reduce((sum, other) => sum + overlap(at, other), 0);
    const crossed = lines.filter((line) => !line.loops && crosses(line, at)).length;
    return COST.box * over(boxes) + COST.name * over(taken) + COST.link * crossed + COST.outside * outside(at, map);
  }
}

/** Above and below a box, flush with either of its sides; above first, since of equals the first is taken. */
function placesAt({ centre, width, height, hostSide }: Box, w: number, h: number, around: number): Rectangle[] {
  const [left, right] = [centre.x - width / 2, centre.x + width / 2 - w];
  const above = centre.y - height / 2 - around - GAP - h - (hostSide === 'top' ? HOSTS : 0);
  const below = centre.y + height / 2 + around + GAP + (hostSide === 'bottom' ? HOSTS : 0);
  return [above, below].flatMap((y) => [left, right].map((x) => ({ x, y, width: w, height: h })));
}

const withHosts = ({ centre, width, height, hostSide }: Box): Rectangle => ({
  x: centre.x - width / 2,
  y: centre.y - height / 2 - (hostSide === 'top' ? HOSTS : 0),
  width,
  height: height + HOSTS,
});

function boundsOf(boxes: readonly Rectangle[], around: number): Rectangle {
  const [x, y] = [Math.min(...boxes.map((box) => box.x)) - around, Math.min(...boxes.map((box) => box.y)) - around];
  return {
    x,
    y,
    width: Math.max(...boxes.map((box) => box.x + box.width)) + around - x,
    height: Math.max(...boxes.map((box) => box.y + box.height)) + around - y,
  };
}

const overlap = (a: Rectangle, b: Rectangle): number =>
  Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y));

/** How far a name runs out of the map to the left or the right: above and below there is room. */
const outside = (a: Rectangle, map: Rectangle): number =>
  Math.max(0, map.x - a.x) + Math.max(0, a.x + a.width - map.x - map.width);
