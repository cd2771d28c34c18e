/** Trees of a run are run apart, and those that fare alike once: what is told of each is what all tell on one clock. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import { helperBeside } from '../testing/helpers';
import { networkOf, randomDesign } from '../testing/networks';
import { benchedScenario } from '../testing/scenarios';
import { tries } from '../testing/runs';
import { compileNetwork } from '../topology/network';
import type { Helper } from './helper';
import { partsOf, type Part } from './engine/parts';
import { captureOf } from './report/capture';
import type { Run } from './run';
import { treesThrough } from './scenario/scenario';
import { simulate, simulateShared } from './simulate';

/** Without what is set for VLAN 1 alone. */
const withoutFirst = <T extends { readonly trees: object }>(it: T): T => ({
  ...it,
  trees: Object.fromEntries(Object.entries(it.trees).filter(([tree]) => tree !== 'vlan:1')),
});

/**
 * Switches with a tree for each VLAN, or none at all; more VLANs than random designs have, one of which has a root of its own.
 * VLAN 1 has settings of its own in half of them.
 */
const designs = fc
  .tuple(randomDesign('perVlan'), fc.integer({ min: 2, max: 5 }), fc.boolean())
  .map(([design, more, firstToo]): Design => ({
    ...design,
    vlans: [...design.vlans, ...Array.from({ length: more }, (_, i) => ({ id: 100 + i }))],
    switches: design.switches.map((given, i) => {
      const sw = firstToo ? given : { ...withoutFirst(given), ports: given.ports.map(withoutFirst) };
      return i === 0 ? { ...sw, trees: { ...sw.trees, 'vlan:101': { priority: 0 } } } : sw;
    }),
    bundles: firstToo ? design.bundles : design.bundles.map(withoutFirst),
  }));

/** In an order that does not hang on which of several trees comes first at a moment. */
const told = (list: readonly unknown[]) => list.map((each) => JSON.stringify(each)).sort();

/** Everything of a run as it is told, the causes of all changes too. */
const inOneOrder = (run: Run) => ({
  ...allTold(run),
  changes: Array.from({ length: run.recording.count }, (_, i) => run.recording.change(i)),
  sent: Array.from({ length: run.sent.count }, (_, i) => run.sent.at(i)),
  reach: run.reach.data(),
  flushes: [...run.flushes],
  reached: run.reached,
});

/** Everything of a run. */
function allTold(run: Run) {
  const { frames } = captureOf(compileNetwork(run.design), run.trees, run);
  return {
    trace: told(run.trace),
    frames: told(frames.map(({ t, at, octets }) => [t, at, [...octets].join()])),
    flushes: told([...run.flushes]),
    outages: run.outages,
    storms: run.storms,
    final: run.final,
    ending: run.ending,
    settledAt: run.settledAt,
    moving: told(run.moving),
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
      const [plain, kinds, each] = (['all on one', 'one of each kind', 'each its own'] as const).map((clocks) =>
        simulate(design, scenario, { clocks }),
      );
      if (!plain?.ok || !kinds?.ok || !each?.ok) throw new Error('it does not run');
      expect(allTold(kinds.value)).toEqual(allTold(plain.value));
      expect(allTold(each.value)).toEqual(allTold(plain.value));
      saved += plain.value.events - kinds.value.events;
    }),
    { numRuns: tries(12) },
  );
  expect(saved).toBeGreaterThan(0);
});

