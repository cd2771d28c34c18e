/** An RSTP entity put where its machines come to rest: they run once, on what the ports will have heard by then (IEEE 802.1Q-2018 13.24). */
import type { Heard, Micros, Offer } from '../entity';
import { SECOND } from '../entity';
import { compareVectors, wholeSeconds } from '../vector';
import { portRoleSelection } from './portRoleSelection';
import { bpduOf, speaks } from './portTransmit';
import { MIGRATE_TIME, cist, helloTime, type Bridge, type BridgePort } from './state';

/** What a port says of the root: its designated priority vector and times (13.27). */
export function offerOf(port: BridgePort): Offer {
  const { designatedPriority: vector, designatedTimes: times } = cist(port);
  return { vector, times };
}

/** Takes what is offered at a port for the way to the root: what the bridge says then follows from it. */
export function leadTo(port: BridgePort, { vector, times }: Offer): void {
  const p = cist(port);
  p.infoIs = 'Received';
  p.portPriority = vector;
  p.portTimes = times;
  p.reselect = true;
  portRoleSelection(p.tree);
}

/** Gives every port what it hears, as though it had heard it for long; false where somebody's information is too old to live. */
export function hearAll(bridge: Bridge, heard: readonly Heard[]): boolean {
  return bridge.ports.every((port, i) => hear(port, heard[i]!));
}

function hear(port: BridgePort, heard: Heard): boolean {
  const { bridge } = port;
  const p = cist(port);
  p.infoIs = 'Disabled';
  p.fdWhile = 0;
  p.reselect = true;
  p.selected = false;
  if (heard.kind === 'off') return true;
  port.portEnabled = true;
  port.newInfo = port.newInfoMsti = false;
  port.txTick = port.helloWhen - helloTime(p) * SECOND + SECOND;
  port.txCount = port.txTick > bridge.now ? 1 : 0;
  if (heard.kind === 'nobody') {
    port.operEdge = port.adminEdge || port.autoEdge;
    return port.operEdge;
  }
  const { vector, times } = heard.offer;
  port.operEdge = false;
  port.rcvdRSTP = true;
  port.edgeDelayWhile = heard.last + MIGRATE_TIME * SECOND;
  p.pim = 'CURRENT';
  if (compareVectors(p.designatedPriority, vector) < 0) {
    p.infoIs = 'Mine';
    p.portPriority = p.designatedPriority;
    p.portTimes = p.designatedTimes;
    p.agreed = true;
    return true;
  }
  p.infoIs = 'Received';
  p.msgPriority = p.portPriority = vector;
  p.msgTimes = p.portTimes = times;
  p.rcvdInfoWhile = heard.last + 3 * times.hello * SECOND;
  return wholeSeconds(times.messageAge) + 1 <= times.maxAge;
}

/** What the machines did on the way is long past: nothing is told, no timer runs. */
export function forgetTheWay(bridge: Bridge): void {
  for (const port of bridge.ports) {
    const p = cist(port);
    port.newInfo = port.newInfoMsti = !port.portEnabled;
    p.tcWhile = bridge.now;
    // A port that nobody answers goes on asking (DESIGNATED_PROPOSE), unless it has been an edge port from the start.
    if (port.portEnabled && port.operEdge) p.proposing = !port.adminEdge;
    if (port.portEnabled && speaks(port)) port.sentBpdu = bpduOf(port);
  }
}

/** Whether every port has come to where it stays, with the root port that was foreseen. */
export const hasComeToRest = ({ ports, trees }: Bridge, rootPort: number): boolean =>
  (trees[0]!.rootPort?.port.index ?? -1) === rootPort &&
  ports.every((port) => {
    const p = cist(port);
    if (!port.portEnabled) return true;
    if (p.updtInfo || p.role !== p.selectedRole) return false;
    return p.role === 'root' || p.role === 'designated' ? p.forwarding : !p.learning;
  });

/** When a port sent its latest hello, which is due again as its timer says. */
export const lastHello = (port: BridgePort): Micros => port.helloWhen - helloTime(cist(port)) * SECOND;
