/** Port Receive machine, PRX (IEEE 802.1Q-2018 13.31): takes a BPDU to the trees that it speaks of. */
import { sameConfiguration, type MstConfigurationId } from '../../wire/mstConfiguration';
import type { MstiMessage } from '../bpdu';
import { sameTimes, timesOf, vectorOf, type Vector } from '../vector';
import { updtRcvdInfoWhile } from './procedures';
import { MIGRATE_TIME, cist, inSeconds, instanceOf, type BridgePort, type TreePort } from './state';
import { saysNothingNew } from './steady';

/** 13.29 updtBPDUVersion. */
function updtBPDUVersion(port: BridgePort): void {
  const kind = port.rcvdBpdu?.kind;
  if (kind === 'rst' || kind === 'mst') port.rcvdRSTP = true;
  else port.rcvdSTP = true;
}

/** 13.29 fromSameRegion; a bridge that is forced to version 0 is of no region (13.7.2). */
const fromSameRegion = (port: BridgePort): boolean =>
  isOfRegion(port, port.rcvdBpdu?.kind === 'mst' ? port.rcvdBpdu.configurationId : null);

export const isOfRegion = (
  { rstpVersion, bridge: { region } }: BridgePort,
  configurationId: MstConfigurationId | null,
): boolean =>
  configurationId !== null &&
  rstpVersion &&
  region !== null &&
  sameConfiguration(configurationId, region.configurationId);

/** 13.29 rcvMsgs: every BPDU is a message for the CIST; of its own region also for the instances that it speaks of. */
function rcvMsgs(port: BridgePort): void {
  const bpdu = port.rcvdBpdu;
  if (!bpdu) return;
  const p = cist(port);
  p.rcvdMsg = bpdu;
  if (bpdu.kind === 'tcn') return;
  // What is heard again is the same object.
  if (bpdu.kind !== 'mst' || port.rcvdInternal) p.msgPriority = bpdu.vector;
  else if (port.heardBpdu !== bpdu) p.msgPriority = seenFromOutside(port, bpdu.vector);
  p.msgTimes = bpdu.times;
  if (bpdu.kind !== 'mst' || !port.rcvdInternal) return;
  const { instances, times } = bpdu;
  const { messageAge, maxAge, forwardDelay, hello } = times;
  for (let i = 0; i < instances.length; i += 1) {
    const message = instances[i]!;
    const own = instanceOf(port, message, i);
    if (!own) continue;
    if (repeats(own, message)) {
      updtRcvdInfoWhile(own); // REPEATED_DESIGNATED (13.35): no machine moves
      continue;
    }
    own.heardMsg = message;
    own.rcvdMsg = message;
    own.msgPriority = message.vector;
    const msgTimes = timesOf(messageAge, maxAge, forwardDelay, hello, message.remainingHops);
    if (!sameTimes(own.msgTimes, msgTimes)) own.msgTimes = msgTimes;
  }
}

/**
 * What an MST BPDU says to another region (13.10), or to a bridge that reads it as an RST BPDU: there the regional root stands for
 * the sender (14.4). Where version 0 is spoken the sender stands for its regional root, as in what it says there before long.
 */
export function seenFromOutside({ rstpVersion, bridge: { region } }: BridgePort, vector: Vector): Vector {
  const { root, externalCost, regionalRoot, bridge, port } = vector;
  if (!rstpVersion) return vectorOf(root, externalCost, bridge, 0, bridge, port);
  return vectorOf(root, externalCost, regionalRoot, 0, region ? bridge : regionalRoot, port);
}

/** Whether a message is the one that was read last, and the port holds what it says. */
const repeats = (p: TreePort, message: MstiMessage): boolean =>
  p.heardMsg === message &&
  message.role === 'designated' &&
  p.mastered === message.master &&
  saysNothingNew(p, message);

export function portReceive(port: BridgePort): boolean {
  if (!port.rcvdBpdu) return false;
  if (!port.portEnabled) {
    port.rcvdBpdu = null; // DISCARD
    return true;
  }
  for (const p of port.trees) if (p.rcvdMsg !== null) return false;
  updtBPDUVersion(port); // RECEIVE
  port.rcvdInternal = fromSameRegion(port);
  rcvMsgs(port);
  port.operEdge = false;
  port.heardBpdu = port.rcvdBpdu;
  port.rcvdBpdu = null;
  port.edgeDelayWhile = inSeconds(port.bridge, MIGRATE_TIME);
  return true;
}
