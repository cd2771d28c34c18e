/**
 * Bridge and port identifiers (IEEE 802.1Q-2018 clauses 13.26.2, 13.26.3 and 13.27.44): what elections compare.
 */
import type { Bridge, BridgePort } from './bridges';
import { isMultiple, isPerVlan } from '../model/document';
import type { TreeId } from '../model/ids';
import { CIST, CST, treeInstance, treeVlan, vlanTree } from '../model/ids';
import type { Dialect } from '../model/document';

/** A bridge identifier: `priority` is the sum of the settable priority and the system ID extension. Lower wins. */
export interface BridgeId {
  readonly priority: number;
  readonly mac: string;
}

/** A port identifier: 4 bits of priority, then 12 bits of port number. Lower wins. */
export interface PortIdentifier {
  readonly priority: number;
  readonly number: number;
}

/**
 * The address of a port of its own (IEEE 802-2014 8.2), which designs do not hold: a local one made of the last three octets of
 * the switch's and the port's number, so that it is the same wherever the port is seen and none of a switch or host.
 */
export const portAddress = (mac: string, number: number): string =>
  [
    '06',
    ...mac.split(':').slice(3),
    ...[number >> 8, number & 255].map((octet) => octet.toString(16).padStart(2, '0')),
  ].join(':');

/** Whether a tree is a VLAN's own: that of VLAN 1 is common to all. */
const isOfVlan = (tree: TreeId): boolean => (treeVlan(tree) ?? 1) !== 1;

/**
 * The key under which a switch keeps what is set for a tree: of a VLAN's, that tree's own. A standard bridge joins VLAN 1's tree as its CST, and the CIST
 * where others speak MSTP; there a bridge with a tree for each VLAN takes part with that of VLAN 1.
 */
export function settingKey(tree: TreeId, dialect: Dialect): TreeId {
  if (isPerVlan({ dialect })) return tree === CIST ? vlanTree(1) : tree;
  if (isOfVlan(tree)) return tree; // at ports that have trees of VLANs
  return isMultiple({ dialect }) ? tree : CST;
}

/** What a switch's or port's `trees` say of a tree; of a standard bridge also under the tree's own name. */
function settingsFor<T>(trees: Partial<Record<TreeId, T>>, tree: TreeId, dialect: Dialect): T | undefined {
  const key = settingKey(tree, dialect);
  return trees[key] ?? (key === CST ? trees[tree] : undefined);
}

/** Whether a tree has something of its own set there. */
export const isSetFor = (trees: Partial<Record<TreeId, object>>, tree: TreeId, dialect: Dialect): boolean =>
  settingsFor(trees, tree, dialect) !== undefined;

/** The priority that an engineer has set for this tree, without the system ID extension. */
export const setBridgePriority = (sw: Bridge, tree: TreeId): number =>
  settingsFor(sw.trees, tree, sw.dialect)?.priority ?? sw.priority;

/** The 12-bit system ID extension: the VLAN ID in a per-VLAN tree, the MSTID in an instance, 0 in the CST and CIST. */
export const systemIdExtension = (sw: Bridge, tree: TreeId): number =>
  isPerVlan(sw)
    ? (treeVlan(tree) ?? (tree === CIST ? 1 : 0))
    : isOfVlan(tree)
      ? treeVlan(tree)!
      : isMultiple(sw)
        ? (treeInstance(tree) ?? 0)
        : 0;

/** The bridge identifier that a switch sends in a tree. */
export const bridgeId = (sw: Bridge, tree: TreeId): BridgeId => ({
  priority: setBridgePriority(sw, tree) + systemIdExtension(sw, tree),
  mac: sw.mac,
});

/** Negative where `a` is the better identifier; MAC addresses of one case and width compare as numbers do. */
export function compareBridgeIds(a: BridgeId, b: BridgeId): number {
  return a.priority - b.priority || (a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : 0);
}

/** The port identifier that a port sends in a tree. */
export const portIdentifier = (port: BridgePort, tree: TreeId, dialect: Dialect): PortIdentifier => ({
  priority: settingsFor(port.trees, tree, dialect)?.priority ?? port.priority,
  number: port.number,
});

/** The identifier as the sixteen bits sent: comparing these compares identifiers. */
export const portIdentifierValue = (id: PortIdentifier): number => (id.priority << 8) | id.number;

/** The cost set for a port in a tree (of an MSTP port: inside its region), or undefined where the speed decides. */
export const setPathCost = (port: BridgePort, tree: TreeId, dialect: Dialect): number | undefined =>
  settingsFor(port.trees, tree, dialect)?.cost ?? port.cost;

/** The cost set for a port toward bridges outside its region (ExternalPortPathCost), or undefined where the speed decides. */
export const setExternalCost = (port: BridgePort, tree: TreeId, dialect: Dialect): number | undefined =>
  isMultiple({ dialect }) && !isOfVlan(tree) ? (port.externalCost ?? port.cost) : setPathCost(port, tree, dialect);

/** `32783.02:4b:00:00:00:01`, the way a bridge identifier is written. */
export const bridgeIdText = (id: BridgeId): string => `${id.priority}.${id.mac}`;

/** `128.7`. */
export const portIdentifierText = (id: PortIdentifier): string => `${id.priority}.${id.number}`;
