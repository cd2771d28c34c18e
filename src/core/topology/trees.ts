/** Which trees a design has, and what part each switch and port plays in them. */
import type { Bridge, BridgePort } from './bridges';
import { hasTreeOf, isInterop, isMultiple, runsTrees, isPerVlan, passesOn } from '../model/document';
import { CIST, CST, instanceTree, treeInstance, treeVlan, vlanTree, type TreeId } from '../model/ids';
import type { Carriage, Design } from '../model/document';
import { vlanSet, type VlanSet } from '../model/vlanSet';

/** The VLANs whose frames pass a port with this carriage. */
export const carried = (vlans: Carriage): VlanSet =>
  vlanSet(vlans.mode === 'access' ? String(vlans.vlan) : vlans.allowed);

/** Whether a switch runs trees of VLANs, be it at some of its ports or bundles alone. */
export const hasVlanTrees = ({ bundles }: Design, sw: Design['switches'][number]): boolean =>
  isPerVlan(sw) ||
  sw.ports.some((port) => isInterop(sw, port)) ||
  bundles.some((bundle) => bundle.switch === sw.id && isInterop(sw, bundle));

/**
 * The trees of a design, in rising order: `vlan:N` for VLAN 1 and each declared VLAN when any switch runs a tree
 * for each VLAN, otherwise `cst` when any runs spanning tree at all; `mst:0` and `mst:N` for each instance of a region in
 * use when any switch speaks MSTP, with the CIST in place of the CST and of VLAN 1's tree. In a network that mixes both, the standard
 * bridges' CST and the tree of VLAN 1 are one tree, since VLAN 1's tree also speaks the IEEE form, untagged. Switches
 * without power do not count.
 */
export function treesOf(design: Design): TreeId[] {
  const powered = design.switches.filter((sw) => sw.up);
  const vids = powered.some((sw) => hasVlanTrees(design, sw))
    ? [...new Set([1, ...design.vlans.map((vlan) => vlan.id)])].sort((a, b) => a - b)
    : [];
  if (powered.some((sw) => isMultiple(sw))) {
    const regions = design.regions.filter((region) => powered.some((sw) => isMultiple(sw) && sw.region === region.id));
    const mstids = [...new Set(regions.flatMap((region) => region.instances.map((instance) => instance.id)))].sort(
      (a, b) => a - b,
    );
    return [CIST, ...mstids.map(instanceTree), ...vids.filter((vid) => vid !== 1).map(vlanTree)];
  }
  if (vids.length > 0) return vids.map(vlanTree);
  return powered.some((sw) => runsTrees(sw)) ? [CST] : [];
}

/**
 * What a switch is to a tree: a `bridge` that takes part; a `hub` that floods the tree's frames and joins its links
 * into one segment; a `relay`, a standard bridge that floods another VLAN's tree frames where its own tree forwards.
 */
export type TreePart = 'bridge' | 'hub' | 'relay';

/** The tree in which all bridges of a network take part: CST, CIST, or that of VLAN 1; -1 where there is none. */
export const commonTree = (trees: readonly TreeId[]): number =>
  trees.findIndex((tree) => tree === CST || tree === CIST || tree === vlanTree(1));

/** The part that a switch plays in a tree of its design; one without power is a hub whose ports are all dead. */
export function partOf(sw: Bridge, tree: TreeId): TreePart {
  if (!runsTrees(sw) || !sw.up) return 'hub';
  if (tree === CST || tree === CIST || tree === vlanTree(1)) return 'bridge';
  if (treeInstance(tree) !== null) return isMultiple(sw) ? 'bridge' : 'relay';
  const vid = treeVlan(tree)!;
  return isPerVlan(sw) || sw.ports.some((port) => hasTreeOf(sw, port, vid)) ? 'bridge' : 'relay';
}

/**
 * The part that a port's switch plays there: one that passes BPDUs on is a hub's, and a switch of the standard dialects has a
 * VLAN's tree at some ports alone. `part` is that of the switch.
 */
export function partAt(sw: Bridge, port: BridgePort, tree: TreeId, part = partOf(sw, tree)): TreePart {
  if (passesOn(port)) return 'hub';
  if (part !== 'bridge' || isPerVlan(sw)) return part;
  const vid = treeVlan(tree);
  return vid === null || vid === 1 || hasTreeOf(sw, port, vid) ? 'bridge' : 'relay';
}

/**
 * Whether a port that carries `vlans` belongs to the tree of VLAN `vid` (null: the CST, to which every port belongs).
 * A per-VLAN tree runs only over ports that carry its VLAN; but a standard bridge's end of VLAN 1's tree is its CST.
 */
export const belongs = (sw: Bridge, vlans: VlanSet, vid: number | null): boolean =>
  vid === null || vlans.has(vid) || (vid === 1 && runsTrees(sw) && !isPerVlan(sw));
