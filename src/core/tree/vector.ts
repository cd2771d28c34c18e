/** Priority vectors of STP and RSTP (IEEE 802.1Q-2018 clause 13.9): compared part by part, lower is better. */
import { bridgeId, bridgeIdText, compareBridgeIds, portIdentifier, portIdentifierText, portIdentifierValue, type BridgeId, type PortIdentifier } from './bridgeId';
import type { Network } from './network';
import type { SettledTree } from './settled';

export interface PriorityVector {
  readonly root: BridgeId;
  readonly rootPathCost: number;
  readonly designatedBridge: BridgeId;
  readonly designatedPort: PortIdentifier;
  readonly receivingPort: PortIdentifier;
}

/** The parts of a vector in the order in which they are compared. */
export const VECTOR_FIELDS = ['root', 'rootPathCost', 'designatedBridge', 'designatedPort', 'receivingPort'] as const;
export type VectorField = (typeof VECTOR_FIELDS)[number];

/** Negative where `a` is better in this part. */
export function compareField(a: PriorityVector, b: PriorityVector, field: VectorField): number {
  switch (field) {
    case 'root':
    case 'designatedBridge':
      return compareBridgeIds(a[field], b[field]);
    case 'rootPathCost':
      return a.rootPathCost - b.rootPathCost;
    default:
      return portIdentifierValue(a[field]) - portIdentifierValue(b[field]);
  }
}

/** Negative where `a` is the better vector, 0 where they are equal. */
export function compareVectors(a: PriorityVector, b: PriorityVector): number {
  const field = decidingField(a, b);
  return field === null ? 0 : compareField(a, b, field);
}

/** The first part in which two vectors differ, or null where they are equal. */
export const decidingField = (a: PriorityVector, b: PriorityVector): VectorField | null =>
  VECTOR_FIELDS.find((field) => compareField(a, b, field) !== 0) ?? null;

/** A part of a vector as people write it. */
export function fieldText(vector: PriorityVector, field: VectorField): string {
  switch (field) {
    case 'root':
    case 'designatedBridge':
      return bridgeIdText(vector[field]);
    case 'rootPathCost':
      return costText(vector.rootPathCost);
    default:
      return portIdentifierText(vector[field]);
  }
}

/** A cost with thin spaces between groups of three digits: `20 000`. */
export const costText = (cost: number): string => String(cost).replace(/\B(?=(\d{3})+$)/g, '\u202f');

/** What port `p` sends, or would send, as designated port of its segment (the designated priority vector). */
export function offerOf(network: Network, tree: SettledTree, p: number): PriorityVector {
  const s = network.owner[p]!;
  const own = identifierOf(network, tree, p);
  return {
    root: bridgeIdOf(network, tree, tree.root[s]!),
    rootPathCost: tree.rootPathCost[s]!,
    designatedBridge: bridgeIdOf(network, tree, s),
    designatedPort: own,
    receivingPort: own,
  };
}

/** What port `p` has heard from its segment's designated port, its own cost added (the root path priority vector). */
export function heardBy(network: Network, tree: SettledTree, p: number): PriorityVector {
  const offer = offerOf(network, tree, tree.designated[p]!);
  return { ...offer, rootPathCost: offer.rootPathCost + tree.cost[p]!, receivingPort: identifierOf(network, tree, p) };
}

const bridgeIdOf = (network: Network, tree: SettledTree, s: number): BridgeId => bridgeId(network.switches[s]!, tree.id);

const identifierOf = (network: Network, tree: SettledTree, p: number): PortIdentifier =>
  portIdentifier(network.ports[p]!, tree.id, network.switches[network.owner[p]!]!.dialect);
