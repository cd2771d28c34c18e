/** Trees that fare alike are run once: what is told of each is what it would tell by itself. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import { randomDesign } from '../testing/networks';
import { benchedScenario } from '../testing/scenarios';
import { tries } from '../testing/runs';
import { compileNetwork } from '../topology/network';
import { alikeInRun } from './engine/alikeTrees';
import { captureOf } from './report/capture';
import type { Run } from './run';
import { treesThrough } from './scenario/scenario';
import { simulate } from './simulate';

/** Switches with a tree for each VLAN, or none at all; more VLANs than random designs have, one of which has a root of its own. */
const designs = fc.tuple(randomDesign('perVlan'), fc.integer({ min: 2, max: 5 })).map(([design, more]): Design => ({
  ...design,
  vlans: [...design.vlans, ...Array.from({ length: more }, (_, i) => ({ id: 100 + i }))],
  switches: design.switches.map((sw, i) =>
    i === 0 ? { ...sw, trees: { ...sw.trees, 'vlan:101': { priority: 0 } } } : sw,
  ),
}));

/** Everything of a run, in an order that does not hang on which of several trees comes first at a moment. */
function told(run: Run) {
  const sorted = (list: readonly unknown[]) => list.map((each) => JSON.stringify(each)).sort();
  const { frames } = captureOf(compileNetwork(run.design), run.trees, run);
  return {
    trace: sorted(run.trace),
    frames: sorted(frames.map(({ t, at, octets }) => [t, at, [...octets].join()])),
    flushes: sorted(run.flushes),
    outages: run.outages,
    storms: run.storms,
    final: run.final,
    ending: run.ending,
    settledAt: run.settledAt,
    moving: sorted(run.moving),
  };
}

it('tells what trees run apart tell: changes, frames octet for octet, outages, the end', () => {
  let saved = 0;
  fc.assert(
    fc.property(designs, fc.nat(), fc.boolean(), (design, pick, fromBoot) => {
      const link = design.links[pick % Math.max(1, design.links.length)];
      const actions = link
        ? [
            { at: 1, do: 'link-down', link: link.id },
            { at: 20, do: 'link-up', link: link.id },
          ]
        : [];
      const scenario = { ...benchedScenario(design, actions, 40), fromBoot };
      const [once, apart] = [simulate(design, scenario), simulate(design, scenario, { apart: true })];
      if (!once.ok || !apart.ok) throw new Error('it does not run');
      expect(told(once.value)).toEqual(told(apart.value));
      saved += apart.value.events - once.value.events;
    }),
    { numRuns: tries(12) },
  );
  expect(saved).toBeGreaterThan(0);
});

describe('trees fare alike', () => {
  const alike = (design: Design, actions: readonly object[] = []) => {
    const scenario = benchedScenario(design, actions, 10);
    return alikeInRun(design, treesThrough(design, scenario.actions), scenario);
  };
  const [design] = fc.sample(
    designs.filter(({ vlans, switches }) => vlans.length > 4 && switches.every((sw) => sw.up && sw.dialect !== 'off')),
    { seed: 7, numRuns: 1 },
  ) as [Design];

  it('where members and settings are the same, but for VLAN 1 and what a scenario sets by itself', () => {
    const trees = treesThrough(design, []);
    const at = (vid: number) => trees.indexOf(`vlan:${vid}` as never);
    const found = alike(design);
    expect(found[0]).toBe(0);
    expect(found[at(102)]).toBe(at(100));
    expect(found[at(101)]).toBe(at(101));
    const named = alike(design, [
      { at: 1, do: 'bridge-priority', switch: design.switches[0]!.id, priority: 0, tree: 'vlan:100' },
    ]);
    expect(named[at(100)]).toBe(at(100));
  });

  it('never where a standard bridge takes part, or a switch comes to speak otherwise', () => {
    const apart = (found: readonly number[]) => expect(found).toEqual(found.map((_, i) => i));
    apart(alike({ ...design, switches: design.switches.map((sw, i) => (i === 0 ? { ...sw, dialect: 'rstp' } : sw)) }));
    apart(alike(design, [{ at: 1, do: 'speak', switch: design.switches[0]!.id, dialect: 'per-vlan-stp' }]));
  });
});