it('is written down up to one moment where it is stopped, and up to there as though it had not been', () => {
  fc.assert(
    fc.property(designs, fc.nat(), fc.double({ min: 0.05, max: 0.85, noNaN: true }), (design, pick, stop) => {
      const actions = design.links.map(({ id }, i) => ({ at: 1 + ((i * 7 + pick) % 20), do: 'link-down', link: id }));
      const scenario = benchedScenario(design, actions, 40);
      const whole = simulate(design, scenario);
      const part = simulate(design, scenario, { clocks: 'each its own', progress: (share) => share < stop });
      if (!whole.ok) throw new Error('it does not run');
      if (!part.ok) return; // stopped before it began
      const { reached, stopped } = part.value;
      const until = <T extends { t: number }>(list: readonly T[], second: number) =>
        told(list.filter(({ t }) => t <= reached * second));
      expect(stopped).toBe(true);
      expect(until(part.value.trace, 1)).toEqual(until(whole.value.trace, 1));
      expect(until([...part.value.flushes], 1e6)).toEqual(until([...whole.value.flushes], 1e6));
      expect(told(part.value.trace)).toEqual(until(part.value.trace, 1));
      for (const { end } of part.value.outages) expect(end ?? reached).toBeLessThanOrEqual(reached);
    }),
    { numRuns: tries(12) },
  );
});

it('tells the same where helpers run some of the parts, from boot and at rest', async () => {
  let shared = 0;
  await fc.assert(
    fc.asyncProperty(
      designs,
      fc.nat(),
      fc.boolean(),
      fc.integer({ min: 1, max: 3 }),
      async (design, pick, fromBoot, count) => {
        const actions = design.links.map(({ id }, i) => ({ at: 1 + ((i * 7 + pick) % 20), do: 'link-down', link: id }));
        const scenario = { ...benchedScenario(design, actions, 40), fromBoot };
        const options = { clocks: 'each its own', begins: pick % 2 === 0 ? 'booted' : 'at-rest' } as const;
        const helpers = () => {
          shared += 1;
          return Array.from({ length: count }, helperBeside);
        };
        const alone = simulate(design, scenario, options);
        const together = await simulateShared(design, scenario, helpers, options);
        if (!alone.ok || !together.ok) throw new Error('it does not run');
        await together.value.sent.complete();
        expect(inOneOrder(together.value)).toEqual(inOneOrder(alone.value));
      },
    ),
    { numRuns: tries(12) },
  );
  expect(shared).toBeGreaterThan(0);
});

it('is written down up to one moment where it is stopped while helpers run parts of it', async () => {
  const [design] = fc.sample(
    designs.filter(({ links }) => links.length > 3),
    { seed: 5, numRuns: 1 },
  ) as [Design];
  const actions = design.links.map(({ id }, i) => ({ at: 1 + i, do: 'link-down', link: id }));
  const scenario = benchedScenario(design, actions, 40);
  const options = { clocks: 'each its own', progress: (share: number) => share < 0.3 } as const;
  const alone = simulate(design, scenario, options);
  const together = await simulateShared(design, scenario, () => [helperBeside()], options);
  if (!alone.ok || !together.ok) throw new Error('it does not run');
  await together.value.sent.complete();
  expect(together.value.stopped).toBe(true);
  expect(inOneOrder(together.value)).toEqual(inOneOrder(alone.value));
});

it('fails where a helper does, and lets the others go', async () => {
  const [design] = fc.sample(
    designs.filter(({ links }) => links.length > 3),
    { seed: 5, numRuns: 1 },
  ) as [Design];
  const ended: string[] = [];
  const [good, bad] = ['good', 'bad'].map((name): Helper => ({
    ...helperBeside(),
    end: async () => void ended.push(await Promise.resolve(name)),
  })) as [Helper, Helper];
  const failing = { ...bad, runTo: () => Promise.reject(new Error('out of memory')) };
  const scenario = benchedScenario(design, [], 40);
  await expect(simulateShared(design, scenario, () => [good, failing], { clocks: 'each its own' })).rejects.toThrow(
    'out of memory',
  );
  expect(ended).toEqual(['good', 'bad']);
});

