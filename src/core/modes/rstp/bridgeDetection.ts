/** Bridge Detection machine, BDM (IEEE 802.1Q-2018 13.33): a port that hears no bridge for a while is an edge port. */
import { cist, isZero, type BridgePort, type TreePort } from './state';

/** A port that takes no BPDU in cannot tell (its edgeDelayWhile stays at Migrate Time, 13.31); one that has lost its bridge is none, if loop guard says so. */
const mayBeEdge = (p: TreePort): boolean => p.proposing && p.port.enableBPDUrx && !p.loopHeld && !p.checkHeld;

export function bridgeDetection(port: BridgePort): boolean {
  const { adminEdge, autoEdge, portEnabled, operEdge, sendRSTP } = port;
  // EDGE and NOT_EDGE are told apart by operEdge itself: a BPDU that clears it leaves EDGE.
  const becomes =
    (!portEnabled && adminEdge) ||
    (portEnabled && isZero(port.bridge, port.edgeDelayWhile) && autoEdge && sendRSTP && mayBeEdge(cist(port)));
  const leaves = !portEnabled && !adminEdge;
  if (!operEdge && becomes) {
    port.operEdge = true;
    return true;
  }
  if (operEdge && leaves) {
    port.operEdge = false;
    return true;
  }
  return false;
}
