/** The settled state of a tree: arrays by switch and port index, and readable views on them. */
import { isMultiple } from '../model/document';
import { shutText } from '../model/guard';
import { CIST, type BundleId, type BridgePortId, type SwitchId, type TreeId } from '../model/ids';
import type { Network } from '../topology/network';
import { ownCheckedPorts } from '../topology/ownCheck';
import { rootCheckedPorts } from '../topology/rootCheck';
import { wrongVlans } from '../topology/vlanCheck';

/** Port roles (IEEE 802.1Q-2018 clause 13.12), in the order of their codes; code 0 is a port outside the tree. */
export const ROLES = ['absent', 'root', 'designated', 'alternate', 'backup', 'master', 'disabled'] as const;
export type Role = Exclude<(typeof ROLES)[number], 'absent'>;
/** Port states once a network has settled. */
export type PortState = 'forwarding' | 'discarding';

export const CODE = { absent: 0, root: 1, designated: 2, alternate: 3, backup: 4, master: 5, disabled: 6 } as const;

/** In `disputed`: held by the VLAN check, by the root check, by the own BPDU check. */
export const HELD = 2;
export const ROOTS_DIFFER = 3;
export const OWN_HEARD = 4;

/** One tree's answer. Switch arrays have one entry a switch, port arrays one a port, by the network's indices. */
export interface SettledTree {
  readonly id: TreeId;
  /** Index of the root of the switch's island; -1 where the switch does not take part. */
  readonly root: Int32Array;
  readonly rootPathCost: Float64Array;
  /** Index of the root port; -1 at a root. */
  readonly rootPort: Int32Array;
  /** Place of each bridge in the election, 0 the best; -1 where the switch does not take part. */
  readonly rank: Int32Array;
  /** Role code of each port. */
  readonly role: Uint8Array;
  /** The port's path cost in this tree. */
  readonly cost: Int32Array;
  /** Index of the designated port of the port's segment; -1 without one. */
  readonly designated: Int32Array;
  /** 1 for each designated port that discards, since it hears a worse bridge speak for its segment too: one that throws away what it says; `HELD` where the VLAN check holds it: it hears nothing in this tree; `ROOTS_DIFFER` and `OWN_HEARD` where another check does, whatever its role. */
  readonly disputed: Uint8Array;
  /** Of the CIST and of instances: each bridge's regional root, -1 where it does not take part, and the internal root path cost; 1 for each port that leads to its own region alone. */
  readonly regional?: { readonly root: Int32Array; readonly cost: Float64Array; readonly inside: Uint8Array };
}

/** The answer for a whole design. */
export interface Solution {
  readonly network: Network;
  readonly trees: readonly SettledTree[];
}

export const treeOf = (solution: Solution, id: TreeId): SettledTree | undefined =>
  solution.trees.find((tree) => tree.id === id);

/** A bridge's root path cost; in a CIST with regions, of a bridge that is not its regional root, the external one and the internal one. */
export const costsIn = ({ id, rootPathCost, regional }: SettledTree, s: number): number[] =>
  regional && id === CIST && regional.cost[s]! > 0 ? [rootPathCost[s]!, regional.cost[s]!] : [rootPathCost[s]!];

/** What a port is in a tree; null where it does not belong to it. */
export const roleOf = (tree: SettledTree, port: number): Role | null => {
  const role = ROLES[tree.role[port] ?? 0]!;
  return role === 'absent' ? null : role;
};

/** Settled state that goes with a role: forwarding for root, designated and master, else discarding. */
export const stateOf = (role: Role): PortState =>
  role === 'root' || role === 'designated' || role === 'master' ? 'forwarding' : 'discarding';

/** Whether a port forwards frames once all has settled: the one place that says so (13.38, with 13.29 recordDispute). */
export const forwards = ({ role, disputed }: Pick<SettledTree, 'role' | 'disputed'>, p: number): boolean =>
  !disputed[p] && FORWARDING[role[p]!] === 1;
/** Whether a port that has signal and a role in the tree keeps frames out once all has settled. */
export const blocks = (tree: Pick<SettledTree, 'role' | 'disputed'>, p: number): boolean =>
  tree.role[p] !== CODE.absent && tree.role[p] !== CODE.disabled && !forwards(tree, p);
