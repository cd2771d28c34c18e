/** MSTP comes to rest where the solver says: every tree of every region, whatever the neighbours. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import { bundledDesign } from '../testing/bundles';
import { designOf, networkOf, regionsDesign } from '../testing/networks';
import { unlikeAtRest } from '../testing/settling';
import { parts } from '../testing/runs';

/** Chains of one region, with a cable across here and there, longer than hops are allowed. */
const longChain: fc.Arbitrary<Design> = fc
  .record({
    priorities: fc.array(fc.constantFrom(0, 4096, 32_768, 32_768), { minLength: 7, maxLength: 12 }),
    chords: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(1, 20_000, 200_000)), { maxLength: 2 }),
    outsider: fc.nat(30),
  })
  .map(({ priorities, chords, outsider }) => {
    const names = priorities.map((_, i) => `s${i}`);
    const across = chords
      .map(([a, b, cost], i) => ({ a: a % names.length, b: b % names.length, cost, port: 8 + i }))
      .filter(({ a, b }) => a !== b);
    const speaks = (i: number) =>
      i === outsider
        ? { dialect: 'rstp' }
        : {
            dialect: 'mstp',
            region: 'r',
            timers: { maxHops: 6 },
            trees: { 'mst:1': { priority: priorities.at(-1 - i)! } },
          };
    return networkOf(
      Object.fromEntries(names.map((name, i) => [name, { priority: priorities[i], ...speaks(i) }])),
      [
        ...names.slice(1).map((name, i) => `${names[i]} 2 = ${name} 1`),
        ...across.map(({ a, b, port }) => `s${a} ${port} = s${b} ${port}`),
      ],
      Object.fromEntries(across.map(({ a, port, cost }) => [`s${a} ${port}`, { cost }])),
      { vlans: [{ id: 10 }], regions: [{ id: 'r', name: 'R', instances: [{ id: 1, vlans: '10' }] }] },
    );
  });

/** One region in which ways of the same cost take unlike numbers of hops, more than are allowed. */
const evenWays: fc.Arbitrary<Design> = fc
  .record({
    priorities: fc.array(fc.constantFrom(4096, 8192, 32_768), { minLength: 8, maxLength: 13 }),
    costs: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 20, maxLength: 20 }),
    chords: fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 4 }),
  })
  .map(({ priorities, costs, chords }) => {
    const names = priorities.map((_, i) => `s${i}`);
    const across = chords.map(([a, b], i) => ({ a: a % names.length, b: b % names.length, port: 8 + i }));
    const ends = [
      ...names.slice(1).flatMap((name, i) => [`${names[i]} 2`, `${name} 1`]),
      ...across.flatMap(({ a, b, port }) => [`s${a} ${port}`, `s${b} ${port + 8}`]),
    ];
    return networkOf(
      Object.fromEntries(
        names.map((name, i) => [
          name,
          {
            priority: i === 0 ? 0 : priorities[i],
            dialect: 'mstp',
            region: 'r',
            timers: { maxHops: 6 },
            trees: { 'mst:1': { priority: i === 1 ? 0 : priorities.at(-1 - i)! } },
          },
        ]),
      ),
      ends.flatMap((end, i) => (i % 2 === 0 ? [`${end} = ${ends[i + 1]!}`] : [])),
      Object.fromEntries(ends.map((end, i) => [end, { cost: costs[i % costs.length] }])),
      { vlans: [{ id: 10 }], regions: [{ id: 'r', name: 'R', instances: [{ id: 1, vlans: '10' }] }] },
    );
  });

/** Bundles that negotiate, between switches of one region and others. */
const bundled: fc.Arbitrary<Design> = fc
  .tuple(bundledDesign({ modes: ['active', 'active', 'passive', 'initiate', 'answer'] }), fc.nat(7))
  .map(([{ bundles, links, switches }, members]) =>
    designOf({
      links,
      bundles,
      vlans: [{ id: 10 }],
      regions: [{ id: 'r', name: 'R', instances: [{ id: 1, vlans: '10' }] }],
      switches: switches.map((sw, s) => ({
        ...sw,
        dialect: 'mstp',
        ...(members & (1 << s) ? { region: 'r' } : {}),
        trees: { 'mst:1': { priority: 4096 * (3 - s) } },
      })),
    }),
  );

const RUNS = 30;

const FAMILIES = [
  ['of up to four regions, beside rapid and classic bridges', regionsDesign(), RUNS],
  ['with up to 64 instances', regionsDesign(5, ['r0', 'r0', 'r0', 'r1', 'rstp'], 64), Math.ceil(RUNS / 6)],
  [
    'beside bridges that have a tree for each VLAN',
    regionsDesign(6, ['r0', 'r0', 'r1', 'rstp', 'per-vlan-rstp', 'per-vlan-rstp']),
    RUNS,
  ],
  ['whose BPDUs run out of hops', longChain, RUNS],
  ['whose hops run out over ways of one cost', evenWays, RUNS],
  ['with bundles', bundled, RUNS],
  ['beside switches without spanning tree', regionsDesign(6, ['r0', 'r0', 'r0', 'r1', 'rstp', 'off']), RUNS],
] as const;

it.each(
  FAMILIES.flatMap(([name, designs, runs]) => parts(3, runs).map(({ numRuns }) => [name, designs, numRuns] as const)),
)('in random networks %s, from boot and after cuts (%#)', (_, designs, numRuns) => {
  fc.assert(
    fc.property(designs, fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) =>
      expect(unlikeAtRest(design, seed, turns)).toEqual([]),
    ),
    { numRuns },
  );
});
