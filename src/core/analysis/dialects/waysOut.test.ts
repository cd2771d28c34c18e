/** Ways out of networks whose switches do not agree on trees: each ends where it says, and no step is done twice. */
import fc from 'fast-check';
import { fernhollow, townOffice } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { isMultiple, isPerVlan, runsTrees, type Design } from '../../model/document';
import { networkOf, randomDesign } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { solve } from '../../tree/solve';
import { compileNetwork } from '../../topology/network';
import { closingPorts, lonelyCables, partsOf } from '../parts';
import { strangersIn, waysOut, type WayOut } from './waysOut';

const waysOf = (design: Design): readonly WayOut[] => {
  const found = waysOut(solve(design));
  if (!found.ok) throw new Error(found.error);
  return found.value;
};
const taken = (design: Design, { preparation, steps }: WayOut): Design => {
  const edited = editAll(design, [...preparation, ...steps.flatMap(({ changes }) => changes)]);
  if (!edited.ok) throw new Error(JSON.stringify(edited.error));
  return edited.value.design;
};

it('a stranger on two cables is bundled to a pair, through which no BPDU comes back', () => {
  const many = { dialect: 'per-vlan-rstp', priority: 0 };
  const design = networkOf(
    { a: many, b: { ...many, priority: 4096 }, x: {} },
    ['a 1 = b 1', 'a 2 = x 1', 'b 2 = x 2'],
    { 'x 1': { vlans: { mode: 'trunk', allowed: '1,15' } }, 'x 2': { vlans: { mode: 'trunk', allowed: '1,15' } } },
    { vlans: [{ id: 15, name: 'one' }] },
  );
  const way = waysOf(design).find(({ key }) => key === 'pair')!;
  expect(way.steps.map(({ does }) => does[0])).toEqual(['Make a pair of a and b, and bundle what has cables to both.']);
  expect(way.costs).toMatchObject({ returning: 0, open: 0, simulated: null });
  const { network } = solve(taken(design, way));
  expect(network.pairs.map(({ state }) => state)).toEqual(['together']);
  expect(closingPorts(network.acting!, () => true)).toEqual([]);
});

describe('the ways out of the town office', () => {
  const town = townOffice();
  const ways = new Map(waysOf(town).map((way) => [way.key, way]));

  it('are six, each with its steps and what it costs; a mode changes in two orders', () => {
    const both = (key: string) => [`${key} outwards`, `${key} inwards`];
    expect([...ways.keys()]).toEqual([
      'speak',
      'unplug',
      'stack',
      ...both('per-vlan-rstp'),
      ...both('rstp'),
      ...both('mstp'),
    ]);
    const order = (key: string) => ways.get(key)!.steps.flatMap((step) => step.switch ?? []);
    expect(order('rstp inwards')).toEqual(order('rstp outwards').reverse());
    expect(order('rstp outwards')[0]).toBe('hall-a');
    expect(ways.get('stack')!.steps.map(({ does }) => does[0])).toEqual([
      'Cable stairs-a and stairs-b into one stack.',
      'Bundle the 2 cables hall-a to stairs-a at both ends.',
    ]);
    expect(ways.get('stack')!.costs).toMatchObject({
      cables: 0,
      alone: [0, 0],
      returning: 0,
      open: 0,
      simulated: null,
    });
    expect(ways.get('speak')!.name).toBe('trees of VLANs at the cables of stairs-a and stairs-b');
    expect(ways.get('speak')!.steps.map(({ does }) => does[0])).toEqual([
      'stairs-a: trees of VLANs at ports 1, 2.',
      'stairs-b: trees of VLANs at ports 1, 2.',
    ]);
    expect(ways.get('speak')!.costs).toMatchObject({
      settings: 4,
      switches: 2,
      trees: 4,
      alone: [0, 0],
      returning: 0,
      open: 0,
    });
    expect(ways.get('unplug')!.costs).toMatchObject({
      settings: 1,
      switches: 0,
      cables: 1,
      alone: [0, 2],
      returning: 0,
    });
    expect(ways.get('rstp outwards')!.costs).toMatchObject({ settings: 6, switches: 6, trees: 1 });
  });
  it('say what happens on the way: frames circle while the root has one tree and others have many', () => {
    expect(ways.get('rstp outwards')!.costs.simulated!.frames).toBe('circle');
    expect(ways.get('per-vlan-rstp outwards')!.costs.simulated!.frames).toBeNull();
  });
  it('are none where all switches agree', () => {
    expect(waysOut(solve(fernhollow()))).toMatchObject({ ok: false });
    expect(strangersIn(fernhollow())).toEqual([]);
  });
});

it('end without a switch that disagrees, or without a loop of theirs: random networks', () => {
  let seen = 0;
  fc.assert(
    fc.property(
      randomDesign('mixed').filter((design) => strangersIn(design).length > 0),
      (design) => {
        for (const way of waysOf(design)) {
          const then = taken(design, way);
          const network = compileNetwork(then);
          seen += 1;
          if (way.key === 'unplug') {
            const strangers = strangersIn(design).map((id) => network.switchIndex.get(id)!);
            const ofStrangers = (p: number) => [p, network.far[p]!].some((q) => strangers.includes(network.owner[q]!));
            expect(closingPorts(network, () => true, ofStrangers).filter(ofStrangers)).toEqual([]);
            const parts = (of: Design) => new Set(partsOf(compileNetwork(of), () => true)).size;
            expect(parts(then)).toBe(parts(design)); // nobody is left behind
          }
          const running = then.switches.filter((sw) => sw.up && runsTrees(sw));
          if (way.key.startsWith('rstp')) expect(running.every(({ dialect }) => dialect === 'rstp')).toBe(true);
          if (way.key.startsWith('per-vlan-rstp')) expect(running.every(isPerVlan)).toBe(true);
          if (way.key.startsWith('mstp')) expect(running.every(isMultiple)).toBe(true);
        }
      },
    ),
    { numRuns: tries(6) },
  );
  expect(seen).toBeGreaterThan(0);
});

it('counts cables that nothing replaces: of a ring none, of a tree all, of two beside each other none', () => {
  const count = (cables: readonly string[]) =>
    lonelyCables(compileNetwork(networkOf({ a: {}, b: {}, c: {}, d: {} }, cables)));
  expect(count(['a 1 = b 1', 'b 2 = c 1', 'c 2 = d 1'])).toBe(3);
  expect(count(['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2', 'c 3 = d 1'])).toBe(1);
  expect(count(['a 1 = b 1', 'a 2 = b 2', 'c 2 = d 1'])).toBe(1);
});
