/** Port Transmit machine, PTX (IEEE 802.1Q-2018 13.34): one hello after the other, and no more than the hold count allows. */
import type { MstBpdu, MstiMessage, RoleCode, RstBpdu, RstFlags } from '../bpdu';
import { SECOND } from '../entity';
import { vectorOf } from '../vector';
import { cist, helloTime, inSeconds, isZero, type BridgePort, type TreePort } from './state';

export const ready = (p: TreePort): boolean => p.selected && !p.updtInfo;

export function portTransmit(port: BridgePort): boolean {
  const { bridge } = port;
  const p = cist(port);
  // Every second forgives one transmission (13.30).
  while (port.txCount > 0 && isZero(bridge, port.txTick)) {
    port.txCount -= 1;
    port.txTick += SECOND;
  }
  if (!port.portEnabled || !port.enableBPDUtx || !port.trees.every(ready)) return false;
  if (isZero(bridge, port.helloWhen)) {
    // TRANSMIT_PERIODIC, then IDLE
    port.newInfo ||= periodic(p);
    port.newInfoMsti ||= port.trees.some((tree) => tree !== p && periodic(tree)); // mstiDesignatedOrTCpropagatingRootPort
    port.helloWhen = inSeconds(bridge, helloTime(p));
  }
  if (!(port.newInfo || tellsInstances(port)) || port.txCount >= bridge.txHoldCount) return false;
  if (port.sendRSTP) txMstp(p);
  else if (port.newInfo && p.role === 'designated') txConfig(p);
  else if (port.newInfo && p.role === 'root') txTcn(p);
  else return false;
  port.newInfo = port.newInfoMsti = false;
  if (port.txCount === 0) port.txTick = inSeconds(bridge, 1);
  port.txCount += 1;
  if (port.sendRSTP || p.role === 'designated') port.tcAck = false;
  return true;
}

const periodic = (p: TreePort): boolean =>
  p.role === 'designated' || (p.role === 'root' && !isZero(p.port.bridge, p.tcWhile));

/** newInfoMsti and not mstiMasterPort: there is something to tell of instances, and somebody of the region to hear it. */
export const tellsInstances = (port: BridgePort): boolean =>
  port.newInfoMsti && port.trees.length > 1 && !port.trees.some((p) => p.role === 'master');

/** 13.29 txRstp and, for a bridge that belongs to a region, txMstp. */
function txMstp(p: TreePort): void {
  const { port } = p;
  if (p.role === 'disabled') return;
  port.sentBpdu = bpduOf(port);
  port.bridge.around.transmit(port.index, port.sentBpdu);
}

/** What a port says now. What says the same as the BPDU before is the same object: whoever hears it need not read it again. */
export function bpduOf(port: BridgePort): RstBpdu | MstBpdu {
  const { bridge, sentBpdu: old } = port;
  const p = cist(port);
  const said = flagsOf(p);
  const same =
    old !== null && sameFlags(old, said) && old.vector === p.designatedPriority && old.times === p.designatedTimes;
  const region = bridge.region;
  if (!region) return same ? old : { kind: 'rst', vector: p.designatedPriority, times: p.designatedTimes, ...said };
  const before = old?.kind === 'mst' ? old.instances : [];
  const instances = port.trees.slice(1).map((tree, i) => mstiMessage(tree, before[i]));
  if (same && instances.every((message, i) => message === before[i])) return old;
  return {
    kind: 'mst',
    configurationId: region.configurationId,
    vector: p.designatedPriority,
    times: p.designatedTimes,
    ...said,
    instances,
  };
}

/** Whether a port says something at each hello, whatever there is to tell (13.34 TRANSMIT_PERIODIC). */
export const speaks = (port: BridgePort): boolean => port.trees.some(periodic);

function mstiMessage(p: TreePort, old: MstiMessage | undefined): MstiMessage {
  const said = flagsOf(p);
  const { remainingHops } = p.designatedTimes;
  // 13.27 master: this bridge, or one that is heard through another port of the instance, has a way out of the region.
  const master =
    (p.role === 'root' || p.role === 'designated') &&
    p.tree.ports.some(
      (other) =>
        other.role === 'master' ||
        (other !== p && other.mastered && (other.role === 'root' || other.role === 'designated')),
    );
  if (
    old &&
    sameFlags(old, said) &&
    old.vector === p.designatedPriority &&
    old.remainingHops === remainingHops &&
    old.master === master
  )
    return old;
  return { kind: 'msti', mstid: p.tree.mstid, vector: p.designatedPriority, remainingHops, ...said, master };
}

const flagsOf = (p: TreePort): RstFlags => ({
  role: roleCode(p),
  tc: !isZero(p.port.bridge, p.tcWhile),
  proposal: p.proposing,
  learning: p.learning,
  forwarding: p.forwarding,
  agreement: p.agree,
});

const sameFlags = (a: RstFlags, b: RstFlags): boolean =>
  a.role === b.role &&
  a.tc === b.tc &&
  a.proposal === b.proposal &&
  a.learning === b.learning &&
  a.forwarding === b.forwarding &&
  a.agreement === b.agreement;

const roleCode = ({ role }: TreePort): RoleCode =>
  role === 'root' || role === 'designated' || role === 'master' ? role : 'alternate';

/** 13.29 txConfig: toward classic bridges the bridge itself stands where its region would (13.10). */
function txConfig(p: TreePort): void {
  const { port } = p;
  const { root, externalCost, bridge, port: id } = p.designatedPriority;
  port.bridge.around.transmit(port.index, {
    kind: 'config',
    vector: vectorOf(root, externalCost, bridge, 0, bridge, id),
    times: p.designatedTimes,
    tc: !isZero(port.bridge, p.tcWhile),
    tcAck: port.tcAck,
  });
}

/** 13.29 txTcn. */
const txTcn = (p: TreePort): void => p.port.bridge.around.transmit(p.port.index, { kind: 'tcn' });
