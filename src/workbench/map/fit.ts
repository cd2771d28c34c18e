/** Room for boxes: each as large as it would like to be, and smaller where a neighbour stands too near. Pure. */
import type { Point } from '../state/align';

/** The size of a box on the screen, in CSS pixels. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Between boxes with no link between them. */
const CLEAR = 8;
/** Between boxes that are linked: this share of the way from middle to middle stays free for the link, up to a limit. */
const LINKED = { share: 0.3, most: 64 } as const;
/** A box gives up width before height: a shortened name says more than a missing row. */
const WIDTH_FIRST = 1.4;
/** What a shortened name needs: neither axis gives up more while the other still can. */
const NAMED: Size = { width: 58, height: 18 };
/** No box is smaller than this, unless another one stands on the same spot. */
const LEAST: Size = { width: 14, height: 10 };

/**
 * The most that each box may take so that no two overlap, whatever the places; `linked` says whether a link joins two.
 * Two boxes are kept apart along the axis along which they have to give up less.
 */
export function roomsFor(
  centres: readonly Point[],
  wishes: readonly Size[],
  linked: (i: number, j: number) => boolean,
): Size[] {
  const rooms = wishes.map((wish) => ({ ...wish }));
  const reach = Math.max(1, ...wishes.map(({ width, height }) => Math.max(width, height))) + LINKED.most;
  forNear(centres, reach, (i, j) => {
    const [dx, dy] = [Math.abs(centres[i]!.x - centres[j]!.x), Math.abs(centres[i]!.y - centres[j]!.y)];
    const free = (d: number): number =>
      linked(i, j) ? Math.max(CLEAR, Math.min(LINKED.most, d * LINKED.share)) : CLEAR;
    const [across, down] = [dx - free(dx), dy - free(dy)];
    const [wide, high] = [(wishes[i]!.width + wishes[j]!.width) / 2, (wishes[i]!.height + wishes[j]!.height) / 2];
    if (across >= wide || down >= high) return;
    const [named, tall] = [across >= NAMED.width, down >= NAMED.height];
    if (named === tall ? (across / wide) * WIDTH_FIRST >= down / high : named) {
      const most = Math.max(across, Math.min(LEAST.width, dx - 1));
      for (const k of [i, j]) rooms[k]!.width = Math.min(rooms[k]!.width, most);
    } else {
      const most = Math.max(down, Math.min(LEAST.height, dy - 1));
      for (const k of [i, j]) rooms[k]!.height = Math.min(rooms[k]!.height, most);
    }
  });
  return rooms;
}

/** Calls back for each pair of points that are nearer to each other than `reach` along both axes. */
function forNear(points: readonly Point[], reach: number, each: (i: number, j: number) => void): void {
  const cells = new Map<string, number[]>();
  points.forEach(({ x, y }, i) => {
    const [column, row] = [Math.floor(x / reach), Math.floor(y / reach)];
    for (let c = column - 1; c <= column + 1; c += 1)
      for (let r = row - 1; r <= row + 1; r += 1)
        for (const j of cells.get(`${c} ${r}`) ?? [])
          if (Math.abs(points[j]!.x - x) < reach && Math.abs(points[j]!.y - y) < reach) each(j, i);
    const key = `${column} ${row}`;
    const cell = cells.get(key);
    if (cell) cell.push(i);
    else cells.set(key, [i]);
  });
}

/** Places along a side for ends that would each like to be at `wishes` (rising), `pitch` apart, between `low` and `high`. */
export function spreadAlong(wishes: readonly number[], pitch: number, low: number, high: number): number[] {
  const n = wishes.length;
  if (n === 0) return [];
  const step = Math.min(pitch, n > 1 ? (high - low) / (n - 1) : pitch);
  // Neighbours that would stand too close share the middle of what they would like.
  const groups: { sum: number; count: number }[] = [];
  const startOf = ({ sum, count }: { sum: number; count: number }): number =>
    Math.min(high - (count - 1) * step, Math.max(low, sum / count - ((count - 1) * step) / 2));
  for (const wish of wishes) {
    groups.push({ sum: wish, count: 1 });
    for (;;) {
      const [before, last] = [groups.at(-2), groups.at(-1)!];
      if (!before || startOf(before) + before.count * step <= startOf(last) + 1e-9) break;
      groups.splice(-2, 2, { sum: before.sum + last.sum, count: before.count + last.count });
    }
  }
  return groups.flatMap((group) => Array.from({ length: group.count }, (_, i) => startOf(group) + i * step));
}
