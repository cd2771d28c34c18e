/** The own BPDU check: a per-VLAN bridge holds a port at which its own BPDUs arrive. */
import fc from 'fast-check';
import { findingsOf } from '../analysis/findings/findings';
import { townOffice } from '../demo/demos';
import type { Design, Port } from '../model/document';
import { SECOND } from '../modes/entity';
import { networkOf, randomDesign, settledTree, solutionOf } from '../testing/networks';
import { tries } from '../testing/runs';
import { booted, unlike, unlikeAtRest } from '../testing/settling';
import { explainPort } from '../tree/explain/explain';
import { CODE, OWN_HEARD } from '../tree/settled';

const checking = fc
  .tuple(
    fc.constantFrom('mixed' as const, 'perVlan' as const, 'hubs' as const).chain((family) => randomDesign(family)),
    fc.infiniteStream(fc.nat(3)),
  )
  .map(([design, draws]): Design => ({
    ...design,
    switches: design.switches.map((sw) => ({ ...sw, ownCheck: (draws.next().value as number) > 0 })),
  }));

it('settles to what the solver says', () => {
  fc.assert(
    fc.property(checking, fc.nat(), (design, seed) => {
      expect(unlikeAtRest(design, seed, [], 200 * SECOND)).toEqual([]);
    }),
    { numRuns: tries(60) },
  );
});

it('holds in all trees what is a backup port in one, and changes nothing else', () => {
  fc.assert(
    fc.property(checking, (design) => {
      const [checked, plain] = [
        solutionOf(design),
        solutionOf({ ...design, switches: design.switches.map((sw) => ({ ...sw, ownCheck: false })) }),
      ];
      expect(checked.trees.map(({ role, root }) => [role, root])).toEqual(
        plain.trees.map(({ role, root }) => [role, root]),
      );
      const { owner, switches } = checked.network;
      for (const [i, tree] of checked.trees.entries())
        for (const [p, code] of tree.disputed.entries())
          if (code === OWN_HEARD) {
            expect(switches[owner[p]!]!.ownCheck).toBe(true);
            expect(plain.trees.some(({ role }) => role[p] === CODE.backup)).toBe(true);
          } else expect(code).toBe(plain.trees[i]!.disputed[p]);
    }),
    { numRuns: tries(60) },
  );
});

describe('in the town office, where VLAN 15 alone gets through the closet', () => {
  const alone = (port: Port): Port => ({ ...port, vlans: { mode: 'trunk', native: 1, allowed: '1,15' } });
  const set = (ownCheck: boolean, cuts: string[] = []): Design => {
    const town = townOffice();
    return {
      ...town,
      switches: town.switches.map((sw) => {
        if (sw.id === 'hall-a') return { ...sw, ownCheck };
        return sw.id === 'stairs-a'
          ? { ...sw, ports: sw.ports.map((port) => (port.id === '2' ? alone(port) : port)) }
          : sw;
      }),
      links: town.links.map((link) => (cuts.includes(link.id) ? { ...link, up: false } : link)),
    };
  };
  const design = set(true);
  const at = (of: Design, tree: string) => settledTree(of, tree).switches['hall-a' as never]!.ports['3' as never];

  it('the core holds the closet’s second uplink in every VLAN, and says why', () => {
    for (const tree of ['vlan:15', 'vlan:25'])
      expect(at(design, tree)).toMatchObject({ state: 'discarding', guard: 'held: own BPDU' });
    expect(at(set(false), 'vlan:15')).toEqual({ role: 'backup', state: 'discarding', cost: 20000 });
    expect(at(set(false), 'vlan:25')).toEqual({ role: 'designated', state: 'forwarding', cost: 20000 });
    const solution = solutionOf(design);
    const p = solution.network.portIndexOf('hall-a' as never, '3' as never);
    const said = (tree: number) => explainPort(solution, solution.trees[tree]!, p)!.sentence;
    expect(said(1)).toMatch(/The own BPDU check holds it in all VLANs\.$/);
    expect(said(2)).toMatch(/^Designated, but it discards: held, since the switch's own BPDUs arrive here/);
    expect(findingsOf(design, solution).find(({ rule }) => rule === 'own-bpdu-returns')!.text).toMatch(
      /^hall-a port 3 is held in all VLANs: the switch hears its own BPDUs there in VLAN 15, through stairs-a/,
    );
  });

  it('and lets it go three hellos after the way is cut', () => {
    const sim = booted(design, 1, 100 * SECOND);
    expect(unlike(sim, design)).toEqual([]);
    const after = set(true, ['stairs']);
    sim.follow(after);
    const p = sim.network.portIndexOf('hall-a' as never, '3' as never);
    sim.runTo(sim.now + 3 * SECOND);
    expect(sim.shown(2, p)[0]).toBe('discarding');
    sim.runTo(sim.now + 60 * SECOND);
    expect(unlike(sim, after)).toEqual([]);
    expect(sim.shown(2, p)[0]).toBe('forwarding');
  });
});

it('takes no answer to another bridge for its own: two ports on a segment that has a better one', () => {
  const hub = networkOf(
    {
      a: { dialect: 'per-vlan-rstp', ownCheck: true },
      root: { dialect: 'per-vlan-rstp', priority: 0 },
      x: { dialect: 'off' },
    },
    ['a 1 = x 1', 'a 2 = x 2', 'root 1 = x 3'],
  );
  const ports = settledTree(hub, 'vlan:1').switches['a' as never]!.ports;
  expect(ports).toMatchObject({ '1': { role: 'root', state: 'forwarding' }, '2': { role: 'alternate' } });
  expect(unlike(booted(hub, 1, 100 * SECOND), hub)).toEqual([]);
});
