/** Ports that say at each hello what they said at the one before (IEEE 802.1Q-2018 13.34), and ports to which it is nothing new. */
import type { Bpdu, MstBpdu, MstiMessage, RstBpdu } from '../bpdu';
import { SECOND, type Hello, type Micros } from '../entity';
import { sameTimes } from '../vector';
import { bpduOf, forgive, ready, speaks } from './portTransmit';
import { cist, helloTime, instanceOf, isZero, type Bridge, type BridgePort, type TreePort } from './state';

/**
 * Whether a BPDU says nothing new to a port at rest: only its information lives on (13.35 REPEATED_DESIGNATED), no machine
 * moves. A BPDU that says the same is the same object, so all of it has been read before.
 */
export function knows(port: BridgePort, bpdu: Bpdu): boolean {
  if (
    !port.portEnabled ||
    bpdu !== port.heardBpdu ||
    (bpdu.kind !== 'rst' && bpdu.kind !== 'mst') ||
    !port.sendRSTP ||
    port.operEdge ||
    port.mcheck
  )
    return false;
  if (!saysNothingNew(cist(port), bpdu)) return false;
  if (!port.rcvdInternal || bpdu.kind !== 'mst') return true;
  return bpdu.instances.every((message, i) => {
    const p = instanceOf(port, message, i);
    return !p || saysNothingNew(p, message);
  });
}

/** Whether a message that has been read once changes nothing in its tree: what the port holds said again, or an agreement that stands. */
export function saysNothingNew(p: TreePort, message: RstBpdu | MstBpdu | MstiMessage): boolean {
  if (message.tc || message.proposal || p.updtInfo || p.rcvdMsg !== null) return false;
  if (message.role !== 'designated')
    return message.kind === 'msti' && p.infoIs === 'Mine' && p.agreed === message.agreement && !p.proposing;
  if (p.infoIs !== 'Received' || isZero(p.port.bridge, p.rcvdInfoWhile)) return false; // it is about to age
  return p.msgPriority === p.portPriority && sameTimes(p.msgTimes, p.portTimes);
}

/** What a port holds of what it has heard lives until a moment (13.35 REPEATED_DESIGNATED), which is given by how long the sender says. */
export function liveOn(port: BridgePort, until: (lifetime: Micros) => Micros): void {
  for (const p of port.trees)
    if (p.infoIs === 'Received' && (p === cist(port) || port.rcvdInternal))
      p.rcvdInfoWhile = until(3 * p.portTimes.hello * SECOND);
}

/** By port, what it will say at every hello until a machine moves; null where something new is to come. */
export function hellosOf(bridge: Bridge): (Hello | null)[] | null {
  const hellos: (Hello | null)[] = [];
  for (const port of bridge.ports) {
    const hello = port.portEnabled && port.enableBPDUtx ? helloOf(port) : null;
    if (hello === undefined) return null;
    hellos.push(hello);
  }
  return hellos;
}

/** Null where the port says nothing; undefined where it has something new to say. */
function helloOf(port: BridgePort): Hello | null | undefined {
  const { bridge } = port;
  if (port.newInfo || port.newInfoMsti || !port.sendRSTP || port.helloWhen <= bridge.now) return undefined;
  forgive(port);
  if (port.txCount > 1 || (port.txCount === 1 && port.txTick > port.helloWhen)) return undefined; // held back before long
  for (const p of port.trees) if (!ready(p) || !isZero(bridge, p.tcWhile)) return undefined;
  if (!speaks(port)) return null;
  const bpdu = bpduOf(port);
  return bpdu === port.sentBpdu ? { bpdu, next: port.helloWhen, period: periodOf(port) } : undefined;
}

const periodOf = (port: BridgePort): Micros => helloTime(cist(port)) * SECOND;

/** The clock went on without hellos: the next ones are those that are due at a moment or later. */
export function catchUp(bridge: Bridge, from: Micros): void {
  for (const port of bridge.ports) {
    const late = from - port.helloWhen;
    if (!port.portEnabled || late <= 0) continue;
    const period = periodOf(port);
    port.helloWhen += Math.ceil(late / period) * period;
    if (!speaks(port)) continue;
    port.txTick = port.helloWhen - period + SECOND;
    port.txCount = port.txTick > bridge.now ? 1 : 0;
  }
}
