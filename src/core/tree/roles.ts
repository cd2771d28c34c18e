/** Who speaks for a segment, what is thrown away there, and the roles that follow: the same for every kind of tree (IEEE 802.1Q-2018 13.9 to 13.12, 13.29). */
import type { Network } from '../topology/network';
import type { Segments } from '../topology/segments';
import { hearingOn } from './hearing';
import { CODE } from './settled';

/** Whether a port may lead to the root: root guard keeps it from that (13.27 restrictedRole), though it hears and takes part. */
export const mayLead = ({ ports }: Network, p: number): boolean => !ports[p]!.rootGuard;

/** The designated port of each port's segment among those that `counts` lets in, as far as the port hears it; -1 without one. */
export function designatedOn(
  network: Network,
  segments: Segments,
  offersMore: (p: number, q: number) => boolean,
  counts: (p: number) => boolean = () => true,
): Int32Array {
  const { of, first, ports: grouped } = segments;
  const designated = new Int32Array(network.ports.length).fill(-1);
  const hearing = hearingOn(network, segments);
  for (let segment = 0; segment + 1 < first.length; segment += 1) {
    if (hearing?.filtered[segment]) {
      const here = Array.from(grouped.subarray(first[segment], first[segment + 1])).filter(counts);
      // The best first: who hears a better one that speaks is silent.
      here.sort((p, q) => (offersMore(p, q) ? -1 : 1));
      for (const [i, q] of here.entries())
        designated[q] = here.slice(0, i).find((p) => designated[p] === p && hearing.hears(p, q)) ?? q;
      continue;
    }
    let best = -1;
    for (let i = first[segment]!; i < first[segment + 1]!; i += 1)
      if (counts(grouped[i]!) && (best < 0 || offersMore(grouped[i]!, best))) best = grouped[i]!;
    for (let i = first[segment]!; best >= 0 && i < first[segment + 1]!; i += 1)
      if (counts(grouped[i]!)) designated[grouped[i]!] = best;
  }
  for (let p = 0; p < of.length; p += 1) if (of[p]! >= 0 && designated[p]! < 0 && counts(p)) designated[p] = p;
  return designated;
}

/** Designated ports that hear a worse one speak for their segment, which does not hear them, discard (13.29 recordDispute): marked in `disputed`. */
export function disputeUnheard(
  network: Network,
  segments: Segments,
  disputed: Uint8Array,
  { designated, isWorse }: { readonly designated: Int32Array; readonly isWorse: (p: number, than: number) => boolean },
  isNoticed: (from: number, p: number) => boolean,
): void {
  const hearing = hearingOn(network, segments);
  if (!hearing) return;
  const { first, ports: grouped } = segments;
  for (let segment = 0; segment + 1 < first.length; segment += 1) {
    if (!hearing.filtered[segment]) continue;
    const here = Array.from(grouped.subarray(first[segment], first[segment + 1]));
    const speaking = here.filter((p) => designated[p] === p);
    // Who agrees lets it forward again at once: with it, or with another one that asks again and again, not hearing the answer.
    const agreed = (p: number): boolean =>
      here.some((q) => {
        const of = designated[q]!;
        return of !== q && q !== p && hearing.hears(q, p) && isNoticed(p, q) && (of === p || !hearing.hears(q, of));
      });
    // The worst first: one that discards learns nothing, and is no reason for a better one to do so.
    speaking.sort((p, q) => (isWorse(p, q) ? -1 : 1));
    for (const [i, p] of speaking.entries()) {
      const isHeard = (q: number): boolean => !disputed[q] && hearing.hears(q, p) && isNoticed(p, q);
      if (!agreed(p) && speaking.slice(0, i).some(isHeard)) disputed[p] = 1;
    }
  }
}

/** 13.12: disabled without signal; else root, designated, backup where the own bridge is designated, alternate. */
export function rolesOf(
  network: Network,
  segments: Segments,
  rootPort: Int32Array,
  designated: Int32Array,
): Uint8Array {
  const role = new Uint8Array(network.ports.length);
  for (let p = 0; p < role.length; p += 1) {
    if (!segments.member[p]) continue;
    const best = designated[p]!;
    const s = network.owner[p]!;
    if (segments.of[p]! < 0) role[p] = CODE.disabled;
    else if (best === p || best < 0) role[p] = CODE.designated;
    else if (rootPort[s] === p) role[p] = CODE.root;
    else role[p] = network.owner[best] === s ? CODE.backup : CODE.alternate;
  }
  return role;
}

/**
 * Bundles that hear, by a cable over which they are not heard, a worse bridge speak for the same place: they discard
 * (13.29 recordDispute), unless who does hear them agrees, which lets them forward again at once; marked in `disputed`.
 */
export function disputeBeside(
  { oneWayPeers, far }: Network,
  disputed: Uint8Array,
  hears: { readonly designated: Int32Array; readonly isWorse: (p: number, than: number) => boolean },
  isNoticed: (from: number, p: number) => boolean,
): void {
  const { designated, isWorse } = hears;
  const agrees = (bundle: number): boolean => {
    const there = far[bundle]!;
    return there >= 0 && designated[there] === bundle && far[there] === bundle && isNoticed(bundle, there);
  };
  // The worst first: one that discards learns nothing, and is no reason for a better one to do so.
  for (const [bundle, heard] of [...oneWayPeers].sort(([p], [q]) => (isWorse(p, q) ? -1 : 1)))
    if (
      designated[bundle] === bundle &&
      !agrees(bundle) &&
      heard.some((p) => designated[p] === p && !disputed[p] && isWorse(p, bundle) && isNoticed(bundle, p))
    )
      disputed[bundle] = 1;
}

/**
 * Ports that throw away what their segment's designated port says speak for the segment themselves; the designated one sees a
 * worse bridge do so, and discards (13.29 recordDispute): 1 for each of these.
 */
export function thrownAway(
  designated: Int32Array,
  isThrown: (from: number, p: number) => boolean,
  isNoticed: (from: number, p: number) => boolean,
): Uint8Array {
  const disputed = new Uint8Array(designated.length);
  designated.forEach((from, p) => {
    if (from < 0 || from === p || !isThrown(from, p)) return;
    if (isNoticed(from, p)) disputed[from] = 1;
    designated[p] = p;
  });
  return disputed;
}
