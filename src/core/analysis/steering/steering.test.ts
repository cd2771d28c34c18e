/** Candidate ways to the root, and how far a cost can move before something flips. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { methodOf } from '../../model/costMethod';
import type { BridgePortId, SwitchId, TreeId } from '../../model/ids';
import { MAX_COST } from '../../model/legal';
import { type Design, isPerVlan } from '../../model/document';
import { anyDesign, meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { roleOf, treeOf } from '../../tree/settled';
import { costMargin, portMargins } from './margin';
import { candidatePaths } from './paths';
import { tries } from '../../testing/runs';

const pathsOf = (design: Design, sw: string, tree = 'cst') => {
  const solution = solutionOf(design);
  return candidatePaths(
    solution.network,
    treeOf(solution, tree as TreeId)!,
    solution.network.switchIndex.get(sw as SwitchId)!,
  );
};

describe('candidate paths', () => {
  it('add up: the way taken costs the root path cost, and none is cheaper that is heard', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const solution = solutionOf(design);
        for (const tree of solution.trees) {
          solution.network.switches.forEach((sw, s) => {
            const paths = candidatePaths(solution.network, tree, s);
            expect(paths.length > 0).toBe(tree.rootPort[s]! >= 0);
            for (const path of paths) {
              expect(path.hops.reduce((sum, hop) => sum + hop.cost, 0)).toBe(path.total);
              expect(path.total - path.over).toBe(tree.rootPathCost[s]);
              expect(path.over).toBeGreaterThanOrEqual(0);
              expect(new Set(path.hops.map((hop) => hop.switch)).size).toBe(path.hops.length);
              expect(path.hops[0]!.switch).toBe(sw.id);
            }
            expect(paths.filter((path) => path.chosen)).toHaveLength(paths.length > 0 ? 1 : 0);
            if (paths[0]) expect(paths[0]).toMatchObject({ chosen: true, over: 0 });
          });
        }
      }),
      { numRuns: tries(40) },
    );
  });
  it('set one slow hop against a string of fast ones', () => {
    const slow = { speed: 100 };
    const design = networkOf(
      { root: { priority: 0 }, b: {}, c: {}, leaf: {} },
      ['leaf 1 = root 1', 'leaf 2 = c 1', 'c 2 = b 1', 'b 2 = root 2'],
      { 'leaf 1': slow, 'root 1': slow },
    );
    expect(
      pathsOf(design, 'leaf').map(({ hops, total, over, chosen }) => [
        hops.map((hop) => `${hop.switch} ${hop.port}`).join(' '),
        total,
        over,
        chosen,
      ]),
    ).toEqual([
      ['leaf 2 c 2 b 2', 60_000, 0, true],
      ['leaf 1', 200_000, 140_000, false],
    ]);
    expect(pathsOf(design, 'root')).toEqual([]);
  });
  it('count neighbours that stay silent, but not ways that come back', () => {
    // ridge-a is designated toward workshop, whose end blocks: a way all the same.
    const paths = pathsOf(fernhollow(), 'workshop', 'vlan:15');
    expect(paths.map((path) => [path.via, path.heard, path.over])).toEqual([
      ['lodge', true, 0],
      ['ridge-a', false, 20_000],
      ['ridge-b', false, 20_000],
    ]);
  });
});

describe('the margin of a cost', () => {
  const roles = (design: Design, tree: TreeId) => [...treeOf(solutionOf(design), tree)!.role];
  const withCost = (design: Design, tree: TreeId, sw: SwitchId, port: BridgePortId, cost: number): Design => {
    const key = isPerVlan(design.switches.find((each) => each.id === sw)!) ? tree : ('cst' as TreeId);
    const edited = editAll(design, [{ do: 'set-port-cost', switch: sw, port, tree: key, cost }]);
    if (!edited.ok) throw new Error(edited.error.found);
    return edited.value.design;
  };
  it('is where roles change: not one step before, and anywhere between nothing moves', () => {
    fc.assert(
      fc.property(
        fc.oneof(anyDesign, meshDesign),
        fc.nat(),
        fc.nat(),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (design, pickTree, pickPort, shares) => {
          const solution = solutionOf(design);
          const tree = solution.trees[pickTree % Math.max(1, solution.trees.length)];
          const p = pickPort % Math.max(1, solution.network.ports.length);
          if (!tree || !tree.role[p]) return;
          const [sw, port] = [solution.network.switches[solution.network.owner[p]!]!.id, solution.network.ports[p]!.id];
          const margin = costMargin(design, tree.id, sw, port)!;
          const at = (cost: number) => roles(withCost(design, tree.id, sw, port, cost), tree.id);
          const now = [...tree.role];
          expect(margin.cost).toBe(tree.cost[p]);
          const [low, high] = [
            margin.below ? margin.below.cost + 1 : 1,
            margin.above ? margin.above.cost - 1 : MAX_COST.long,
          ];
          for (const flip of [margin.below, margin.above]) {
            if (!flip) continue;
            expect(at(flip.cost)).not.toEqual(now);
            expect(flip.ends.length).toBeGreaterThan(0);
          }
          for (const cost of [
            low,
            high,
            ...shares.map((share) => Math.round(low + (Math.max(low, high) - low) * share)),
          ]) {
            if (
              cost <=
              MAX_COST[
                methodOf(
                  design,
                  design.switches.find((each) => each.id === sw)!,
                )
              ]
            )
              expect(at(cost)).toEqual(now);
          }
        },
      ),
      { numRuns: tries(60) },
    );
  });
  it('of a rival tells exactly when the port that was asked for becomes something else', () => {
    let told = 0;
    fc.assert(
      fc.property(meshDesign, fc.nat(), (design, pick) => {
        const { network, trees } = solutionOf(design);
        const tree = trees.at(-1)!;
        const p = pick % network.ports.length;
        const margins = portMargins(design, tree.id, network.switches[network.owner[p]!]!.id, network.ports[p]!.id);
        const rival = margins?.rival;
        if (!rival) return;
        told += 1;
        expect(network.portIndexOf(rival.switch, rival.port)).not.toBe(p);
        expect(rival.role).toBe(margins.own.role);
        for (const [flip, back] of [
          [rival.below, 1],
          [rival.above, -1],
        ] as const) {
          if (!flip) continue;
          expect(roles(withCost(design, tree.id, rival.switch, rival.port, flip.cost), tree.id)).not.toEqual([
            ...tree.role,
          ]);
          expect(roles(withCost(design, tree.id, rival.switch, rival.port, flip.cost + back), tree.id)).toEqual([
            ...tree.role,
          ]);
          const there = treeOf(solutionOf(withCost(design, tree.id, rival.switch, rival.port, flip.cost)), tree.id)!;
          expect(roleOf(there, p)).toBe(flip.role);
        }
      }),
      { numRuns: tries(50) },
    );
    expect(told).toBeGreaterThan(20);
  });
  it('names the rival: of a root port the next way, of a blocked one the way that is taken', () => {
    const rival = (sw: string, port: string) =>
      portMargins(fernhollow(), 'vlan:15' as TreeId, sw as SwitchId, port as BridgePortId)!.rival;
    expect(rival('ridge-b', '7')).toMatchObject({ switch: 'ridge-b', port: '1', role: 'root', below: null });
    expect(rival('array-hut', '2')).toMatchObject({
      switch: 'array-hut',
      port: '1',
      cost: 20_000,
      role: 'alternate',
      above: { cost: 20_001, role: 'root' },
    });
    expect(rival('dome-north', '5')).toBeNull();
  });
  it('says of a root port how dear it may become, and of a blocked one how cheap', () => {
    const margin = (sw: string, port: string) =>
      costMargin(fernhollow(), 'vlan:15' as TreeId, sw as SwitchId, port as BridgePortId);
    expect(margin('ridge-b', '7')).toMatchObject({
      cost: 20_000,
      role: 'root',
      above: { cost: 22_001, role: 'alternate' },
    });
    expect(margin('ridge-b', '1')).toMatchObject({ cost: 2000, role: 'alternate', below: null, above: null });
    expect(margin('array-hut', '2')).toMatchObject({
      role: 'alternate',
      above: null,
      below: { cost: 20_000 - 1, role: 'root' },
    });
    expect(costMargin(fernhollow(), 'vlan:25' as TreeId, 'array-hut' as SwitchId, '1' as BridgePortId)).toBeNull();
  });
});
