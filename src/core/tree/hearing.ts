/**
 * Who hears whom on a segment where some port discards the BPDUs that come in, or sends none (IEEE 802.1Q-2018 13.27
 * enableBPDUrx, enableBPDUtx). A rapid port that does not hear the classic bridge at the other end goes on with RST BPDUs,
 * which that bridge does not know (13.32).
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
  ports.forEach(({ bpduRx, bpduTx }, p) => {
    if (of[p]! >= 0 && (!bpduRx || !bpduTx)) filtered[of[p]!] = 1;
  });
  const classic = (p: number): boolean => isClassic(switches[owner[p]!]!);
  return {
    filtered,
    hears(p, q) {
      if (!ports[p]!.bpduTx || !ports[q]!.bpduRx) return false;
      return !classic(q) || classic(p) || (ports[p]!.bpduRx && ports[q]!.bpduTx);
    },
  };
}