/** By role code. */
const FORWARDING = Uint8Array.from(ROLES, (role) => (role !== 'absent' && stateOf(role) === 'forwarding' ? 1 : 0));

/** Settled state of a port that has a role. */
export const stateIn = (tree: SettledTree, p: number): PortState => (forwards(tree, p) ? 'forwarding' : 'discarding');

export interface PortView {
  readonly role: Role;
  readonly state: PortState;
  readonly cost: number;
  /** What a guard does there: `shut by BPDU guard`, `held by root guard`, `held by loop guard`, `held: VLANs differ`, `held: own BPDU`. */
  readonly guard?: string;
  /** The bundle that the port is a member of, where it is a port of its own all the same. */
  readonly memberOf?: BundleId;
}

/** A member that is no port of its own: its bundle stands in its place. */
export interface MemberView {
  readonly memberOf: BundleId;
}

export interface SwitchView {
  readonly root: SwitchId;
  readonly rootPathCost: number;
  readonly rootPort: BridgePortId | null;
  /** Of MSTP switches: the root of their region, and what leads to the root outside and inside of regions. */
  readonly regionalRoot?: SwitchId;
  readonly externalRootPathCost?: number;
  readonly internalRootPathCost?: number;
  readonly ports: Readonly<Record<BridgePortId, PortView | MemberView>>;
}

export interface TreeView {
  readonly id: TreeId;
  readonly switches: Readonly<Record<SwitchId, SwitchView>>;
}

/** What holds a port. */
export const heldText = (network: Network, p: number): string =>
  wrongVlans(network).has(p)
    ? 'held: VLANs differ'
    : rootCheckedPorts(network).has(p)
      ? 'held: roots differ'
      : !ownCheckedPorts(network)?.[p]
        ? 'held by loop guard'
        : network.ports[p]!.loopGuard
          ? 'held: own BPDU, or by loop guard'
          : 'held: own BPDU';

/** What a guard does at a port that has this role; `held`: loop guard keeps it from forwarding. */
export function guardAt(network: Network, p: number, role: Role, held = false): { readonly guard?: string } {
  const { shut, ports } = network;
  if (shut[p]) return { guard: shutText(shut[p]) };
  if (held) return { guard: heldText(network, p) };
  return role === 'alternate' && ports[p]!.rootGuard ? { guard: 'held by root guard' } : {};
}

/** What is told of a port: its part in the tree, the bundle that it is a member of, or both; null where neither. */
export function entryOf(network: Network, p: number, part: PortView | null): PortView | MemberView | null {
  const bundle = network.bundleOf[p]!;
  if (bundle < 0) return part;
  const memberOf = network.aggregates.get(bundle)!.id;
  return part && network.serves[p] === p ? { ...part, memberOf } : { memberOf };
}

/** A tree's answer by identifiers, as the command line prints it: switches that run no spanning tree are left out. */
export function viewTree(network: Network, tree: SettledTree): TreeView {
  const switches: Record<SwitchId, SwitchView> = {};
  network.switches.forEach((sw, s) => {
    if (tree.root[s]! < 0) return;
    const ports: Record<BridgePortId, PortView | MemberView> = {};
    sw.ports.forEach((port, i) => {
      const p = network.firstPort[s]! + i;
      const role = roleOf(tree, p);
      const bundled = network.bundleOf[p]! >= 0 && tree.role[network.bundleOf[p]!] !== CODE.absent;
      const entry =
        role || bundled
          ? entryOf(
              network,
              p,
              role && {
                role,
                state: stateIn(tree, p),
                cost: tree.cost[p]!,
                ...guardAt(network, p, role, tree.disputed[p]! >= HELD),
              },
            )
          : null;
      if (entry) ports[port.id] = entry;
    });
    const rootPort = tree.rootPort[s]!;
    switches[sw.id] = {
      root: network.switches[tree.root[s]!]!.id,
      rootPathCost: tree.rootPathCost[s]!,
      rootPort: rootPort < 0 ? null : network.ports[rootPort]!.id,
      ports,
      ...(tree.regional && isMultiple(sw)
        ? {
            regionalRoot: network.switches[tree.regional.root[s]!]!.id,
            externalRootPathCost: tree.id === CIST ? tree.rootPathCost[s]! : 0,
            internalRootPathCost: tree.regional.cost[s]!,
          }
        : {}),
    };
  });
  return { id: tree.id, switches };
}
