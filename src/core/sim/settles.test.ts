/** The protocols come to rest where the solver says, whatever the network, the offsets and what is cut. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import { FAMILIES, meshDesign, networkOf, randomDesign, regionsDesign, solutionOf } from '../testing/networks';
import { unlikeAtRest } from '../testing/settling';
import { turnLinks } from '../testing/turns';
import { compileNetwork } from '../topology/network';
import { treesOf } from '../topology/trees';
import { roleOf, stateIn } from '../tree/settled';
import { SECOND } from '../modes/entity';
import { Simulation } from './engine/simulation';
import { parts, tries } from '../testing/runs';

/** Long enough for two forward delays after the oldest information has died. */
const REST = 120 * SECOND;
const RUNS = 50;

/** Every port that is not as the solver has it. */
function differences(sim: Simulation, design: Design): string[] {
  const { network, trees } = solutionOf(design);
  return trees.flatMap((tree) => {
    const t = sim.trees.indexOf(tree.id);
    return network.ports.flatMap((port, p): string[] => {
      const role = roleOf(tree, p);
      if (role === null)
        return sim.inTree(t, p) && network.switches[network.owner[p]!]!.up ? [`${tree.id} has port ${port.id}`] : [];
      const [state, wanted] = [sim.state(t, p), role === 'disabled' ? 'disabled' : stateIn(tree, p)];
      const same = sim.role(t, p) === role && (state === 'blocking' ? 'discarding' : state) === wanted;
      return same
        ? []
        : [
            `${tree.id} ${network.switches[network.owner[p]!]!.id} port ${port.id}: ${role}, not ${sim.role(t, p)} ${state}`,
          ];
    });
  });
}

const families = [
  ...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map(
    (family) => [family, randomDesign(family, family === 'hubs' ? 4 : 8)] as const,
  ),
  ['mesh', meshDesign] as const,
];

describe.each(families)('random networks, %s', (_, anyOf) => {
  it('settle to what the solver says, from boot and after every cable that is cut or plugged in again', () => {
    fc.assert(
      fc.property(anyOf, fc.nat(), fc.array(fc.nat(), { maxLength: 3 }), (design, seed, turns) => {
        const { network, trees } = solutionOf(design);
        const sim = new Simulation(
          network,
          trees.map((tree) => tree.id),
          seed,
        );
        sim.boot();
        sim.runTo(REST);
        expect(differences(sim, design)).toEqual([]);
        turnLinks(sim, design, turns, REST, (now) => expect(differences(sim, now)).toEqual([]));
      }),
      { numRuns: tries(30) },
    );
  });
});

it('settles again after a switch has lost its power, and has it back', () => {
  fc.assert(
    fc.property(meshDesign, fc.nat(), (design, pick) => {
      const { network, trees } = solutionOf(design);
      const sim = new Simulation(
        network,
        trees.map((tree) => tree.id),
      );
      sim.boot();
      sim.runTo(REST);
      const s = pick % design.switches.length;
      for (const up of [false, true]) {
        const now = { ...design, switches: design.switches.map((sw, i) => (i === s ? { ...sw, up } : sw)) };
        sim.follow(now);
        sim.runTo(sim.now + REST);
        expect(differences(sim, now)).toEqual([]);
      }
    }),
    { numRuns: tries(20) },
  );
});

/** Rings and chains of rapid bridges and regions, with more of them than the root's max age has seconds. */
const longWays: fc.Arbitrary<Design> = fc
  .record({
    bridges: fc.array(
      fc.record({
        dialect: fc.constantFrom('rstp', 'rstp', 'per-vlan-rstp', 'mstp'),
        region: fc.constantFrom('r', null),
        priority: fc.constantFrom(4096, 8192, 32_768),
        maxAge: fc.constantFrom(6, 6, 7, 20),
      }),
      { minLength: 7, maxLength: 16 },
    ),
    costs: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 20, maxLength: 20 }),
    chords: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 3 }),
    one: fc.constantFrom('rstp', 'per-vlan-rstp', 'mstp', null, null),
  })
  .map(({ bridges, costs, chords, one }) => {
    const names = bridges.map((_, i) => `s${i}`);
    const across = chords.map(([a, b], i) => ({ a: a % names.length, b: b % names.length, port: 8 + i }));
    const ends = [
      ...names.slice(1).flatMap((name, i) => [`${names[i]} 2`, `${name} 1`]),
      ...across.flatMap(({ a, b, port }) => [`s${a} ${port}`, `s${b} ${port + 8}`]),
    ];
    return networkOf(
      Object.fromEntries(
        bridges.map(({ dialect, region, priority, maxAge }, i) => [
          names[i]!,
          {
            dialect: one ?? dialect,
            priority: i === 0 ? 0 : priority,
            timers: { maxAge, forwardDelay: 15 },
            ...((one ?? dialect) === 'mstp' && region && one === null ? { region } : {}),
          },
        ]),
      ),
      ends.flatMap((end, i) => (i % 2 === 0 ? [`${end} = ${ends[i + 1]!}`] : [])),
      Object.fromEntries(ends.map((end, i) => [end, { cost: costs[i % costs.length] }])),
      { regions: [{ id: 'r', name: 'R', instances: [{ id: 1, vlans: '10' }] }] },
    );
  });

it.each(parts(2, RUNS))(
  'settles to what the solver says where messages grow older than the max age of their root (%#)',
  (runs) => {
    fc.assert(
      fc.property(longWays, fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) =>
        expect(unlikeAtRest(design, seed, turns)).toEqual([]),
      ),
      runs,
    );
  },
);

/** Links that close a loop of a VLAN's frames, and neighbours that they do not get to though there is a cable. */
function broken(sim: Simulation, vid: number): string[] {
  const { design, live, owner, portIndexOf, switches } = sim.network;
  const island = switches.map((_, s) => s);
  const lead = (s: number): number => (island[s] === s ? s : lead(island[s]!));
  const cables = design.links.flatMap(({ id, a, b }) => {
    const ends = [portIndexOf(a.switch, a.port), portIndexOf(b.switch, b.port)] as const;
    return live[ends[0]] ? [{ id, ends, between: ends.map((p) => owner[p]!) as [number, number] }] : [];
  });
  const loops = cables.flatMap(({ id, ends, between: [s, t] }) => {
    if (!ends.every((p) => sim.passes(vid, p))) return [];
    if (lead(s) === lead(t)) return [`VLAN ${vid} circles over ${id}`];
    island[lead(s)] = lead(t);
    return [];
  });
  return [
    ...loops,
    ...cables.flatMap(({ id, between: [s, t] }) =>
      lead(s) === lead(t) ? [] : [`VLAN ${vid} does not get from one end of ${id} to the other`],
    ),
  ];
}

it('regions, rapid and classic bridges together leave one tree for each VLAN, whatever its instance', () => {
  fc.assert(
    fc.property(regionsDesign(), fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) => {
      const sim = new Simulation(compileNetwork(design), treesOf(design), seed);
      sim.boot();
      sim.runTo(REST);
      const faults = (): string[] => [1, 10, 20, 30].flatMap((vid) => broken(sim, vid));
      expect(faults()).toEqual([]);
      let now = design;
      for (const turn of design.links.length > 0 ? turns : []) {
        now = {
          ...now,
          links: now.links.map((link, i) => (i === turn % design.links.length ? { ...link, up: !link.up } : link)),
        };
        sim.follow(now);
        sim.runTo(sim.now + REST);
        expect(faults()).toEqual([]);
      }
    }),
    { numRuns: tries(50) },
  );
});
