/** Priority vectors (IEEE 802.1Q-2018 clause 13.9): compared part by part, lower is better. */
import { isMultiple, isClassic, readsRst } from '../../model/document';
import {
  bridgeId,
  bridgeIdText,
  compareBridgeIds,
  portIdentifier,
  portIdentifierText,
  portIdentifierValue,
  type BridgeId,
  type PortIdentifier,
} from '../../topology/bridgeId';
import { CIST } from '../../model/ids';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../settled';

export interface PriorityVector {
  readonly root: BridgeId;
  /** In the CIST of a network with MSTP the external one. */
  readonly rootPathCost: number;
  /** In such a CIST alone: the sender's regional root, and what leads to it inside the region. */
  readonly regionalRoot?: BridgeId;
  readonly internalRootPathCost?: number;
  readonly designatedBridge: BridgeId;
  readonly designatedPort: PortIdentifier;
  readonly receivingPort: PortIdentifier;
}

/** The parts of a vector in the order in which they are compared. */
export const VECTOR_FIELDS = [
  'root',
  'rootPathCost',
  'regionalRoot',
  'internalRootPathCost',
  'designatedBridge',
  'designatedPort',
  'receivingPort',
] as const;
export type VectorField = (typeof VECTOR_FIELDS)[number];

/** The parts that a vector has. */
export const fieldsOf = (vector: PriorityVector): readonly VectorField[] =>
  VECTOR_FIELDS.filter((field) => vector[field] !== undefined);

/** Negative where `a` is better in this part. */
export function compareField(a: PriorityVector, b: PriorityVector, field: VectorField): number {
  switch (field) {
    case 'regionalRoot':
      return a.regionalRoot && b.regionalRoot ? compareBridgeIds(a.regionalRoot, b.regionalRoot) : 0;
    case 'internalRootPathCost':
      return (a.internalRootPathCost ?? 0) - (b.internalRootPathCost ?? 0);
    case 'root':
    case 'designatedBridge':
      return compareBridgeIds(a[field], b[field]);
    case 'rootPathCost':
      return a.rootPathCost - b.rootPathCost;
    case 'designatedPort':
    case 'receivingPort':
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
    case 'regionalRoot':
      return vector.regionalRoot ? bridgeIdText(vector.regionalRoot) : '';
    case 'internalRootPathCost':
      return costText(vector.internalRootPathCost ?? 0);
    case 'root':
    case 'designatedBridge':
      return bridgeIdText(vector[field]);
    case 'rootPathCost':
      return costText(vector.rootPathCost);
    case 'designatedPort':
    case 'receivingPort':
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
    ...(tree.regional && tree.id === CIST
      ? {
          regionalRoot: bridgeIdOf(network, tree, facesClassic(network, p) ? s : tree.regional.root[s]!),
          internalRootPathCost: tree.regional.cost[s]!,
        }
      : {}),
    designatedBridge: bridgeIdOf(network, tree, s),
    designatedPort: own,
    receivingPort: own,
  };
}

/** What port `p` has heard from its segment's designated port, its own cost added (the root path priority vector). */
export function heardBy(network: Network, tree: SettledTree, p: number): PriorityVector {
  const offer = offerOf(network, tree, tree.designated[p]!);
  if (tree.regional && tree.id === CIST) return heardInCist(network, tree, p, offer);
  return { ...offer, rootPathCost: offer.rootPathCost + tree.cost[p]!, receivingPort: identifierOf(network, tree, p) };
}

/** External cost is added where a region is entered, whose regional root the bridge then is; internal cost inside (13.10). */
function heardInCist(network: Network, tree: SettledTree, p: number, offer: PriorityVector): PriorityVector {
  const [s, from] = [network.owner[p]!, network.owner[tree.designated[p]!]!];
  const receivingPort = identifierOf(network, tree, p);
  if (tree.regional!.inside[p])
    return { ...offer, internalRootPathCost: (offer.internalRootPathCost ?? 0) + tree.cost[p]!, receivingPort };
  // Who reads an MST BPDU as an RST BPDU sees the regional root as its sender (14.4).
  const seen = readsRst(network.switches[s]!) && isMultiple(network.switches[from]!) ? offer.regionalRoot : undefined;
  return {
    ...offer,
    rootPathCost: offer.rootPathCost + tree.cost[p]!,
    regionalRoot: bridgeIdOf(network, tree, s),
    internalRootPathCost: 0,
    designatedBridge: seen ?? offer.designatedBridge,
    receivingPort,
  };
}

/** Whether a classic bridge is at the other end: there a bridge stands in the place of its regional root (13.10). */
const facesClassic = ({ far, owner, switches }: Network, p: number): boolean =>
  far[p]! >= 0 && isClassic(switches[owner[far[p]!]!]!);

const bridgeIdOf = (network: Network, tree: SettledTree, s: number): BridgeId =>
  bridgeId(network.switches[s]!, tree.id);

const identifierOf = (network: Network, tree: SettledTree, p: number): PortIdentifier =>
  portIdentifier(network.ports[p]!, tree.id, network.switches[network.owner[p]!]!.dialect);
