/** A network that is drawn from what it tells does what it told. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../../demo/demos';
import { namesOf } from '../../../model/derive/names';
import { anyDesign } from '../../../testing/networks';
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

it('draws a pair and a stack as the switches that answer', () => {
  const { design } = drawnOf(observedAtRest(townOffice()));
  expect(design.switches.length).toBeGreaterThan(3);
});
