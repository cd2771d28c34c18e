/** Port Receive machine, PRX (IEEE 802.1Q-2018 13.31): takes a BPDU to the trees that it speaks of. */
import { MIGRATE_TIME, inSeconds, type BridgePort } from './state';

/** 13.29 updtBPDUVersion. */
function updtBPDUVersion(port: BridgePort): void {
  if (port.rcvdBpdu?.kind === 'rst') port.rcvdRSTP = true;
  else port.rcvdSTP = true;
}

/** 13.29 rcvMsgs: an RST or configuration BPDU, or a notification, is a message for the CIST. */
function rcvMsgs(port: BridgePort): void {
  const bpdu = port.rcvdBpdu;
  const [p] = port.trees;
  if (!bpdu || !p) return;
  p.rcvdMsg = bpdu;
  if (bpdu.kind === 'tcn') return;
  p.msgPriority = bpdu.vector;
  p.msgTimes = bpdu.times;
}

export function portReceive(port: BridgePort): boolean {
  if (!port.rcvdBpdu) return false;
  if (!port.portEnabled) {
    port.rcvdBpdu = null; // DISCARD
    return true;
  }
  if (port.trees.some((p) => p.rcvdMsg !== null)) return false;
  updtBPDUVersion(port); // RECEIVE
  rcvMsgs(port);
  port.operEdge = false;
  port.rcvdBpdu = null;
  port.edgeDelayWhile = inSeconds(port.bridge, MIGRATE_TIME);
  return true;
}
