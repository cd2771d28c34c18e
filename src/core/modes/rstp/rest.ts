/** An RSTP or MSTP entity put where its machines come to rest: they run once, on what the ports will have heard by then (IEEE 802.1Q-2018 13.24). */
import type { Bpdu } from '../bpdu';
import type { Heard, Micros, Offer } from '../entity';
import { SECOND } from '../entity';
import { compareVectors, timesOf, wholeSeconds } from '../vector';
import { isOfRegion, seenFromOutside } from './portReceive';
import { portRoleSelection } from './portRoleSelection';
import { bpduOf, speaks } from './portTransmit';
import {
  MIGRATE_TIME,
  cist,
  helloTime,
  instanceOf,
  isCist,
  type Bridge,
  type BridgePort,
  type TreePort,
} from './state';

/** What a port says of a tree's root: its designated priority vector and times (13.27); of an instance but the hops are its own (14.4). */
export function offerOf(p: TreePort): Offer {
  const { designatedPriority: vector, designatedTimes: times, port } = p;
  const region = port.bridge.region?.configurationId ?? null;
  if (isCist(p.tree)) return { vector, times, region };
  const { messageAge, maxAge, forwardDelay, hello } = cist(port).designatedTimes;
  return { vector, times: timesOf(messageAge, maxAge, forwardDelay, hello, times.remainingHops), region };
}

/** Takes what is offered at a port for the way to the root: what the bridge says then follows from it. */
export function leadTo(p: TreePort, offer: Offer): void {
  if (isCist(p.tree)) p.port.infoInternal = isOfRegion(p.port, offer.region);
  p.infoIs = 'Received';
  p.portPriority = vectorOf(p, offer);
  p.portTimes = offer.times;
  p.reselect = true;
  portRoleSelection(p.tree);
}

/** What an offer is at a port (13.10). */
const vectorOf = ({ port }: TreePort, { region, vector }: Offer): Offer['vector'] =>
  region === null || isOfRegion(port, region) ? vector : seenFromOutside(port, vector);

/** Gives every port what it hears, as though it had heard it for long; false where somebody's information is too old to live. */
export function hearAll(bridge: Bridge, heard: readonly Heard[]): boolean {
  return bridge.ports.every((port, i) => hear(port, heard[i]!));
}

function hear(port: BridgePort, heard: Heard): boolean {
  const { bridge } = port;
  for (const p of port.trees) {
    p.infoIs = 'Disabled';
    p.fdWhile = 0;
    p.reselect = true;
    p.selected = false;
  }
  if (heard.kind === 'off') return true;
  port.portEnabled = true;
  port.newInfo = port.newInfoMsti = false;
  port.txTick = port.helloWhen - helloTime(cist(port)) * SECOND + SECOND;
  port.txCount = port.txTick > bridge.now ? 1 : 0;
  if (heard.kind === 'nobody') {
    port.operEdge = port.adminEdge || port.autoEdge;
    return port.operEdge;
  }
  port.operEdge = false;
  port.rcvdRSTP = true;
  port.edgeDelayWhile = heard.last + MIGRATE_TIME * SECOND;
  const inside = isOfRegion(port, heard.offers[0].region);
  port.rcvdInternal = port.infoInternal = inside;
  return port.trees.every((p, tree) => {
    p.pim = 'CURRENT';
    const offer = isCist(p.tree) || inside ? (heard.offers[tree] ?? null) : null;
    if (offer) return hold(p, offer, heard.last);
    keepOwn(p);
    return true;
  });
}

/** A port holds what is offered, or goes on saying what is better; false where the offer is too old, or has come too far. */
function hold(p: TreePort, offer: Offer, last: Micros): boolean {
  const vector = vectorOf(p, offer);
  const { times } = offer;
  if (compareVectors(p.designatedPriority, vector) < 0) {
    keepOwn(p);
    p.msgPriority = vector;
    return true;
  }
  p.infoIs = 'Received';
  p.msgPriority = p.portPriority = vector;
  p.msgTimes = p.portTimes = times;
  p.rcvdInfoWhile = last + 3 * times.hello * SECOND;
  if (!isCist(p.tree) || p.port.infoInternal) return times.remainingHops > 1;
  return wholeSeconds(times.messageAge) + 1 <= times.maxAge;
}

function keepOwn(p: TreePort): void {
  p.infoIs = 'Mine';
  p.portPriority = p.designatedPriority;
  p.portTimes = p.designatedTimes;
  p.agreed = true;
}

/** What the machines did on the way is long past: nothing is told, no timer runs. */
export function forgetTheWay(bridge: Bridge): void {
  for (const port of bridge.ports) {
    port.newInfo = port.newInfoMsti = !port.portEnabled;
    for (const p of port.trees) {
      p.tcWhile = bridge.now;
      // A port that nobody answers goes on asking (DESIGNATED_PROPOSE), unless it has been an edge port from the start.
      if (port.portEnabled && port.operEdge) p.proposing = !port.adminEdge;
    }
    if (port.portEnabled && speaks(port)) port.sentBpdu = bpduOf(port);
  }
}

/** Whether every port has come to where it stays, with the root ports that were foreseen. */
export const hasComeToRest = ({ trees }: Bridge, rootPorts: readonly number[]): boolean =>
  trees.every(({ rootPort, ports }, tree) => (rootPort?.port.index ?? -1) === rootPorts[tree] && ports.every(isAtRest));

function isAtRest({ port, updtInfo, role, selectedRole, forwarding, learning }: TreePort): boolean {
  if (!port.portEnabled) return true;
  if (updtInfo || role !== selectedRole || role === 'master') return false;
  return role === 'root' || role === 'designated' ? forwarding : !learning;
}

/** A port has heard that last. */
export function knewOf(port: BridgePort, bpdu: Bpdu): void {
  port.heardBpdu = bpdu;
  if (bpdu.kind !== 'mst' || !port.rcvdInternal) return;
  for (const [i, message] of bpdu.instances.entries()) {
    const p = instanceOf(port, message, i);
    if (p) p.heardMsg = message;
  }
}

/** When a port sent its latest hello, which is due again as its timer says. */
export const lastHello = (port: BridgePort): Micros => port.helloWhen - helloTime(cist(port)) * SECOND;
