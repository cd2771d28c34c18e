/** A network that is drawn from what it tells does what it told. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../../demo/demos';
import { namesOf } from '../../../model/derive/names';
import { bundledDesign } from '../../../testing/bundles';
import { anyDesign } from '../../../testing/networks';
import { pairedNetwork, withPair } from '../../../testing/pairs';
import { tries } from '../../../testing/runs';
import { campusOf } from '../../../testing/campus';
import { observedAtRest } from '../../../testing/observed';
import type { Design } from '../../../model/document';
import { solve } from '../../../tree/solve';
import { compareObserved } from '../compare/compare';
import { differenceText } from '../compare/difference';
import type { Observation } from '../observation';
import { drawn } from './draw';

const drawnOf = (observation: Observation) => {
  const made = drawn(observation);
  if (!made.ok) throw new Error(made.error);
  return made.value;
};
const differences = (design: Design, observation: Observation): string[] =>
  compareObserved(solve(design), observation).differences.map((each) => differenceText(namesOf(design), each));

it('solved, comes to what was observed', () => {
  for (const design of [fernhollow(), valleyStation()]) {
    const observation = observedAtRest(design);
    const { design: made, doubts } = drawnOf(observation);
    expect(doubts).toEqual([]);
    expect(differences(made, observation)).toEqual([]);
    expect(made.links).toHaveLength(design.links.length);
    expect(made.hosts).toHaveLength(design.hosts.length);
    expect(made.switches.every(({ position }) => position)).toBe(true);
  }
  fc.assert(
    fc.property(anyDesign, (design) => {
      const observation = observedAtRest(design);
      expect(differences(drawnOf(observation).design, observation)).toEqual([]);
    }),
    { numRuns: tries(40) },
  );
});

it('guesses tiers and groups', () => {
  const { design } = drawnOf(observedAtRest(fernhollow()));
  expect(design.switches.filter(({ tier }) => tier === 'core').map(({ id }) => id)).toEqual(['ridge-a', 'ridge-b']);
  expect(design.groups.map(({ id }) => id)).toContain('ridge');
});

it('draws two hundred switches as what they are, by structure and not by name', () => {
  const campus = campusOf({ switches: 200, vlans: 2 });
  const observation = observedAtRest(campus);
  const { design } = drawnOf(observation);
  expect(design.groups.map(({ id }) => id)).toEqual([]);
  expect(design.switches.filter(({ tier }) => tier === 'core')).toHaveLength(2);
  expect(differences(design, observation)).toEqual([]);
});

it('draws a pair as a pair, with what its bundles lead to', () => {
  const town = townOffice();
  const observation = observedAtRest(town);
  const { design, doubts } = drawnOf(observation);
  const half = (of: Design, id: string) => of.switches.find((sw) => sw.id === id)!;
  for (const id of ['data-a', 'data-b']) {
    expect(half(design, id)).toMatchObject({ mac: half(town, id).mac, pair: { mac: '02:4d:00:00:00:50' } });
  }
  const numbers = (of: Design) => of.bundles.map(({ switch: sw, pairNumber }) => `${sw} ${pairNumber ?? ''}`).sort();
  expect(numbers(design)).toEqual(numbers(town));
  expect(doubts).toEqual([
    'data-a and data-b: they answer as one bridge, and were drawn as a pair with data-a as its primary; domain, priorities and keepalive are not told.',
  ]);
  expect(differences(design, observation)).toEqual([]);
});

/** Switches around a pair that has a cable for its keepalive, with bundles of both halves and single cables. */
const aroundPair = fc
  .record({
    dialect: fc.constantFrom('stp', 'rstp', 'per-vlan-rstp'),
    priorities: fc.array(fc.constantFrom(0, 4096, 32768), { minLength: 5, maxLength: 5 }),
    isOther: fc.boolean(),
  })
  .map(({ dialect, priorities, isOther }) =>
    pairedNetwork({
      switches: Object.fromEntries(
        ['p', 's', 'x', 'y', 'r'].map((sw, i) => [sw, { dialect, priority: priorities[i]! }]),
      ),
      half: isOther ? { p: { priority: 20 }, s: { priority: 10 } } : {},
    }),
  );
const withAnyPair = fc.oneof(
  withPair(fc.oneof(anyDesign, bundledDesign({ modes: ['active', 'passive'], odd: false }))),
  aroundPair,
);

it('draws pairs that do what was told, whatever they are in', () => {
  fc.assert(
    // How many members a bundle wants, or takes, and keys of single ports are told by no table.
    fc.property(withAnyPair, (design) => {
      fc.pre(design !== null);
      const observation = observedAtRest(design!);
      expect(differences(drawnOf(observation).design, observation)).toEqual([]);
    }),
    { numRuns: tries(20) },
  );
});