describe('the parts of a run', () => {
  const parts = (design: Design, actions: readonly object[] = []) => {
    const scenario = benchedScenario(design, actions, 10);
    return partsOf(design, treesThrough(design, scenario.actions), scenario);
  };
  const [design] = fc.sample(
    designs.filter(
      ({ vlans, switches, links }) =>
        vlans.length > 4 &&
        links.length > 1 &&
        switches.length > 2 &&
        switches.every((sw) => sw.up && sw.dialect !== 'off'),
    ),
    { seed: 7, numRuns: 1 },
  ) as [Design];
  const at = (vid: number) => treesThrough(design, []).indexOf(`vlan:${vid}` as never);
  const partWith = (found: readonly Part[], vid: number) =>
    found.filter(({ told }) => told.some((all) => all.some(({ tree }) => tree === at(vid))));

  it('are the trees, those with the same members and settings in one, but for what a scenario sets by itself', () => {
    const found = parts(design);
    const [alike] = partWith(found, 102);
    expect(alike!.trees).toHaveLength(1);
    expect(partWith(found, 100)).toEqual([alike]);
    expect(alike!.told[0]!.find(({ tree }) => tree === at(102))!.by).toBe(102 - Number(alike!.trees[0]!.slice(5)));
    expect(partWith(found, 101)[0]!.told).toEqual([[{ tree: at(101), by: 0 }]]);
    const named = parts(design, [
      { at: 1, do: 'bridge-priority', switch: design.switches[0]!.id, priority: 0, tree: 'vlan:100' },
    ]);
    expect(partWith(named, 100)[0]!.told).toEqual([[{ tree: at(100), by: 0 }]]);
    const all = found.flatMap(({ told }) => told.flat().map(({ tree }) => tree));
    expect(all.sort((a, b) => a - b)).toEqual(treesThrough(design, []).map((_, tree) => tree));
  });

  it('have VLAN 1 among those that fare alike, and by itself where something is set for it', () => {
    const speaks = { dialect: 'per-vlan-rstp' };
    const ringOf = (more: object) =>
      networkOf(
        { a: { ...speaks, ...more }, b: speaks, c: speaks },
        ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'],
        {},
        { vlans: [{ id: 15 }, { id: 25 }] },
      );
    const told = (found: Design) =>
      parts(found).map(({ trees, told: [all] }) => [trees, all!.map(({ tree, by }) => [tree, by])]);
    expect(told(ringOf({}))).toEqual([
      [
        ['vlan:1'],
        [
          [0, 0],
          [1, 14],
          [2, 24],
        ],
      ],
    ]);
    expect(told(ringOf({ trees: { 'vlan:1': { priority: 0 } } }))).toEqual([
      [['vlan:1'], [[0, 0]]],
      [
        ['vlan:15'],
        [
          [1, 0],
          [2, 10],
        ],
      ],
    ]);
  });

  it('are one, with no tree left out, where a standard bridge takes part, or a switch comes to speak otherwise', () => {
    const whole = (found: readonly Part[]) =>
      expect(found.map(({ trees }) => trees)).toEqual([treesThrough(design, [])]);
    whole(parts({ ...design, switches: design.switches.map((sw, i) => (i === 0 ? { ...sw, dialect: 'rstp' } : sw)) }));
    whole(parts(design, [{ at: 1, do: 'speak', switch: design.switches[0]!.id, dialect: 'per-vlan-stp' }]));
  });

  it('are one where a guard may shut a port for all of them, and only where a link is plugged in there', () => {
    const [{ a: end }] = design.links as [Design['links'][0]];
    const guarded = (on: (port: string) => boolean): Design => ({
      ...design,
      switches: design.switches.map((sw) =>
        sw.id !== end.switch
          ? sw
          : { ...sw, ports: sw.ports.map((port) => (on(port.id) ? { ...port, bpduGuard: true } : port)) },
      ),
    });
    const linked = new Set(design.links.flatMap(({ a, b }) => [a, b]).map((each) => `${each.switch} ${each.port}`));
    expect(parts(guarded((port) => port === end.port))).toHaveLength(1);
    expect(parts(guarded((port) => !linked.has(`${end.switch} ${port}`)))).toEqual(parts(design));
  });
});
