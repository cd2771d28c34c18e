import fc from 'fast-check';
import { standIns } from '../../core/analysis/groups/groups';
import type { Design } from '../../core/model/document';
import type { GroupId, SwitchId } from '../../core/model/ids';
import { anyDesign } from '../../core/testing/networks';
import { tries } from '../../core/testing/runs';
import { closingOf, STEP } from './closed';
import type { Point } from './drawn';
import { placesAfterDrop } from './dropped';
import { boxOfGroup, foldSkeleton } from './folded';
import { positionsOf, skeletonOf } from './geometry';

const point = fc.record({ x: fc.integer({ min: -2000, max: 2000 }), y: fc.integer({ min: -2000, max: 2000 }) });

describe('places that are drawn together', () => {
  it('keep their order, stay as far apart as they were or a step along one of the axes, and are found again', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 12 }), point, (places, anywhere) => {
        const { closed, opened } = closingOf(places);
        for (const a of places)
          for (const b of places) {
            const apart = (['x', 'y'] as const).map((axis) => {
              const [before, after] = [b[axis] - a[axis], closed(b)[axis] - closed(a)[axis]];
              expect(Math.sign(after)).toBe(Math.sign(before));
              if (axis === 'y') expect(Math.abs(after)).toBeLessThanOrEqual(Math.abs(before) + 1e-6);
              return Math.abs(after) >= Math.min(Math.abs(before), STEP[axis]) - 1e-6;
            });
            expect(apart[1]).toBe(true);
            if (Math.abs(a.y - b.y) < STEP.y) expect(apart[0]).toBe(true);
          }
        for (const at of [...places, anywhere]) {
          expect(opened(closed(at)).x).toBeCloseTo(at.x, 6);
          expect(opened(closed(at)).y).toBeCloseTo(at.y, 6);
        }
      }),
      { numRuns: tries(60) },
    );
  });
});

/** A design whose first three switches are in a folded group. */
function folded(design: Design, placed: ReadonlyMap<SwitchId, Point>) {
  const { switches, ...rest } = skeletonOf(design, null);
  const whole = { ...rest, switches: switches.map((sw) => ({ ...sw, position: placed.get(sw.id) })) };
  const id = 'g' as GroupId;
  const inside = switches.slice(0, 3).map((sw) => sw.id);
  const stands = standIns([{ group: { id }, switches: inside, depth: 0 }], new Set([id]));
  return { whole, skeleton: foldSkeleton(whole, stands), box: boxOfGroup(id), inside };
}

describe('a dropped group', () => {
  it('moves as a whole, the others stay, and all have a place then', () => {
    const large = anyDesign.filter((design) => design.switches.length > 3);
    fc.assert(
      fc.property(large, point, (design, by) => {
        const { whole, skeleton, box, inside } = folded(design, new Map());
        const drawn = positionsOf(skeleton);
        const drop = (to: Point) =>
          new Map(
            placesAfterDrop(skeleton, drawn, positionsOf(whole), new Map([[box, to]])).map(
              (each) => [each.switch, each.position] as const,
            ),
          );
        const from = drawn.get(box)!;
        const [stayed, moved] = [drop(from), drop({ x: from.x + by.x, y: from.y + by.y })];
        expect(moved.size).toBe(design.switches.length);
        const ways = new Set<string>();
        for (const [id, at] of moved) {
          const way = { x: at.x - stayed.get(id)!.x, y: at.y - stayed.get(id)!.y };
          if (!inside.includes(id)) expect(way).toEqual({ x: 0, y: 0 });
          else ways.add([Math.sign(way.x), Math.sign(way.y), way.x, way.y].join(' '));
        }
        expect(new Set([...ways].map((way) => way.split(' ').slice(0, 2).join(' ')))).toEqual(
          new Set([`${Math.sign(by.x)} ${Math.sign(by.y)}`]),
        );

        // From now on it is dragged from where its switches are: dropped where it is, nothing moves.
        const again = folded(design, moved);
        const there = positionsOf(again.skeleton);
        const same = placesAfterDrop(again.skeleton, there, moved, new Map([[box, there.get(box)!]]));
        expect(same.map((each) => each.switch).sort()).toEqual([...inside].sort());
        for (const each of same) expect(each.position).toEqual(moved.get(each.switch));
      }),
      { numRuns: tries(30) },
    );
  });
});
