/** Networks that begin at rest stand as booted ones do, say what those say, and come to rest again after every change. */
import fc from 'fast-check';
import type { Design, Dialect } from '../model/document';
import type { Bpdu } from '../modes/bpdu';
import { SECOND } from '../modes/entity';
import { bundledDesign } from '../testing/bundles';
import { FAMILIES, networkOf, randomDesign, regionsDesign } from '../testing/networks';
import { tries } from '../testing/runs';
import { benchedScenario } from '../testing/scenarios';
import { unlike } from '../testing/settling';
import { turnLinks } from '../testing/turns';
import { compileNetwork } from '../topology/network';
import { treesOf } from '../topology/trees';
import { Simulation } from './engine/simulation';
import type { PortChange } from './trace/recording';
import { simulate } from './simulate';

const REST = 60 * SECOND;
/** Longer than any information lives. */
const WHILE = 26 * SECOND;
const HELLO = 2 * SECOND;

const RAPID: Partial<Record<Dialect, Dialect>> = { stp: 'rstp', 'per-vlan-stp': 'per-vlan-rstp' };
const rapid = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((sw) => ({ ...sw, dialect: RAPID[sw.dialect] ?? sw.dialect })),
});

/** A network, what it says at rest from each port, with the moment within the hello time, and what changes. */
function heardOf(design: Design, seed: number) {
  const said = new Map<string, string>();
  const changes: PortChange[] = [];
  const sim = new Simulation(compileNetwork(design), treesOf(design), seed, {
    changed: (change) => changes.push(change),
    sent: (t, tree, port, bpdu) => said.set(`${tree} ${port}`, `${t % HELLO} ${JSON.stringify(toldAtRest(bpdu))}`),
  });
  return { sim, said, changes };
}

function beginAtRest(sim: Simulation): boolean {
  const steps = sim.beginAtRest();
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** A designated port that has agreed to something on the way goes on saying so (13.27 agree), which nobody reads. */
const toldAtRest = (bpdu: Bpdu): object => {
  const plain = <T extends { readonly role: string }>(flags: T): T =>
    flags.role === 'designated' ? { ...flags, agreement: false } : flags;
  if (bpdu.kind === 'mst') return { ...plain(bpdu), instances: bpdu.instances.map(plain) };
  return bpdu.kind === 'rst' ? plain(bpdu) : bpdu;
};

const families = [
  ...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map(
    (family) => [family, randomDesign(family, family === 'hubs' ? 4 : 8).map(rapid)] as const,
  ),
  ['regions', regionsDesign().map(rapid)] as const,
  ['bundles', bundledDesign({ modes: ['active', 'passive', 'static'] }).map(rapid)] as const,
];

it.each(families)('stands as a booted network does, and moves no port: random networks, %s', (_, anyOf) => {
  let begun = 0;
  fc.assert(
    fc.property(anyOf, fc.nat(), fc.array(fc.nat(), { maxLength: 3 }), (design, seed, turns) => {
      const [resting, booted] = [heardOf(design, seed), heardOf(design, seed)];
      if (!beginAtRest(resting.sim)) return;
      begun += 1;
      expect(unlike(resting.sim, design)).toEqual([]);
      resting.changes.length = 0;
      resting.sim.runTo(resting.sim.now + WHILE);
      resting.sim.tellHellos();
      expect(resting.changes).toEqual([]);
      expect(resting.sim.rests).toBe(true);
      booted.sim.boot();
      booted.sim.runTo(REST);
      booted.sim.tellHellos();
      booted.said.clear();
      booted.sim.runTo(REST + WHILE);
      booted.sim.tellHellos();
      if (design.bundles.length === 0) expect([...resting.said].sort()).toEqual([...booted.said].sort());
      turnLinks(resting.sim, design, turns, REST, (now) => expect(unlike(resting.sim, now)).toEqual([]));
    }),
    { numRuns: tries(25) },
  );
  expect(begun).toBeGreaterThan(0);
});

it('boots where it cannot be said beforehand: classic bridges, a region with its root outside, a segment of three bridges', () => {
  const ring = ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'];
  const begins = (design: Design): boolean => beginAtRest(heardOf(design, 1).sim);
  expect(begins(networkOf({ a: {}, b: {}, c: {} }, ring))).toBe(true);
  expect(begins(networkOf({ a: {}, b: {}, c: { dialect: 'stp' } }, ring))).toBe(false);
  expect(begins(networkOf({ a: {}, b: {}, c: { dialect: 'off' } }, ring))).toBe(false);
  const region = { regions: [{ id: 'r', name: 'r', instances: [{ id: 1, vlans: '2' }] }], vlans: [{ id: 2 }] };
  const withRegion = (a: { priority?: number }, others: { priority?: number }): Design =>
    networkOf(
      { a, b: { dialect: 'mstp', region: 'r' }, c: { dialect: 'mstp', region: 'r', ...others } },
      ring,
      {},
      region,
    );
  expect(begins(withRegion({}, { priority: 0 }))).toBe(true);
  expect(begins(withRegion({ priority: 0 }, {}))).toBe(false);
});

it('gives the same end from rest as from boot, and runs what it cannot bring to rest', () => {
  fc.assert(
    fc.property(fc.oneof(families[1]![1], regionsDesign()), fc.nat(), (design, pick) => {
      const link = design.links[pick % Math.max(1, design.links.length)];
      const scenario = benchedScenario(design, link ? [{ at: 1, do: 'link-down', link: link.id }] : [], 50);
      const [resting, booted] = (['at-rest', 'booted'] as const).map((begins) =>
        simulate(design, scenario, { begins }),
      );
      if (!resting!.ok || !booted!.ok) throw new Error('it does not run');
      expect(resting!.value.final).toEqual(booted!.value.final);
      expect(resting!.value.ending.kind).toBe(booted!.value.ending.kind);
    }),
    { numRuns: tries(15) },
  );
});

it('can be stopped while it is brought to rest', () => {
  const design = networkOf({ a: {}, b: {} }, ['a 1 = b 1']);
  let asked = 0;
  const run = simulate(design, benchedScenario(design, [], 5), {
    begins: 'at-rest',
    progress: () => (asked += 1) > 1,
  });
  expect(asked).toBe(1);
  expect(run).toEqual({ ok: false, error: expect.stringContaining('Stopped') as string });
});
