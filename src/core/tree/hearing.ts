/**
 * Who hears whom on a segment where some port discards the BPDUs that come in, or sends none (IEEE 802.1Q-2018 13.27
 * enableBPDUrx, enableBPDUtx). A rapid port that does not hear a classic bridge goes on with RST BPDUs, which classic bridges
 * do not know (13.32).
 */
import { oncePer } from '../base/cache';
import { isClassic, isForced } from '../model/document';
import type { Network } from '../topology/network';
import type { Segments } from '../topology/segments';

export interface Hearing {
  /** 1 for each segment with such a port: on all others everybody hears the designated port. */
  readonly filtered: Uint8Array;
  /** Whether port q takes in what port p says. */
  hears(p: number, q: number): boolean;
}

/** Whether a port knows version 0 alone: a classic bridge's does, and one that is forced to. */
export const isOld = ({ switches, owner, ports }: Network, p: number): boolean => {
  const sw = switches[owner[p]!]!;
  return isClassic(sw) || isForced(sw, ports[p]!);
};

const forcedPorts = oncePer((network: Network): readonly number[] =>
  Array.from(network.ports.keys()).filter((p) => isForced(network.switches[network.owner[p]!]!, network.ports[p]!)),
);

/**
 * Whether a port speaks version 0 since it is forced to, or hears one that is (802.1Q-2018 13.32): nothing that it says is said
 * as within a region (13.10), or tells whether it learns (13.29).
 */
export function forcedOn(network: Network, { of }: Pick<Segments, 'of'>): (p: number) => boolean {
  const forced = forcedPorts(network).filter((p) => of[p]! >= 0 && network.ports[p]!.bpduTx);
  if (forced.length === 0) return () => false;
  const there = new Set(forced.map((p) => of[p]!));
  return (p) => there.has(of[p]!) && (network.ports[p]!.bpduRx || forced.includes(p));
}

/**
 * Whether a port speaks version 0: by itself, or since it hears somebody who does (802.1Q-2018 13.32): a classic bridge has
 * when it began, whatever its port does now; a port that is forced to it where it is active.
 */
export function speaksVersion0(
  network: Network,
  { of, first, ports: grouped }: Segments,
  p: number,
  isActive: (q: number) => boolean,
): boolean {
  const { switches, owner, ports } = network;
  if (isOld(network, p) || !ports[p]!.bpduRx) return isOld(network, p);
  return grouped
    .subarray(first[of[p]!], first[of[p]! + 1])
    .some((q) => ports[q]!.bpduTx && isOld(network, q) && (isClassic(switches[owner[q]!]!) || isActive(q)));
}

const anyFilter = oncePer(({ ports }: Network): boolean => ports.some(({ bpduRx, bpduTx }) => !bpduRx || !bpduTx));

/** Null where no port of the network filters. */
export function hearingOn(network: Network, { of, first }: Segments): Hearing | null {
  if (!anyFilter(network)) return null;
  const { ports, switches, owner } = network;
  const filtered = new Uint8Array(first.length);
  const classic = (p: number): boolean => isClassic(switches[owner[p]!]!);
  /** Where somebody speaks version 0, so that rapid ones that hear it speak as it does. */
  const old = new Uint8Array(first.length);
  ports.forEach(({ bpduRx, bpduTx }, p) => {
    if (of[p]! < 0) return;
    if (!bpduRx || !bpduTx) filtered[of[p]!] = 1;
    if (bpduTx && isOld(network, p)) old[of[p]!] = 1;
  });
  return {
    filtered,
    hears(p, q) {
      if (!ports[p]!.bpduTx || !ports[q]!.bpduRx) return false;
      return !classic(q) || isOld(network, p) || (ports[p]!.bpduRx && old[of[p]!] === 1);
    },
  };
}
