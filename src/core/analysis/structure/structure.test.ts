/** Blocks and places: every switch once, what belongs together beside each other, nothing on another. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { campusOf } from '../../testing/campus';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import type { SwitchId } from '../../model/ids';
import { islandsOf, levelsFrom, naturally } from './blocks';
import { structuredPlaces } from './places';
import { tidiedPlaces } from './tidy';

const members = (design: Parameters<typeof islandsOf>[0]): SwitchId[] =>
  islandsOf(design).flatMap(({ core, blocks }) => [
    ...core,
    ...blocks.flatMap(({ heads, limbs }) => [...heads, ...limbs.flat()]),
  ]);

it('has every switch in one block, and gives every switch a place of its own', () => {
  fc.assert(
    fc.property(anyDesign, (design) => {
      const all = design.switches.map((sw) => sw.id).sort();
      expect(members(design).sort()).toEqual(all);
      const places = structuredPlaces(design);
      expect([...places.keys()].sort()).toEqual(all);
      const spots = [...places.values()];
      spots.forEach((a, i) =>
        spots.slice(i + 1).forEach((b) => expect(Math.abs(a.x - b.x) >= 110 || Math.abs(a.y - b.y) >= 60).toBe(true)),
      );
    }),
    { numRuns: tries(60) },
  );
});

describe('a campus', () => {
  const campus = campusOf({ switches: 50, vlans: 1, perPair: 10 });
  const [island, ...others] = islandsOf(campus);

  it('is its core, and a block for each pair with the access switches that only they serve', () => {
    expect(others).toEqual([]);
    expect(island!.core).toEqual(['core-1', 'core-2']);
    expect(island!.blocks.map(({ heads }) => heads)).toEqual([1, 3, 5, 7].map((n) => [`dist-${n}`, `dist-${n + 1}`]));
    for (const { limbs } of island!.blocks) expect(limbs.flat()).toHaveLength(10);
  });

  it('keeps rings and chains together, from one end to the other', () => {
    const [long, ...rest] = island!.blocks[0]!.limbs.filter((limb) => limb.length > 1);
    expect(rest).toEqual([]);
    // A ring of three from one switch of the pair to the other, and a chain from its end.
    expect(long).toEqual(['acc-25', 'acc-29', 'acc-33', 'acc-37']);
    const places = structuredPlaces(campus);
    expect(new Set(long!.map((id) => places.get(id)!.x)).size).toBe(1);
    const ys = long!.map((id) => places.get(id)!.y);
    expect(ys).toEqual([...ys].sort((a, b) => a - b));
  });

  it('has the core above distribution above access, in natural order, blocks beside each other', () => {
    const places = structuredPlaces(campus);
    const at = (id: string) => places.get(id as SwitchId)!;
    expect(at('core-1').x).toBeLessThan(at('core-2').x);
    expect(at('core-1').y).toBeLessThan(at('dist-1').y);
    expect(at('dist-1').y).toBeLessThan(at('acc-1').y);
    for (let n = 1; n < 8; n += 1) expect(at(`dist-${n}`).x).toBeLessThan(at(`dist-${n + 1}`).x);
    const right = Math.max(...island!.blocks[0]!.limbs.flat().map((id) => places.get(id)!.x));
    const left = Math.min(...island!.blocks[1]!.limbs.flat().map((id) => places.get(id)!.x));
    expect(right).toBeLessThan(left);
  });
});

it('takes hops from a root for levels where it is asked to', () => {
  const demo = fernhollow();
  const places = structuredPlaces(demo, levelsFrom(demo, ['lodge' as SwitchId]));
  const y = (id: string): number => places.get(id as SwitchId)!.y;
  expect(y('lodge')).toBeLessThan(y('ridge-a'));
  expect(y('ridge-a')).toBeLessThan(y('dome-east'));
});

it('takes the switch with most links for the core where no tier is given', () => {
  const star = networkOf({ a: {}, hub: {}, c: {}, d: {} }, ['hub 1 = a 1', 'hub 2 = c 1', 'hub 3 = d 1']);
  expect(islandsOf(star)).toEqual([{ core: [], blocks: [{ heads: ['hub'], limbs: [['a'], ['c'], ['d']] }] }]);
});

it('counts as people do', () => {
  expect(['acc-10', 'acc-2', 'core-1'].sort(naturally)).toEqual(['acc-2', 'acc-10', 'core-1']);
});

it('tidies all but what is pinned, and keeps that among the others', () => {
  fc.assert(
    fc.property(anyDesign, fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }), (design, pins) => {
      const switches = design.switches.map((sw, i) => ({
        ...sw,
        pinned: pins[i % 12]!,
        position: { x: 500 + 300 * i, y: -70 * i },
      }));
      const places = tidiedPlaces({ ...design, switches });
      expect([...places.keys()].sort()).toEqual(switches.flatMap((sw) => (sw.pinned ? [] : [sw.id])).sort());
      const pinned = switches.filter((sw) => sw.pinned);
      if (pinned.length !== 1) return;
      // Around a single one everything stands as if it had been tidied too.
      const free = tidiedPlaces({ ...design, switches: switches.map((sw) => ({ ...sw, pinned: false })) });
      const [one] = pinned;
      for (const [id, { x, y }] of places)
        expect([x - one!.position.x, y - one!.position.y]).toEqual([
          free.get(id)!.x - free.get(one!.id)!.x,
          free.get(id)!.y - free.get(one!.id)!.y,
        ]);
    }),
    { numRuns: tries(40) },
  );
});
