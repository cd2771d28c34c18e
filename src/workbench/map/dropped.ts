/** Where switches stand after boxes were dragged: those that moved, and those that had been laid out by themselves until now. Pure. */
import type { SwitchId } from '../../core/model/ids';
import { STEP } from './closed';
import type { Point } from './drawn';
import type { FoldedSkeleton } from './folded';

export interface Placing {
  readonly switch: SwitchId;
  readonly position: Point;
}

/** Around what is in a group, where it is unfolded beside others. */
const AROUND = { x: 190, y: 120 } as const;

/**
 * `drawn` are the boxes as they are seen, `unfolded` every switch in the layout without folds, `to` the boxes that were
 * dropped. What stands in a folded group moves with it. Switches without a place get the one where they are seen, or they
 * would make room for the one that was moved; where a folded group has none, all of these stand as far apart as the largest
 * of the groups needs when it is unfolded.
 */
export function placesAfterDrop(
  { switches, groups, opened }: FoldedSkeleton,
  drawn: ReadonlyMap<SwitchId, Point>,
  unfolded: ReadonlyMap<SwitchId, Point>,
  to: ReadonlyMap<SwitchId, Point>,
): Placing[] {
  const placing: Placing[] = [];
  const loose = switches.filter((box) => !box.position);
  const wide = widthOf(loose.map((box) => insideOf(box.id)));
  for (const box of switches) {
    const [from, at] = [drawn.get(box.id), to.get(box.id)];
    if (!from || (box.position && !at)) continue;
    const seen = at ?? from;
    const [before, after] = box.position
      ? [opened(from), opened(seen)]
      : [middleOf(insideOf(box.id)) ?? from, { x: seen.x * wide.x, y: seen.y * wide.y }];
    if (!groups.has(box.id)) placing.push(placed(box.id, after));
    else
      for (const id of groups.get(box.id)!.switches) {
        const own = unfolded.get(id);
        if (own) placing.push(placed(id, { x: own.x + after.x - before.x, y: own.y + after.y - before.y }));
      }
  }
  return placing;

  function insideOf(box: SwitchId): Point[] {
    return (groups.get(box)?.switches ?? []).flatMap((id) => unfolded.get(id) ?? []);
  }
}

const placed = (id: SwitchId, { x, y }: Point): Placing => ({
  switch: id,
  position: { x: Math.round(x), y: Math.round(y) },
});

function middleOf(points: readonly Point[]): Point | null {
  if (points.length === 0) return null;
  const sum = points.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }));
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/** How much further apart than folded boxes the middles of these groups stand. */
function widthOf(groups: readonly (readonly Point[])[]): Point {
  const most = (axis: 'x' | 'y'): number =>
    Math.max(
      1,
      ...groups.map((points) => {
        const values = points.map((point) => point[axis]);
        return values.length === 0 ? 1 : (Math.max(...values) - Math.min(...values) + AROUND[axis]) / STEP[axis];
      }),
    );
  return { x: most('x'), y: most('y') };
}
