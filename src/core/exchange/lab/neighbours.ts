/** LLDP at the ports of switches of a lab (IEEE 802.1AB-2016 clause 9): who is at the other end of each cable. */
import type { SwitchId } from '../../model/ids';
import type { LinkEnd } from '../../model/document';
import { SECOND, type Micros } from '../../modes/entity';
import { portAddress } from '../../topology/bridgeId';
import type { Network } from '../../topology/network';
import { decodeLldpFrame, encodeLldpFrame, type LldpFrame } from '../../wire/lldpdu';

/** 9.2.5: msgTxInterval, msgTxHold, msgFastTx, txFastInit. */
const MSG_TX_INTERVAL = 30;
const MSG_TX_HOLD = 4;
const MSG_FAST_TX = 1;
const TX_FAST_INIT = 4;
/** 9.2.5.22: txTTL, seconds. */
const TX_TTL = Math.min(65_535, MSG_TX_INTERVAL * MSG_TX_HOLD + 1);

interface Port {
  readonly end: LinkEnd;
  readonly says: LldpFrame;
  /** When it speaks next. */
  due: Micros;
  /** How often it is to speak fast yet. */
  txFast: number;
  /** Whom it hears, and until when that holds. */
  heard: { readonly frame: LldpFrame; readonly until: Micros } | null;
}

export class Neighbours {
  private readonly transmit: (end: LinkEnd, octets: Uint8Array) => void;
  private ports = new Map<string, Port>();

  constructor(transmit: (end: LinkEnd, octets: Uint8Array) => void) {
    this.transmit = transmit;
  }

  /** Ports that have signal speak from now on; what the others have heard is forgotten. */
  follow(
    { switches, ports, owner, macOperational, bundleOf }: Network,
    joined: ReadonlySet<SwitchId>,
    now: Micros,
  ): void {
    const before = this.ports;
    this.ports = new Map();
    ports.forEach((port, p) => {
      const sw = switches[owner[p]!]!;
      if (!joined.has(sw.id) || !macOperational[p] || bundleOf[p] === p) return;
      const end = { switch: sw.id, port: port.id } as LinkEnd;
      const says = {
        from: portAddress(sw.mac, port.number),
        chassis: sw.mac,
        port: `port${port.number}`,
        ttl: TX_TTL,
        systemName: sw.id,
      };
      this.ports.set(keyOf(end), before.get(keyOf(end)) ?? { end, says, due: now, txFast: 0, heard: null });
    });
  }

  /** When a port speaks next. */
  get next(): Micros {
    return [...this.ports.values()].reduce((min, { due }) => Math.min(min, due), Infinity);
  }

  runTo(t: Micros): void {
    for (const port of this.ports.values()) {
      if (port.due > t) continue;
      this.transmit(port.end, encodeLldpFrame(port.says));
      port.due = t + (port.txFast > 0 ? MSG_FAST_TX : MSG_TX_INTERVAL) * SECOND;
      port.txFast = Math.max(0, port.txFast - 1);
    }
  }

  /** A frame comes in; what is wrong with it, if anything is. */
  hear(end: LinkEnd, octets: Uint8Array, now: Micros): string | null {
    const port = this.ports.get(keyOf(end));
    const frame = decodeLldpFrame(octets);
    if (!frame.ok) return frame.error;
    if (!port) return null;
    const isNew = this.at(end, now) === null;
    port.heard = frame.value.ttl === 0 ? null : { frame: frame.value, until: now + frame.value.ttl * SECOND };
    // 9.2.8.9: a neighbour that is new is told at once, and several times.
    if (isNew && port.heard) [port.due, port.txFast] = [now, TX_FAST_INIT];
    return null;
  }

  /** Who is at the other end; null where nobody is known. */
  at(end: LinkEnd, now: Micros): LldpFrame | null {
    const heard = this.ports.get(keyOf(end))?.heard;
    return heard && heard.until > now ? heard.frame : null;
  }
}

const keyOf = ({ switch: sw, port }: LinkEnd): string => `${sw} ${port}`;
