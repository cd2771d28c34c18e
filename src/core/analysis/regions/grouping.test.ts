import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { vlanSet } from '../../model/vlanSet';
import { meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { islandRoots } from '../../tree/explain/election';
import { treesOf } from '../../topology/trees';
import { treeForVlan } from '../../tree/passing';
import { treeOf } from '../../tree/settled';
import { asInstances, asOneTree, asPerVlan, keepingTrees } from './asDialect';
import {
  dealVlans,
  groupingGain,
  instancesFor,
  proposeGroupings,
  type DealRule,
  type GroupingProposal,
} from './grouping';
import { linkLoads } from '../sharing/load';
import { regionsIn } from './regions';
import { tries } from '../../testing/runs';

const after = (design: Design, { commands }: Pick<GroupingProposal, 'commands'>): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(edited.error.found);
  return edited.value.design;
};
const proposalsOf = (design: Design): GroupingProposal[] => {
  const found = proposeGroupings(solutionOf(design));
  return found.ok ? found.value : [];
};

describe('dealing VLANs', () => {
  it('puts each in one place, whatever the rule', () => {
    const vids = fc.uniqueArray(fc.integer({ min: 2, max: 4094 }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(
        vids,
        fc.integer({ min: 2, max: 5 }),
        fc.constantFrom<DealRule>('load', 'parity', 'turn'),
        (list, places, rule) => {
          const dealt = dealVlans(fernhollow(), list, places, rule);
          expect(dealt.flat().sort()).toEqual([...list].sort());
          const sets = instancesFor(dealt).map(({ vlans }) => vlanSet(vlans));
          for (const [i, set] of sets.entries())
            for (const other of sets.slice(i + 1)) expect(set.intersect(other).isEmpty).toBe(true);
        },
      ),
    );
  });
  it('parts odd from even ones, and levels loads', () => {
    expect(dealVlans(fernhollow(), [10, 15, 20, 25], 2, 'parity')).toEqual([
      [15, 25],
      [10, 20],
    ]);
    // 5200 Mb/s of VLAN 25 against all others together.
    expect(dealVlans(fernhollow(), [15, 25, 35, 45, 55, 65], 2, 'load')).toEqual([[25], [45, 15, 55, 35, 65]]);
  });
});

it('VLANs that the design does not list stay where the map has them', () => {
  const mapped = after(valleyStation(), {
    commands: [
      { do: 'map-vlans', region: 'valley' as never, vlans: '100-199', instance: 2 },
      { do: 'map-vlans', region: 'valley' as never, vlans: '300', instance: 7 },
    ],
  });
  for (const proposal of proposalsOf(mapped)) {
    const [region] = after(mapped, proposal).regions;
    expect(
      region!.instances
        .map(({ id, vlans }) => [id, vlanSet(vlans).intersect(vlanSet('100-400')).format()])
        .filter(([, vlans]) => vlans !== ''),
    ).toEqual([
      [2, '100-199'],
      [7, '300'],
    ]);
  }
});

describe('a proposed grouping', () => {
  it('makes one region with every listed VLAN in one instance, and says of loads what the solver finds', () => {
    fc.assert(
      fc.property(meshDesign, (design) => {
        for (const proposal of proposalsOf(design)) {
          const next = after(design, proposal);
          const solution = solutionOf(next);
          expect(regionsIn(solution.network).map((region) => region.pieces.length)).toEqual([1]);
          expect(proposal.instances.every((instance) => instance.vlans !== '')).toBe(true);
          for (const { id } of next.vlans)
            expect(proposal.instances.filter((instance) => vlanSet(instance.vlans).has(id))).toHaveLength(1);
          expect(proposal.loads[1].peak?.share).toBe(linkLoads(solution).peak?.share);
          expect(proposal.cost[1].trees).toBe(proposal.instances.length + 1);
        }
      }),
      { numRuns: tries(12) },
    );
  });
  it('comes with the best first: no other has a lower peak worth naming', () => {
    fc.assert(
      fc.property(meshDesign, (design) => {
        const [best, ...others] = proposalsOf(design);
        const peak = (each: GroupingProposal) => each.loads[1].peak?.share ?? 0;
        for (const other of others) expect(peak(best!)).toBeLessThanOrEqual(peak(other) * 1.02 + 1e-9);
      }),
      { numRuns: tries(12) },
    );
  });
  it('has the roots where it says, in the observatory', () => {
    const [best] = proposalsOf(fernhollow());
    expect(best?.sentence).toBe(
      'Two instances suffice: VLANs 15,45,55 with root ridge-a, VLANs 25,35,65 with root ridge-b',
    );
    const solution = solutionOf(after(fernhollow(), best!));
    const rootOf = (vid: number) =>
      solution.network.switches[islandRoots(solution.network, treeForVlan(solution, vid)!)[0]!]!.id;
    expect([15, 25, 35, 45, 55, 65].map(rootOf)).toEqual([
      'ridge-a',
      'ridge-b',
      'ridge-b',
      'ridge-a',
      'ridge-a',
      'ridge-b',
    ]);
    expect([best!.cost[0].trees, best!.cost[1].trees]).toEqual([7, 3]);
    expect(best!.loads[1].idle.length).toBeLessThan(best!.loads[0].idle.length);
  });
  it('brings the one with the wrong map along', () =>
    expect(proposalsOf(valleyStation())[0]?.commands).toContainEqual({
      do: 'set-switch',
      switch: 'gatehouse',
      region: 'valley',
    }));
  it('says why there is none', () => {
    expect(proposeGroupings(solutionOf(networkOf({ a: {}, b: {} }, ['a 1 = b 1'])))).toMatchObject({
      ok: false,
      error: expect.stringContaining('nothing to group') as string,
    });
    expect(
      proposeGroupings(solutionOf(networkOf({ a: { dialect: 'off' } }, [], {}, { vlans: [{ id: 15 }] }))),
    ).toMatchObject({ ok: false });
  });
});

describe('the same network with another dialect', () => {
  it('has no port that speaks otherwise, but for those that pass BPDUs on', () => {
    const office = townOffice();
    const speaking = (port: 'per-vlan-rstp' | 'passes-on'): Design => ({
      ...office,
      switches: office.switches.map((sw) => ({ ...sw, ports: sw.ports.map((each) => ({ ...each, speaks: port })) })),
    });
    const spoken = (design: Design) =>
      new Set(design.switches.flatMap(({ ports }) => ports.map(({ speaks }) => speaks)));
    for (const turned of [asOneTree, asPerVlan, asInstances]) {
      expect(spoken(turned(speaking('per-vlan-rstp'), 'rstp'))).toEqual(new Set([undefined]));
      expect(spoken(turned(speaking('passes-on'), 'rstp'))).toEqual(new Set(['passes-on']));
    }
    expect(treesOf(asOneTree(speaking('per-vlan-rstp'), 'rstp'))).toEqual(['cst']);
  });

  it('has VLANs’ trees where their instances were, and one tree where the CIST was', () => {
    const valley = after(valleyStation(), {
      commands: [
        { do: 'set-switch', switch: 'gatehouse' as never, region: 'valley' as never },
        { do: 'set-switch', switch: 'ferry' as never, dialect: 'mstp', region: 'valley' as never },
      ],
    });
    const [multiple, perVlan, one] = [valley, asPerVlan(valley, 'per-vlan-rstp'), asOneTree(valley, 'rstp')].map(
      solutionOf,
    );
    // A tree of a VLAN has only the ports that carry it; cables carry all.
    const cabled = (role: Uint8Array) => Array.from(role).filter((_, p) => multiple!.network.far[p]! >= 0);
    for (const { id } of valley.vlans)
      expect(cabled(treeForVlan(perVlan!, id)!.role)).toEqual(cabled(treeForVlan(multiple!, id)!.role));
    expect([...one!.trees[0]!.role]).toEqual([...treeOf(multiple!, 'mst:0' as never)!.role]);
    expect(groupingGain(valley).map((row) => [row.kind, row.cost.trees])).toEqual([
      ['one', 1],
      ['instances', 3],
      ['vlans', 9],
    ]);
    expect(groupingGain(valley).map((row) => row.trees.length)).toEqual([1, 3, 9]);
  });
  it('keeps the trees that VLANs have, one instance for all that are set alike', () => {
    const split = after(fernhollow(), {
      commands: [15, 25].map((vid) => ({
        do: 'set-bridge-priority' as const,
        switch: (vid === 15 ? 'ridge-a' : 'ridge-b') as never,
        tree: `vlan:${vid}` as never,
        priority: 0,
      })),
    });
    const { instances, commands } = keepingTrees(split);
    expect(instances.map(({ vlans }) => vlans)).toEqual(['35,45,55,65', '15', '25']);
    const [before, then] = [solutionOf(split), solutionOf(after(split, { commands }))];
    for (const vid of [15, 25, 35])
      expect(islandRoots(then.network, treeForVlan(then, vid)!)[0]).toBe(
        islandRoots(before.network, treeForVlan(before, vid)!)[0],
      );
    expect(solutionOf(asInstances(split)).trees.map((tree) => tree.id)).toEqual(['mst:0', 'mst:1', 'mst:2', 'mst:3']);
  });
});
