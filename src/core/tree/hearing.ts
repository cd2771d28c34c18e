/**
 * Who hears whom on a segment where some port discards the BPDUs that come in, or sends none (IEEE 802.1Q-2018 13.27
 * enableBPDUrx, enableBPDUtx). A rapid port that does not hear a classic bridge goes on with RST BPDUs, which classic bridges
 * do not know (13.32).
 */
import { oncePer } from '../base/cache';
import { isClassic } from '../model/document';
import type { Network } from '../topology/network';
import type { Segments } from '../topology/segments';

export interface Hearing {
  /** 1 for each segment with such a port: on all others everybody hears the designated port. */
  readonly filtered: Uint8Array;
  /** Whether port q takes in what port p says. */
  hears(p: number, q: number): boolean;
}

const anyFilter = oncePer(({ ports }: Network): boolean => ports.some(({ bpduRx, bpduTx }) => !bpduRx || !bpduTx));

/** Null where no port of the network filters. */
export function hearingOn(network: Network, { of, first }: Segments): Hearing | null {
  if (!anyFilter(network)) return null;
  const { ports, switches, owner } = network;
  const filtered = new Uint8Array(first.length);
  const classic = (p: number): boolean => isClassic(switches[owner[p]!]!);
  /** Where a classic bridge speaks, so that rapid ones that hear it speak as it does. */
  const old = new Uint8Array(first.length);
  ports.forEach(({ bpduRx, bpduTx }, p) => {
    if (of[p]! < 0) return;
    if (!bpduRx || !bpduTx) filtered[of[p]!] = 1;
    if (bpduTx && classic(p)) old[of[p]!] = 1;
  });
  return {
    filtered,
    hears(p, q) {
      if (!ports[p]!.bpduTx || !ports[q]!.bpduRx) return false;
      return !classic(q) || classic(p) || (ports[p]!.bpduRx && old[of[p]!] === 1);
    },
  };
}
