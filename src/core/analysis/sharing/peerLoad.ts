/** What the peer link of a pair carries: frames that come in at one switch of it and leave by the other alone (common practice: who can, sends by members of its own). */
import type { PairedBridges } from '../../topology/shape';
import type { Network } from '../../topology/network';

/** Frames that come to a bridge from one side: how many ends of a VLAN lie there, and by what they come in. */
export interface Side {
  readonly weight: number;
  /** The bridge ports that it is behind: one, or those of a host's cards. */
  readonly ports: readonly number[];
}

/** Cables of the peer link that carry, as the aggregationPorts of the primary. */
export const peerCables = ({ bundleOf, macOperational }: Network, { peer: [own] }: PairedBridges): number[] =>
  [...bundleOf.keys()].filter((p) => bundleOf[p] === own && macOperational[p] === 1);

/** The share of all `pairs` of ends that crosses from one switch of a pair to the other; `meets`: whether frames go between two sides. */
export function crossing(
  network: Network,
  pair: PairedBridges,
  sides: readonly Side[],
  meets: (a: number, b: number) => boolean = () => true,
): number {
  const at = sides.map((side) => shareAtFirst(network, pair, side));
  let crossed = 0;
  for (const [i, a] of sides.entries())
    for (const [j, b] of sides.entries())
      if (i !== j && meets(i, j)) crossed += (a.weight * b.weight * crosses(at[i]!, at[j]!)) / 2;
  return crossed;
}

/** Of the frames from one side to another, those that come in where the other one has no port. */
const crosses = (from: number, to: number): number => (to === 1 ? 1 - from : to === 0 ? from : 0);

/** The share of what comes from a side that comes in at the primary. */
function shareAtFirst({ aggregates, home }: Network, { first }: PairedBridges, { ports }: Side): number {
  const sockets = ports.flatMap((port) => {
    const bundle = aggregates.get(port);
    return bundle ? bundle.active.map((place) => bundle.aggregationPorts[place]!) : [port];
  });
  return sockets.filter((p) => home[p] === first).length / Math.max(1, sockets.length);
}
