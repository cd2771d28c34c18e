/** Solving again after a change: only the trees that the change can have moved. */
import { treeInstance, type TreeId } from '../model/ids';
import type { Patch } from '../edit/edit';
import type { DesignProblem } from '../model/problem';
import type { Design } from '../model/document';
import { ok, type Result } from '../base/result';
import { isPerVlan } from '../topology/bridgeId';
import { compileNetwork } from '../topology/network';
import type { SettledTree, Solution } from './settled';
import { solve, solveTrees } from './solve';

/** Settings that no tree looks at. */
const BESIDE: Readonly<Record<string, readonly string[]>> = {
  design: ['name', 'notes', 'observed', 'worksheets'],
  vlan: ['name', 'load'],
  switch: ['name', 'tier', 'position'],
  port: ['edge'],
};

/** The trees that patches to a design can move, or `all`. */
export function treesTouched(patches: readonly Patch[]): ReadonlySet<TreeId> | 'all' {
  const touched = new Set<TreeId>();
  for (const { path } of patches) {
    const [room, , setting, , portSetting] = path.map(String);
    if (BESIDE.design!.includes(room ?? '') || (room === 'vlans' && BESIDE.vlan!.includes(setting ?? ''))) continue;
    if (room !== 'switches' || setting === undefined) return 'all';
    if (BESIDE.switch!.includes(setting)) continue;
    const own = setting === 'trees' ? path[3] : setting === 'ports' && portSetting === 'trees' ? path[5] : undefined;
    if (own !== undefined) touched.add(String(own) as TreeId);
    else if (!(setting === 'ports' && BESIDE.port!.includes(portSetting ?? ''))) return 'all';
  }
  return touched;
}

/** The solution of `design`, which `patches` made of the design that `before` solves; untouched trees are taken over as they are. */
export function resolve(
  before: Solution,
  design: Design,
  patches: readonly Patch[],
): Result<{ readonly solution: Solution; readonly changed: readonly SettledTree[] }, DesignProblem> {
  const touched = treesTouched(patches);
  // A standard bridge beside per-VLAN ones reads its CST's settings in VLAN 1's tree, and every other tree follows that one.
  const perVlan = design.switches.some((sw) => isPerVlan(sw.dialect));
  const mixed = perVlan && design.switches.some((sw) => sw.dialect === 'stp' || sw.dialect === 'rstp');
  // Every instance follows the CIST at the boundary of its region, and trees of VLANs follow the instance that has the VLAN there; nothing else follows an instance.
  const regional = design.switches.some((sw) => sw.dialect === 'mstp');
  const followed = (id: TreeId): boolean => mixed || (regional && (perVlan || !treeInstance(id)));
  if (touched === 'all' || [...touched].some(followed)) {
    const solution = solve(design);
    return solution.ok ? ok({ solution: solution.value, changed: solution.value.trees }) : solution;
  }
  const network = compileNetwork(design);
  const changed = solveTrees(
    network,
    before.trees.map((tree) => tree.id).filter((id) => touched.has(id)),
  );
  const byId = new Map(changed.map((tree) => [tree.id, tree]));
  return ok({ solution: { network, trees: before.trees.map((tree) => byId.get(tree.id) ?? tree) }, changed });
}
