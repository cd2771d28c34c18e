/** Port Transmit machine, PTX (IEEE 802.1Q-2018 13.34): one hello after the other, and no more than the hold count allows. */
import type { RoleCode } from '../bpdu';
import { SECOND } from '../entity';
import { cist, helloTime, inSeconds, isZero, type BridgePort, type TreePort } from './state';

const ready = (p: TreePort): boolean => p.selected && !p.updtInfo;

export function portTransmit(port: BridgePort): boolean {
  const { bridge } = port;
  const p = cist(port);
  // Every second forgives one transmission (13.30).
  while (port.txCount > 0 && isZero(bridge, port.txTick)) {
    port.txCount -= 1;
    port.txTick += SECOND;
  }
  if (!port.portEnabled || !port.trees.every(ready)) return false;
  if (isZero(bridge, port.helloWhen)) {
    // TRANSMIT_PERIODIC, then IDLE
    const periodic = p.role === 'designated' || (p.role === 'root' && !isZero(bridge, p.tcWhile));
    port.newInfo ||= periodic;
    port.helloWhen = inSeconds(bridge, helloTime(p));
  }
  if (!port.newInfo || port.txCount >= bridge.txHoldCount) return false;
  if (port.sendRSTP) txRstp(p);
  else if (p.role === 'designated') txConfig(p);
  else if (p.role === 'root') txTcn(p);
  else return false;
  port.newInfo = false;
  if (port.txCount === 0) port.txTick = inSeconds(bridge, 1);
  port.txCount += 1;
  if (port.sendRSTP || p.role === 'designated') port.tcAck = false;
  return true;
}

/** 13.29 txRstp. What says the same as the BPDU before is the same object: whoever hears it need not read it again. */
function txRstp(p: TreePort): void {
  const { port } = p;
  const { bridge } = port;
  if (p.role === 'disabled') return;
  const tc = !isZero(bridge, p.tcWhile);
  const old = port.sentBpdu;
  const role = roleCode(p);
  if (!old || old.vector !== p.designatedPriority || old.times !== p.designatedTimes || old.role !== role || old.tc !== tc || old.proposal !== p.proposing || old.learning !== p.learning || old.forwarding !== p.forwarding || old.agreement !== p.agree) {
    port.sentBpdu = { kind: 'rst', vector: p.designatedPriority, times: p.designatedTimes, role, tc, proposal: p.proposing, learning: p.learning, forwarding: p.forwarding, agreement: p.agree };
  }
  bridge.around.transmit(port.index, port.sentBpdu!);
}

const roleCode = ({ role }: TreePort): RoleCode => (role === 'root' ? 'root' : role === 'designated' ? 'designated' : 'alternate');

/** 13.29 txConfig. */
function txConfig(p: TreePort): void {
  const { port } = p;
  port.bridge.around.transmit(port.index, { kind: 'config', vector: p.designatedPriority, times: p.designatedTimes, tc: !isZero(port.bridge, p.tcWhile), tcAck: port.tcAck });
}

/** 13.29 txTcn. */
const txTcn = (p: TreePort): void => p.port.bridge.around.transmit(p.port.index, { kind: 'tcn' });
