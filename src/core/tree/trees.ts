/** Which trees a design has, and what part each switch and port plays in them. */
import { CST, treeVlan, vlanTree, type TreeId } from '../design/ids';
import type { Carriage, Design, Switch } from '../design/schema';
import { vlanSet } from '../design/vlanSet';
import { isPerVlan } from './bridgeId';

/** Whether frames of a VLAN pass a port with this carriage. */
export const carries = (vlans: Carriage, vid: number): boolean =>
  vlans.mode === 'access' ? vlans.vlan === vid : vlanSet(vlans.allowed).has(vid);

/**
 * The trees of a design, in rising order: `vlan:N` for VLAN 1 and each declared VLAN when any switch runs a tree
 * for each VLAN, otherwise `cst` when any runs spanning tree at all. In a network that mixes both, the standard
 * bridges' CST and the tree of VLAN 1 are one tree, since VLAN 1's tree also speaks the IEEE form, untagged.
 */
export function treesOf(design: Design): TreeId[] {
  if (design.switches.some((sw) => isPerVlan(sw.dialect))) {
    const vids = new Set([1, ...design.vlans.map((vlan) => vlan.id)]);
    return [...vids].sort((a, b) => a - b).map(vlanTree);
  }
  return design.switches.some((sw) => sw.dialect !== 'off') ? [CST] : [];
}

/**
 * What a switch is to a tree: a `bridge` that takes part; a `hub` that floods the tree's frames and joins its links
 * into one segment; a `relay`, a standard bridge that floods another VLAN's tree frames where its own tree forwards.
 */
export type Part = 'bridge' | 'hub' | 'relay';

/** The part that a switch plays in a tree of its design. */
export function partOf(sw: Switch, tree: TreeId): Part {
  if (sw.dialect === 'off') return 'hub';
  return isPerVlan(sw.dialect) || tree === CST || tree === vlanTree(1) ? 'bridge' : 'relay';
}

/**
 * Whether a port belongs to a tree. A per-VLAN tree runs only over ports that carry its VLAN; the CST over all, and so
 * does a standard bridge's end of VLAN 1's tree, which it takes for the CST.
 */
export function belongs(sw: Switch, vlans: Carriage, tree: TreeId): boolean {
  const vid = treeVlan(tree);
  if (vid === null) return true;
  const standard = !isPerVlan(sw.dialect) && sw.dialect !== 'off';
  return (standard && vid === 1) || carries(vlans, vid);
}
