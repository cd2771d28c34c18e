/** Port Transmit machine, PTX (IEEE 802.1Q-2018 13.34): one hello after the other, and no more than the hold count allows. */
import type { MstBpdu, MstiMessage, RoleCode, RstBpdu, RstFlags } from '../bpdu';
import { SECOND } from '../entity';
import { vectorOf } from '../vector';
import { cist, helloTime, inSeconds, isZero, type Bridge, type BridgePort, type TreePort } from './state';

export const ready = (p: TreePort): boolean => p.selected && !p.updtInfo;

function allReady({ trees }: BridgePort): boolean {
  for (const p of trees) if (!ready(p)) return false;
  return true;
}

/** Every port of a bridge sends what it has to say, as far as it may. */
export function transmitAll({ ports, now }: Bridge): void {
  for (const port of ports) if (port.newInfo || port.newInfoMsti || port.helloWhen <= now) while (portTransmit(port));
}

/** Every second forgives one transmission (13.30). */
export function forgive(port: BridgePort): void {
  while (port.txCount > 0 && isZero(port.bridge, port.txTick)) {
    port.txCount -= 1;
    port.txTick += SECOND;
  }
}

function portTransmit(port: BridgePort): boolean {
  const { bridge } = port;
  const p = cist(port);
  forgive(port);
  if (!port.portEnabled || !port.enableBPDUtx || !allReady(port)) return false;
  if (isZero(bridge, port.helloWhen)) {
    // TRANSMIT_PERIODIC, then IDLE
    port.newInfo ||= periodic(p);
    port.newInfoMsti ||= port.trees.length > 1 && port.trees.some((tree) => tree !== p && periodic(tree)); // mstiDesignatedOrTCpropagatingRootPort
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
  port.trees.length > 1 && port.newInfoMsti && !port.trees.some((p) => p.role === 'master');

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
  const same =
    old !== null && saysFlags(p, old) && old.vector === p.designatedPriority && old.times === p.designatedTimes;
  const region = bridge.region;
  if (!region)
    return same ? old : { kind: 'rst', vector: p.designatedPriority, times: p.designatedTimes, ...flagsOf(p) };
  const instances = instancesOf(port, old?.kind === 'mst' ? old.instances : NONE);
  if (same && old.kind === 'mst' && instances === old.instances) return old;
  return {
    kind: 'mst',
    configurationId: region.configurationId,
    vector: p.designatedPriority,
    times: p.designatedTimes,
    ...flagsOf(p),
    instances,
  };
}

const NONE: readonly MstiMessage[] = [];

/** What is said of each instance; the same list where that is what was said before. */
function instancesOf({ trees }: BridgePort, before: readonly MstiMessage[]): readonly MstiMessage[] {
  let instances: MstiMessage[] | null = before.length === trees.length - 1 ? null : [];
  for (let i = 1; i < trees.length; i += 1) {
    const message = mstiMessage(trees[i]!, before[i - 1]);
    if (!instances && message !== before[i - 1]) instances = before.slice(0, i - 1);
    instances?.push(message);
  }
  return instances ?? before;
}

/** Whether a port says something at each hello, whatever there is to tell (13.34 TRANSMIT_PERIODIC). */
export const speaks = (port: BridgePort): boolean => port.trees.some(periodic);

function mstiMessage(p: TreePort, old: MstiMessage | undefined): MstiMessage {
  const { remainingHops } = p.designatedTimes;
  // 13.27 master: this bridge, or one that is heard through another port of the instance, has a way out of the region.
  const master = isActive(p) && waysOut(p);
  if (
    old &&
    saysFlags(p, old) &&
    old.vector === p.designatedPriority &&
    old.remainingHops === remainingHops &&
    old.master === master
  )
    return old;
  return { kind: 'msti', mstid: p.tree.mstid, vector: p.designatedPriority, remainingHops, ...flagsOf(p), master };
}

const isActive = ({ role }: TreePort): boolean => role === 'root' || role === 'designated';

function waysOut(p: TreePort): boolean {
  for (const other of p.tree.ports)
    if (other.role === 'master' || (other !== p && other.mastered && isActive(other))) return true;
  return false;
}

const flagsOf = (p: TreePort): RstFlags => ({
  role: roleCode(p),
  tc: !isZero(p.port.bridge, p.tcWhile),
  proposal: p.proposing,
  learning: p.learning,
  forwarding: p.forwarding,
  agreement: p.agree,
});

/** Whether these are the flags that a port would send. */
const saysFlags = (p: TreePort, flags: RstFlags): boolean =>
  flags.role === roleCode(p) &&
  flags.tc === !isZero(p.port.bridge, p.tcWhile) &&
  flags.proposal === p.proposing &&
  flags.learning === p.learning &&
  flags.forwarding === p.forwarding &&
  flags.agreement === p.agree;

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
