/** Bridge Detection machine, BDM (IEEE 802.1Q-2018 13.33): a port that hears no bridge for a while is an edge port. */
import { cist, isZero, type BridgePort } from './state';

export function bridgeDetection(port: BridgePort): boolean {
  const { adminEdge, autoEdge, portEnabled, operEdge, sendRSTP } = port;
  // EDGE and NOT_EDGE are told apart by operEdge itself: a BPDU that clears it leaves EDGE.
  const becomes =
    (!portEnabled && adminEdge) ||
    (portEnabled && isZero(port.bridge, port.edgeDelayWhile) && autoEdge && sendRSTP && cist(port).proposing);
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
