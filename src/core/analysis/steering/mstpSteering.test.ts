/** Ways, margins and steering where costs count outside of regions and inside apart. */
import fc from 'fast-check';
import { editAll } from '../../edit/edit';
import type { TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { meshDesign, regionsDesign, solutionOf } from '../../testing/networks';
import { CODE, treeOf } from '../../tree/settled';
import { groupingCommands, instancesFor } from '../regions/grouping';
import { costMargin } from './margin';
import { candidatePaths } from './paths';
import { steer } from './steer';
import { costCommand } from './whatIf';
import { tries } from '../../testing/runs';

const after = (design: Design, commands: Parameters<typeof editAll>[1]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};
const RUNS = tries(75);

it('the costs of the way taken add up to the root path cost, those outside of regions and those inside of the own one apart', () => {
  fc.assert(
    fc.property(regionsDesign(), (design) => {
      const { network, trees } = solutionOf(design);
      for (const tree of trees) {
        network.switches.forEach((_, s) => {
          const [taken] = candidatePaths(network, tree, s);
          if (!taken) return;
          const sum = (inside: boolean) =>
            taken.hops.filter((hop) => hop.inside === inside).reduce((all, hop) => all + hop.cost, 0);
          expect(taken.chosen).toBe(true);
          expect([taken.total, sum(false)]).toEqual([tree.rootPathCost[s], tree.rootPathCost[s]]);
          expect(taken.internal).toBe(tree.id === 'mst:0' ? tree.regional!.cost[s] : null);
        });
      }
    }),
    { numRuns: RUNS },
  );
});

it('the margin of a cost is where roles change, whether it counts inside of the region or outside', () => {
  fc.assert(
    fc.property(regionsDesign(6), fc.nat(), fc.nat(), (design, a, b) => {
      const { network, trees } = solutionOf(design);
      if (trees.length === 0 || network.ports.length === 0) return;
      const [tree, p] = [trees[a % trees.length]!, b % network.ports.length];
      const margin = costMargin(design, tree.id, network.switches[network.owner[p]!]!.id, network.ports[p]!.id);
      const rolesAt = (cost: number) => [
        ...treeOf(solutionOf(after(design, [costCommand(network, tree.id, p, cost)])), tree.id)!.role,
      ];
      for (const [flip, back] of [
        [margin?.below, 1],
        [margin?.above, -1],
      ] as const) {
        if (!flip) continue;
        expect(rolesAt(flip.cost)).not.toEqual([...tree.role]);
        expect(rolesAt(flip.cost + back)).toEqual([...tree.role]);
      }
    }),
    { numRuns: RUNS },
  );
});

it('every way proposed to block somewhere does so in the instance that it was wished for', () => {
  let proposed = 0;
  fc.assert(
    fc.property(meshDesign, fc.nat(), (mesh, pick) => {
      const members = [...mesh.switches.keys()];
      const design = after(mesh, groupingCommands(mesh, members, instancesFor([[15], [25]]), [0, 1]));
      const before = solutionOf(design);
      const { network } = before;
      const id = (['mst:0', 'mst:1', 'mst:2'] as TreeId[])[pick % 3]!;
      const ends = network.ports.flatMap((_, p) =>
        network.far[p]! >= 0 && treeOf(before, id)!.role[p] !== CODE.alternate ? [p] : [],
      );
      const p = ends[pick % ends.length]!;
      const found = steer(
        before,
        [{ wants: 'block', switch: network.switches[network.owner[p]!]!.id, port: network.ports[p]!.id }],
        [id],
      );
      if (!found.ok) return;
      for (const { commands } of found.value) {
        const there = treeOf(solutionOf(after(design, commands)), id)!;
        expect([CODE.alternate, CODE.backup]).toContain(there.role[p]);
        expect([CODE.root, CODE.designated]).toContain(there.role[network.far[p]!]);
        proposed += 1;
      }
    }),
    { numRuns: Math.ceil(RUNS / 5) },
  );
  expect(proposed).toBeGreaterThan(0);
});
