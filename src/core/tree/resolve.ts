/** Solving again after a change: only the trees that the change can have moved. */
import { isMultiple, isSingle } from '../model/document';
import { treeInstance, type TreeId } from '../model/ids';
import { dirtyBetween, type Dirty } from '../model/derive/dirty';
import type { Design } from '../model/document';
import { compileNetwork, withOtherSettings } from '../topology/network';
import { hasVlanTrees } from '../topology/trees';
import { wrongVlans } from '../topology/vlanCheck';
import type { SettledTree, Solution } from './settled';
import { solve, solveTrees } from './solve';

/** What a change from what `before` solves to `design` can have moved: trees, `all` of them; and who hears whom, or which trees there are. */
export function mayHaveMoved(before: Solution, design: Design): Pick<Dirty, 'trees' | 'wiring'> {
  const { trees, wiring } = dirtyBetween(before.network.design, design);
  if (trees === 'all') return { trees, wiring };
  // A standard bridge beside per-VLAN ones reads its CST's settings in VLAN 1's tree, and every other tree follows that one.
  const perVlan = design.switches.some((sw) => hasVlanTrees(design, sw));
  const mixed = perVlan && design.switches.some(isSingle);
  // Every instance follows the CIST at the boundary of its region, and trees of VLANs follow the instance that has the VLAN there; nothing else follows an instance.
  const regional = design.switches.some(isMultiple);
  // Whether a port is held in one VLAN hangs on another one's tree.
  const held = wrongVlans(before.network).size > 0 || design.switches.some((sw) => sw.ownCheck);
  const followed = (id: TreeId): boolean => mixed || held || (regional && (perVlan || !treeInstance(id)));
  return { trees: [...trees].some(followed) ? 'all' : trees, wiring };
}

/**
 * The solution of `design`, a later state of the design that `before` solves; trees that the change cannot have moved are taken
 * over as they are, and so are all but `only`, where those are asked for and who hears whom is the same.
 */
export function resolve(
  before: Solution,
  design: Design,
  only: readonly TreeId[] | null = null,
): { readonly solution: Solution; readonly changed: readonly SettledTree[] } {
  const { trees: dirty, wiring } = mayHaveMoved(before, design);
  if (wiring) {
    const solution = solve(design);
    return { solution, changed: solution.trees };
  }
  const network = withOtherSettings(before.network, design) ?? compileNetwork(design);
  const ids = only ?? before.trees.map(({ id }) => id);
  const changed = solveTrees(network, dirty === 'all' ? ids : ids.filter((id) => dirty.has(id)));
  if (dirty === 'all' && !only) return { solution: { network, trees: changed }, changed };
  const byId = new Map(changed.map((tree) => [tree.id, tree]));
  return { solution: { network, trees: before.trees.map((tree) => byId.get(tree.id) ?? tree) }, changed };
}
