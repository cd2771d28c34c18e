/** Topology Change machine, TCM (IEEE 802.1Q-2018 13.39): who is told that addresses may have moved, and what is forgotten. */
import { newTcWhile, setTcPropTree } from './procedures';
import { isCist, newInfoXst, type TreePort } from './state';

export function topologyChange(p: TreePort): boolean {
  const { port } = p;
  const active = p.role === 'root' || p.role === 'designated' || p.role === 'master';
  // Notifications and acknowledgements are between the CISTs; instances are told as rcvdTc.
  const rcvdTcn = isCist(p.tree) && port.rcvdTcn;
  const rcvdTcAck = isCist(p.tree) && port.rcvdTcAck;
  switch (p.tcm) {
    case 'INACTIVE':
      if (!p.learn) return clear(p);
      p.tcm = 'LEARNING';
      clear(p);
      return true;
    case 'LEARNING':
      if (active && p.forward && !port.operEdge) return detected(p);
      if (!active && !p.learn && !p.learning && !p.rcvdTc && !rcvdTcn && !rcvdTcAck) {
        p.tcm = 'INACTIVE';
        flush(p);
        p.tcWhile = 0;
        if (isCist(p.tree)) port.tcAck = false;
        return true;
      }
      return clear(p);
    case 'ACTIVE':
      if (!active || port.operEdge) {
        p.tcm = 'LEARNING';
        clear(p);
        return true;
      }
      if (rcvdTcn || p.rcvdTc) {
        if (rcvdTcn) {
          newTcWhile(p); // NOTIFIED_TCN
          port.rcvdTcn = false;
        }
        p.rcvdTc = false; // NOTIFIED_TC
        if (isCist(p.tree) && p.role === 'designated') port.tcAck = true;
        setTcPropTree(p);
        return true;
      }
      if (p.tcProp) {
        newTcWhile(p); // PROPAGATING
        flush(p);
        p.tcProp = false;
        return true;
      }
      if (rcvdTcAck) {
        p.tcWhile = 0; // ACKNOWLEDGED
        port.rcvdTcAck = false;
        return true;
      }
      return false;
  }
}

/** Flags that mean nothing where the port is not active. */
function clear(p: TreePort): boolean {
  let any = p.rcvdTc || p.tcProp;
  p.rcvdTc = p.tcProp = false;
  if (isCist(p.tree)) {
    any ||= p.port.rcvdTcn || p.port.rcvdTcAck;
    p.port.rcvdTcn = p.port.rcvdTcAck = false;
  }
  return any;
}

function detected(p: TreePort): true {
  p.tcm = 'ACTIVE';
  newTcWhile(p);
  setTcPropTree(p);
  newInfoXst(p);
  return true;
}

const flush = (p: TreePort): void => p.port.bridge.around.flush(p.port.index, p.tree.index);
