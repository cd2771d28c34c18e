/** Folding: nothing is lost, nothing is counted twice, and unfolded again everything is where it was. */
import fc from 'fast-check';
import { foldableGroups, standIns, type Filled } from '../../core/analysis/groups/groups';
import type { Design } from '../../core/model/document';
import type { GroupId, SwitchId } from '../../core/model/ids';
import { campusOf } from '../../core/testing/campus';
import { anyDesign } from '../../core/testing/networks';
import { tries } from '../../core/testing/runs';
import { itemsOf, stillThere, type Selection } from '../state/selection';
import { foldSkeleton, groupOfBox } from './folded';
import { layOutMap, positionsOf, skeletonOf } from './geometry';
import { around, overlaps } from './occupied';
import { outlinesOf } from './outlines';
import type { Direction } from './travel';
import { stepOver } from './useTravel';

/** A design with its switches divided into four groups, some of which are folded. */
const divided: fc.Arbitrary<readonly [Design, readonly Filled[], ReadonlySet<GroupId>]> = anyDesign.chain((design) =>
  fc
    .tuple(
      fc.array(fc.integer({ min: 0, max: 3 }), {
        minLength: design.switches.length,
        maxLength: design.switches.length,
      }),
      fc.subarray([0, 1, 2]),
    )
    .map(([places, folded]) => {
      const groups = [0, 1, 2].map((n): Filled => ({
        group: { id: `g${n}` as GroupId },
        switches: design.switches.flatMap((sw, i) => (places[i] === n ? [sw.id] : [])),
        depth: 0,
      }));
      return [design, groups, new Set(folded.map((n) => `g${n}` as GroupId))] as const;
    }),
);

it('draws every switch once, in its own box or its group’s, and every link once or inside of one', () => {
  fc.assert(
    fc.property(divided, ([design, groups, folded]) => {
      const stands = standIns(groups, folded);
      const { switches, links, sheaves, groups: boxes } = foldSkeleton(skeletonOf(design, null), stands);
      const drawn = switches.flatMap(({ id }) => boxes.get(id)?.switches ?? [id]);
      expect([...drawn].sort()).toEqual(design.switches.map(({ id }) => id).sort());
      for (const { id, inside } of switches) expect(inside).toBe(boxes.get(id)?.switches.length);
      const inSheaves = [...sheaves.values()].flat();
      const plain = links.filter(({ id }) => !sheaves.has(id));
      const within = design.links.filter(({ a, b }) => {
        const group = stands.get(a.switch);
        return group !== undefined && group === stands.get(b.switch);
      });
      expect([...plain, ...inSheaves, ...within].map(({ id }) => id).sort()).toEqual(
        design.links.map(({ id }) => id).sort(),
      );
      for (const { a, b } of links.filter(({ id }) => sheaves.has(id)))
        expect([a, b].some((end) => groupOfBox(end.switch) !== null)).toBe(true);
    }),
    { numRuns: tries(40) },
  );
});

it('gives the same picture when all is unfolded again, and no two boxes over each other while it is not', () => {
  fc.assert(
    fc.property(divided, ([design, groups, folded]) => {
      const whole = skeletonOf(design, null);
      const drawn = (open: ReadonlySet<GroupId>) => {
        const skeleton = foldSkeleton(whole, standIns(groups, open));
        return layOutMap(skeleton, positionsOf(skeleton), { strands: 1, scale: 0.6 });
      };
      const boxes = drawn(folded).boxes.map(({ centre, width, height }) => around(centre, width, height));
      boxes.forEach((one, i) => boxes.slice(i + 1).forEach((two) => expect(overlaps(one, two)).toBe(false)));
      expect(drawn(new Set())).toEqual(layOutMap(whole, positionsOf(whole), { strands: 1, scale: 0.6 }));
    }),
    { numRuns: tries(15) },
  );
});

it('puts a folded group in the middle of its switches where all of them have a place', () => {
  const campus = campusOf({ switches: 20, vlans: 1 });
  const switches = campus.switches.map((sw, i) => ({ ...sw, position: { x: 100 * i, y: -i } }));
  const group: Filled = {
    group: { id: 'g' as GroupId },
    switches: switches.slice(0, 3).map(({ id }) => id),
    depth: 0,
  };
  const at = (some: Design['switches']) =>
    foldSkeleton(skeletonOf({ ...campus, switches: some }, null), standIns([group], new Set([group.group.id])))
      .switches[0]!.position;
  expect(at(switches)).toEqual({ x: 100, y: -1 });
  expect(at(campus.switches)).toBeUndefined();
});

it('outlines a group that is open as one where nobody else stands in between, else box by box', () => {
  const campus = campusOf({ switches: 20, vlans: 1 });
  const bones = skeletonOf(campus, null);
  const { boxes } = layOutMap(bones, positionsOf(bones), { strands: 1 });
  const groupOf = (...some: number[]): Filled => ({
    group: { id: 'g' as GroupId, name: 'East wing' },
    switches: some.map((i) => campus.switches[i]!.id),
    depth: 0,
  });
  const [all] = outlinesOf([groupOf(...campus.switches.keys())], boxes);
  expect(all!.rectangles).toHaveLength(1);
  expect(all!.label?.text).toBe('East wing');
  for (const box of boxes) expect(overlaps(all!.label!.at, around(box.centre, box.width, box.height))).toBe(false);
  const ends = [...boxes].sort((a, b) => a.centre.y - b.centre.y);
  const far = [ends[0]!, ends.at(-1)!].map(({ id }) => campus.switches.findIndex((sw) => sw.id === id));
  expect(outlinesOf([groupOf(...far)], boxes)[0]!.rectangles).toHaveLength(2);
});

it('is travelled box by box: an arrow leads to a thing of the design, or to all that is in a group', () => {
  fc.assert(
    fc.property(
      divided,
      fc.array(fc.constantFrom<Direction>('up', 'down', 'left', 'right'), { minLength: 1, maxLength: 12 }),
      ([design, groups, folded], ways) => {
        const skeleton = foldSkeleton(skeletonOf(design, null), standIns(groups, folded));
        const geometry = layOutMap(skeleton, positionsOf(skeleton), { strands: 1 });
        let at: Selection | null = null;
        for (const way of ways) {
          const next: Selection | null = stepOver(geometry, skeleton, at, way);
          expect(stillThere(design, next)).toEqual(next);
          at = next ?? at;
        }
      },
    ),
    { numRuns: tries(40) },
  );
});

it('leads from the core into a folded block, and back', () => {
  const campus = campusOf({ switches: 70, vlans: 1 });
  const groups = foldableGroups(campus);
  const skeleton = foldSkeleton(
    skeletonOf(campus, null),
    standIns(groups, new Set(groups.map(({ group }) => group.id))),
  );
  const geometry = layOutMap(skeleton, positionsOf(skeleton), { strands: 1 });
  const core: Selection = { kind: 'switch', switch: 'core-1' as SwitchId };
  const down = stepOver(geometry, skeleton, core, 'down');
  expect(groups.map(({ switches }) => switches.length)).toContain(itemsOf(down).length);
  expect(itemsOf(stepOver(geometry, skeleton, down, 'up'))).toHaveLength(1);
});
