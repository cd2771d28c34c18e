/** Bundles that are none at their other end: they check nothing, speak by one member, and hear by others who does not hear them (802.1AX-2020 6.2.5). */
import type { Network } from '../topology/network';
import type { Segments } from '../topology/segments';
import type { Bounds } from './shortestPaths';

/** What bundles hear beside their segments, as bounds of a walk; `nearer` says whether port q's bridge is nearer to one root than port p's. */
export function boundsBeside(network: Network, segments: Segments, nearer: (q: number, p: number) => boolean): Bounds {
  if (network.oneWayPeers.size === 0) return {};
  return {
    beside: hearersOf(network, segments),
    // A bundle that hears somebody better beside its segment is silent.
    sends: (_, p) => !network.oneWayPeers.get(p)?.some((q) => segments.of[q]! >= 0 && nearer(q, p)),
  };
}

/** By port, the bundles that hear it though it does not hear them. */
function hearersOf({ oneWayPeers }: Network, segments: Segments): ReadonlyMap<number, readonly number[]> {
  const found = new Map<number, number[]>();
  for (const [bundle, heard] of oneWayPeers) {
    if (segments.of[bundle]! < 0) continue;
    for (const port of heard) if (segments.of[port]! >= 0) found.set(port, [...(found.get(port) ?? []), bundle]);
  }
  return found;
}

/** The designated port of each segment, where a bundle may hear a better one beside it, and then is silent. */
export function silencedBeside(
  network: Network,
  segments: Segments,
  designated: Int32Array,
  offersMore: (p: number, q: number) => boolean,
): Int32Array {
  // The nearest to the root first, since those farther may hear them.
  for (const [bundle, heard] of [...network.oneWayPeers].sort(([p], [q]) => (offersMore(p, q) ? -1 : 1))) {
    const segment = segments.of[bundle]!;
    if (segment < 0) continue;
    const [best = bundle] = heard
      .filter((port) => segments.of[port]! >= 0 && designated[port] === port)
      .sort((p, q) => (offersMore(p, q) ? -1 : 1));
    if (best === bundle || !offersMore(best, designated[bundle]!)) continue;
    if (designated[bundle] === bundle) {
      const others = Array.from(segments.ports.subarray(segments.first[segment], segments.first[segment + 1])).filter(
        (port) => port !== bundle,
      );
      const [next] = others.sort((p, q) => (offersMore(p, q) ? -1 : 1));
      for (const port of others) designated[port] = next!;
    }
    designated[bundle] = best;
  }
  return designated;
}
