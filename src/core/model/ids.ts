import { VlanSet } from './vlanSet';

/** Branded identifiers: plain strings in a document, kept apart by the compiler. */
export type SwitchId = string & { readonly __brand: 'SwitchId' };
/** Unique on its switch only. */
export type PortId = string & { readonly __brand: 'PortId' };
export type LinkId = string & { readonly __brand: 'LinkId' };
export type BundleId = string & { readonly __brand: 'BundleId' };
export type HostId = string & { readonly __brand: 'HostId' };
export type GroupId = string & { readonly __brand: 'GroupId' };
export type RegionId = string & { readonly __brand: 'RegionId' };
/** What takes part in trees: a port, or a bundle in the place of its members (802.1Q-2018 6.14). */
export type BridgePortId = PortId | BundleId;
/** `cst`, `vlan:N` (1 to 4094) or `mst:N` (0 to 4094). */
export type TreeId = string & { readonly __brand: 'TreeId' };

/** The tree of a network whose switches all speak STP or RSTP. */
export const CST = 'cst' as TreeId;

/** The common and internal spanning tree of a network in which some switch speaks MSTP. */
export const CIST = 'mst:0' as TreeId;

/** The tree of an MST instance. */
export const instanceTree = (mstid: number): TreeId => `mst:${mstid}` as TreeId;

/** The MSTID of a `mst:N` tree, or null for any other tree. */
export const treeInstance = (tree: TreeId): number | null => (tree.startsWith('mst:') ? Number(tree.slice(4)) : null);

/** The tree of one VLAN in a per-VLAN network. */
export const vlanTree = (vid: number): TreeId => `vlan:${vid}` as TreeId;

/** The VLAN of a `vlan:N` tree, or null for any other tree. */
export const treeVlan = (tree: TreeId): number | null => (tree.startsWith('vlan:') ? Number(tree.slice(5)) : null);

/** How people name a tree: `VLAN 15`, `common tree`, `instance 2`. */
export function treeName(tree: TreeId): string {
  const [kind, number] = tree.split(':');
  if (kind === 'vlan') return `VLAN ${number}`;
  if (kind === 'mst') return number === '0' ? 'CIST' : `instance ${number}`;
  return 'the common tree';
}

/** As short as it can be told: `15`, `CIST`, `MSTI 2`; empty for the common tree. */
export const treeLabel = (tree: TreeId): string => {
  const [kind, number = ''] = tree.split(':');
  return kind !== 'mst' ? number : number === '0' ? 'CIST' : `MSTI ${number}`;
};

/** Several trees as people name them: `VLANs 15,25-29`, `VLAN 15`, `the common tree`. */
export function treesName(trees: readonly TreeId[]): string {
  const vids = trees.map(treeVlan).filter((vid) => vid !== null);
  const mstids = trees.map(treeInstance).filter((mstid) => mstid !== null && mstid > 0) as number[];
  if (trees.length > 2 && mstids.length >= trees.length - 1 && vids.length === 0) {
    const text = VlanSet.of(mstids.map((mstid) => [mstid, mstid])).format();
    return `${trees.includes(CIST) ? 'CIST, ' : ''}instances ${text}`;
  }
  if (trees.length === 1 || vids.length < trees.length) return trees.map(treeName).join(', ');
  return `VLANs ${VlanSet.of(vids.map((vid) => [vid, vid])).format()}`;
}
