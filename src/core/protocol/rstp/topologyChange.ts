/** Topology Change machine, TCM (IEEE 802.1Q-2018 13.39): who is told that addresses may have moved, and what is forgotten. */
import { newTcWhile, setTcPropTree } from './procedures';
import type { TreePort } from './state';

export function topologyChange(p: TreePort): boolean {
  const { port } = p;
  const active = p.role === 'root' || p.role === 'designated' || p.role === 'master';
  const told = p.rcvdTc || port.rcvdTcn || port.rcvdTcAck;
  switch (p.tcm) {
    case 'INACTIVE':
      if (!p.learn) return clear(p);
      p.tcm = 'LEARNING';
      clear(p);
      return true;
    case 'LEARNING':
      if (active && p.forward && !port.operEdge) return detected(p);
      if (!active && !p.learn && !p.learning && !told) {
        p.tcm = 'INACTIVE';
        flush(p);
        p.tcWhile = 0;
        port.tcAck = false;
        return true;
      }
      return clear(p);
    case 'ACTIVE':
      if (!active || port.operEdge) {
        p.tcm = 'LEARNING';
        clear(p);
        return true;
      }
      if (port.rcvdTcn || p.rcvdTc) {
        if (port.rcvdTcn) newTcWhile(p); // NOTIFIED_TCN
        port.rcvdTcn = p.rcvdTc = false; // NOTIFIED_TC
        if (p.role === 'designated') port.tcAck = true;
        setTcPropTree(p);
        return true;
      }
      if (p.tcProp) {
        newTcWhile(p); // PROPAGATING
        flush(p);
        p.tcProp = false;
        return true;
      }
      if (port.rcvdTcAck) {
        p.tcWhile = 0; // ACKNOWLEDGED
        port.rcvdTcAck = false;
        return true;
      }
      return false;
  }
}

/** Flags that mean nothing where the port is not active. */
function clear(p: TreePort): boolean {
  const any = p.rcvdTc || p.tcProp || p.port.rcvdTcn || p.port.rcvdTcAck;
  p.rcvdTc = p.tcProp = p.port.rcvdTcn = p.port.rcvdTcAck = false;
  return any;
}

function detected(p: TreePort): true {
  p.tcm = 'ACTIVE';
  newTcWhile(p);
  setTcPropTree(p);
  p.port.newInfo = true;
  return true;
}

const flush = (p: TreePort): void => p.port.bridge.around.flush(p.port.index);
