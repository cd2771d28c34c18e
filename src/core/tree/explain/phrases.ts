/** The words of an explanation: how a comparison of two priority vectors reads as part of a sentence. */
import type { BridgePortId } from '../../model/ids';
import { nameOf } from '../../model/names';
import type { Bridge } from '../../topology/bridges';
import { isOne } from '../../topology/acting';
import type { Network } from '../../topology/network';
import { costText, fieldText, type PriorityVector, type VectorField } from './vector';

/** One side of a comparison. */
export interface Way {
  /** Whose vector it is: a switch and its port, as people say it. */
  readonly label: string;
  /** The switch that sent it. */
  readonly who: string;
  readonly vector: PriorityVector;
}

/** Two vectors side by side; the first won. `decidedBy` is null only where identifiers collide. */
export interface VectorComparison {
  readonly question: string;
  readonly winner: Way;
  readonly loser: Way;
  readonly decidedBy: VectorField | null;
}

/** The parts of a vector as people call them. */
export const FIELD_NAMES: Readonly<Record<VectorField, string>> = {
  root: 'root bridge ID',
  rootPathCost: 'root path cost',
  regionalRoot: 'regional root ID',
  internalRootPathCost: 'internal root path cost',
  designatedBridge: 'bridge ID',
  designatedPort: 'port ID',
  receivingPort: 'own port ID',
};

/** What a part of this vector is called: in a CIST with regions the root path cost is the external one. */
export const fieldName = (vector: PriorityVector, field: VectorField): string =>
  field === 'rootPathCost' && vector.regionalRoot ? 'external root path cost' : FIELD_NAMES[field];

/** What people call a switch: its name, else its id. */
export const switchName = (sw: Pick<Bridge, 'id' | 'name'>): string => nameOf(sw);

const homeOf = ({ design, switches, home }: Network, p: number) =>
  design.switches.find((sw) => sw.id === switches[home[p]!]!.id)!;

const ownPortText = (network: Network, p: number): string => {
  const { id } = network.ports[p]!;
  const at = homeOf(network, p);
  const bundle = network.design.bundles.find((each) => (each.id as BridgePortId) === id && each.switch === at.id);
  return bundle ? `bundle ${nameOf(bundle)}` : `port ${id}`;
};

/** `port 3`, or `bundle Uplinks`; in a pair that is seen as one bridge `port 3 of ridge-a`. */
export function portText(network: Network, p: number): string {
  const { pairs, owner, acting } = network;
  const ofPair = !acting && pairs.some((pair) => isOne(pair) && pair.first === owner[p]);
  return ofPair ? `${ownPortText(network, p)} of ${nameOf(homeOf(network, p))}` : ownPortText(network, p);
}

/** A switch and its port. */
export const label = (network: Network, p: number): string =>
  `${nameOf(homeOf(network, p))} ${ownPortText(network, p)}`;

/** Who speaks for a segment and by what: `ridge-b offers this segment at 2 000, lodge could only at 20 000`. */
export function offerPhrase({ winner, loser, decidedBy }: VectorComparison): string {
  const cost = outsideText(winner.vector);
  if (decidedBy === 'rootPathCost') {
    return `${winner.who} offers this segment at ${cost}, ${loser.who} could only at ${outsideText(loser.vector)}`;
  }
  return `both ends would offer this segment at ${cost}, and ${tiePhrase(winner, loser, decidedBy)}`;
}

/** Why the loser lost, as a verb phrase: `would cost 22 000`. */
export function lossPhrase({ winner, loser, decidedBy }: VectorComparison): string {
  if (decidedBy === 'rootPathCost') return `would cost ${outsideText(loser.vector)}`;
  if (decidedBy === 'internalRootPathCost')
    return `costs the same outside of regions, and ${fieldText(loser.vector, decidedBy)} inside of its own`;
  return `costs the same${winner.vector.regionalRoot ? ' outside of regions' : ''}, but ${tiePhrase(winner, loser, decidedBy)}`;
}

/** A root path cost; in a CIST with regions it is the part outside of them. */
const outsideText = ({ rootPathCost, regionalRoot }: PriorityVector): string =>
  `${costText(rootPathCost)}${regionalRoot ? ' outside of regions' : ''}`;

function tiePhrase(winner: Way, loser: Way, decidedBy: VectorField | null): string {
  if (decidedBy === null) return 'every identifier is the same: give one of them another number or MAC';
  const [better, worse] = [fieldText(winner.vector, decidedBy), fieldText(loser.vector, decidedBy)];
  if (decidedBy === 'receivingPort') return `the port ID here, ${better}, is lower than ${worse}`;
  if (winner.who === loser.who) return `${winner.who}'s ${FIELD_NAMES[decidedBy]} ${better} is lower than its ${worse}`;
  return `${winner.who}'s ${FIELD_NAMES[decidedBy]} ${better} is lower than ${loser.who}'s ${worse}`;
}
