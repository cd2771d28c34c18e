/**
 * Trees that fare alike in a run, however it goes: per-VLAN trees with the same bridges, ports, costs and priorities. One of
 * them is run, and told as all of them; hellos start at the same moment in all trees of a switch.
 */
import { actionKind } from '../../model/actions/actions';
import { runsTrees, isPerVlan, type Design } from '../../model/document';
import { treeVlan, vlanTree, type TreeId } from '../../model/ids';
import type { Scenario } from '../../model/scenario';
import type { Bpdu, RstBpdu, ConfigBpdu } from '../../modes/bpdu';
import { ADDRESSES, vectorOf, type Vector } from '../../modes/vector';
import { compileNetwork } from '../../topology/network';

/** By tree, the place of the one that is run in its stead: its own, or an earlier tree's. */
export type Alike = readonly number[];

export const allApart = (trees: readonly TreeId[]): Alike => trees.map((_, i) => i);

/**
 * Which trees fare alike throughout a scenario; `design` has everything that it brings along. None do where a switch is to
 * speak otherwise meanwhile, or speaks MSTP; the tree of VLAN 1, which standard bridges hear too, stands by itself.
 */
export function alikeInRun(design: Design, trees: readonly TreeId[], { actions }: Pick<Scenario, 'actions'>): Alike {
  const standard = design.switches.some((sw) => runsTrees(sw) && !isPerVlan(sw));
  if (standard || actions.some((action) => actionKind(action).turns)) return allApart(trees);
  const named = new Set(
    actions.flatMap((action) => ('tree' in action && action.tree !== undefined ? [action.tree] : [])),
  );
  const { carried } = compileNetwork(design);
  const known = new Map<string, number>();
  return trees.map((tree, i) => {
    const vid = treeVlan(tree);
    if (vid === null || tree === vlanTree(1) || named.has(tree)) return i;
    const key = keyOf(design, tree, carried.map((vlans) => (vlans.has(vid) ? 1 : 0)).join(''));
    const first = known.get(key);
    if (first === undefined) known.set(key, i);
    return first ?? i;
  });
}

/** All that a tree's run hangs on and that may differ from tree to tree. */
function keyOf({ switches, bundles }: Design, tree: TreeId, carried: string): string {
  const set = [
    ...switches.map((sw) => sw.trees[tree]),
    ...switches.flatMap((sw) => sw.ports.map((port) => port.trees[tree])),
    ...bundles.map((bundle) => bundle.trees[tree]),
  ];
  return `${carried} ${JSON.stringify(set.map((each) => each ?? null))}`;
}

/**
 * A BPDU of one tree as one alike sends it: the VLAN is part of every bridge identifier (802.1Q-2018 14.2.5), `by` is how much
 * higher it is. What says the same remains one object.
 */
export class Retold {
  private readonly known = new WeakMap<Bpdu, Map<number, Bpdu>>();

  bpdu(bpdu: Bpdu, by: number): Bpdu {
    if (by === 0 || bpdu.kind === 'tcn' || bpdu.kind === 'mst') return bpdu;
    const retold = this.known.get(bpdu) ?? new Map<number, Bpdu>();
    this.known.set(bpdu, retold);
    const found = retold.get(by) ?? raised(bpdu, by);
    retold.set(by, found);
    return found;
  }
}

const raised = (bpdu: RstBpdu | ConfigBpdu, by: number): Bpdu => ({ ...bpdu, vector: raisedVector(bpdu.vector, by) });

/** A vector with the identifiers of another VLAN. */
export function raisedVector(
  { root, externalCost, regionalRoot, internalCost, bridge, port }: Vector,
  by: number,
): Vector {
  const more = by * ADDRESSES;
  return vectorOf(root + more, externalCost, regionalRoot + more, internalCost, bridge + more, port);
}
