/** The root check: where VLANs' roots do not fit the CIST's, a region's port to per-VLAN bridges is held. */
import fc from 'fast-check';
import { findingsOf } from '../analysis/findings/findings';
import type { Design } from '../model/document';
import { CIST } from '../model/ids';
import { SECOND } from '../modes/entity';
import { networkOf, regionsDesign, settledTree } from '../testing/networks';
import { tries } from '../testing/runs';
import { booted, unlike, unlikeAtRest } from '../testing/settling';
import { rootCheckedPorts } from '../topology/rootCheck';
import { explainPort } from '../tree/explain/explain';
import { roleOf } from '../tree/settled';
import { solve } from '../tree/solve';

const checking = fc
  .tuple(
    regionsDesign(6, ['r0', 'r0', 'r1', 'per-vlan-rstp', 'per-vlan-rstp', 'per-vlan-stp']),
    fc.infiniteStream(fc.nat(3)),
  )
  .map(([design, draws]): Design => ({
    ...design,
    switches: design.switches.map((sw) => ({ ...sw, rootCheck: (draws.next().value as number) > 0 })),
  }));
/** Where a checked port leads to the CIST's root what holds may hang on who was first. */
const hasRootBeyond = (design: Design): boolean => {
  const { network, trees } = solve(design);
  const cist = trees.find(({ id }) => id === CIST);
  return cist !== undefined && [...rootCheckedPorts(network)].some((p) => roleOf(cist, p) === 'root');
};

it('settles to what the solver says, while the CIST has its root inside', () => {
  fc.assert(
    fc.property(checking, fc.nat(), (design, seed) => {
      fc.pre(!hasRootBeyond(design));
      expect(unlikeAtRest(design, seed, [], 200 * SECOND)).toEqual([]);
    }),
    { numRuns: tries(60) },
  );
});

/** A region of `a` and `b`, of which `b` checks, and a per-VLAN bridge `c` on it. */
const network = (a: number, c: number, own: object = {}, rootCheck = true) =>
  networkOf(
    {
      a: { dialect: 'mstp', region: 'r', priority: a },
      b: { dialect: 'mstp', region: 'r', rootCheck },
      c: { dialect: 'per-vlan-rstp', priority: c, trees: own },
    },
    ['a 1 = b 1', 'b 2 = c 1'],
    {},
    { vlans: [{ id: 15 }], regions: [{ id: 'r', name: 'ONE', instances: [{ id: 1, vlans: '15' }] }] },
  );
const at = (design: Design, tree = 'mst:0') => settledTree(design, tree).switches['b' as never]!.ports['2' as never];

describe('a port of a region to a per-VLAN bridge', () => {
  it.each<[string, Design, string | undefined]>([
    ['all roots inside', network(0, 32768), undefined],
    ['all roots beyond', network(32768, 0), undefined],
    ['the CIST inside, a VLAN beyond', network(4096, 32768, { 'vlan:15': { priority: 0 } }), 'held: roots differ'],
    [
      'the CIST beyond, a VLAN of worse priority',
      network(32768, 4096, { 'vlan:15': { priority: 61440 } }),
      'held: roots differ',
    ],
    ['the same unchecked', network(4096, 32768, { 'vlan:15': { priority: 0 } }, false), undefined],
  ])('%s', (_, design, guard) => {
    expect(at(design)).toMatchObject({ state: guard ? 'discarding' : 'forwarding', ...(guard ? { guard } : {}) });
    expect(at(design, 'mst:1')).toMatchObject({ state: guard ? 'discarding' : 'forwarding' });
    expect(unlike(booted(design, 1, 100 * SECOND), design)).toEqual([]);
    expect(findingsOf(design, solve(design)).some(({ rule }) => rule === 'roots-held')).toBe(guard !== undefined);
  });
  it('is let go once the roots agree, and says why it is held', () => {
    const design = network(4096, 32768, { 'vlan:15': { priority: 0 } });
    const solution = solve(design);
    const p = solution.network.portIndexOf('b' as never, '2' as never);
    expect(explainPort(solution, solution.trees[0]!, p)!.sentence).toMatch(
      /^Designated, but it discards: held, since roots differ\./,
    );
    const sim = booted(design, 1, 60 * SECOND);
    const after = network(4096, 32768, { 'vlan:15': { priority: 61440 } });
    sim.follow(after);
    sim.runTo(sim.now + 60 * SECOND);
    expect(unlike(sim, after)).toEqual([]);
    expect(sim.shown(0, p)[0]).toBe('forwarding');
  });
});
