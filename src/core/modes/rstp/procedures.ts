/** Conditions and procedures that several machines share, under the clause's names (IEEE 802.1Q-2018 13.28 and 13.29). */
import { compareVectors, wholeSeconds } from '../vector';
import {
  HELD,
  forwardDelay,
  fwdDelay,
  helloTime,
  inSeconds,
  isCist,
  isZero,
  maxAge,
  newInfoXst,
  type Bridge,
  type TreePort,
} from './state';

/** 13.28: every port has the role that was selected for it, and all are synced, but for root ports or, asked of a master port, for itself. */
export const allSynced = (own: TreePort): boolean =>
  own.tree.ports.every(
    (p) =>
      p.selected &&
      p.role === p.selectedRole &&
      !p.updtInfo &&
      (p.synced || (own.role === 'master' ? p === own : p.role === 'root')),
  );

/** 13.28: no other port has been a root port of late. */
export const reRooted = (own: TreePort): boolean =>
  own.tree.ports.every((p) => p === own || isZero(p.port.bridge, p.rrWhile));

/** 13.29: better or the same as what the port has, of the kind that it has. */
export function betterorsameInfo(p: TreePort, newInfoIs: 'Received' | 'Mine'): boolean {
  if (p.infoIs !== newInfoIs) return false;
  return compareVectors(newInfoIs === 'Received' ? p.msgPriority : p.designatedPriority, p.portPriority) <= 0;
}

/** 13.29: the bridge's other ports are to come into step before one forwards. */
export function setSyncTree({ tree }: TreePort): void {
  for (const p of tree.ports) p.sync = true;
}

/** 13.29: another way to the CIST root, out of another region: instances come into step at the ports inside this one. */
export function syncMaster(bridge: Bridge): void {
  for (const { infoInternal, trees } of bridge.ports) {
    if (!infoInternal) continue;
    for (const p of trees.slice(1)) {
      p.agree = p.agreed = p.synced = false;
      p.sync = true;
    }
  }
}

/** 13.29: ports that were root ports of late are to stop forwarding. */
export function setReRootTree({ tree }: TreePort): void {
  for (const p of tree.ports) p.reRoot = true;
}

/** 13.29: the topology change goes out of every other port, unless it was heard where that is restricted. */
export function setTcPropTree(own: TreePort): void {
  if (own.port.restrictedTcn) return;
  for (const p of own.tree.ports) if (p !== own) p.tcProp = true;
}

/** 13.29: starts telling of a topology change. */
export function newTcWhile(p: TreePort): void {
  const { bridge, sendRSTP } = p.port;
  if (!isZero(bridge, p.tcWhile)) return;
  if (sendRSTP) {
    p.tcWhile = inSeconds(bridge, helloTime(p) + 1);
    newInfoXst(p);
  } else p.tcWhile = inSeconds(bridge, p.tree.rootTimes.maxAge + p.tree.rootTimes.forwardDelay);
}

/** 13.29: received information lives for three hellos, unless it is too old, or has come too far inside a region. */
export function updtRcvdInfoWhile(p: TreePort): void {
  const { messageAge, maxAge: age, hello, remainingHops } = p.portTimes;
  const lives = !isCist(p.tree) || p.port.infoInternal ? remainingHops > 1 : wholeSeconds(messageAge) + 1 <= age;
  p.rcvdInfoWhile = lives ? inSeconds(p.port.bridge, 3 * hello) : 0;
}

const NONE: readonly TreePort[] = [];

/** What a CIST message says to the instances too, where it comes from outside the region. */
function instancesOutside({ tree, port: { trees, rcvdInternal } }: TreePort): readonly TreePort[] {
  return isCist(tree) && !rcvdInternal && trees.length > 1 ? trees.slice(1) : NONE;
}

/** Flags are those of RST and MST BPDUs and of MSTI messages. */
const flagged = ({ rcvdMsg }: TreePort) =>
  rcvdMsg === null || rcvdMsg.kind === 'config' || rcvdMsg.kind === 'tcn' ? null : rcvdMsg;

/** 13.29: a designated port asks for agreement. */
export function recordProposal(p: TreePort): void {
  const message = flagged(p);
  if (message?.role === 'designated' && message.proposal) p.proposed = true;
  for (const instance of instancesOutside(p)) instance.proposed = p.proposed;
}

/** 13.29: the bridge at the other end has come into step; of an instance only where the CIST is the same on both sides. */
export function recordAgreement(p: TreePort): void {
  const message = flagged(p);
  const { rstpVersion, operPointToPointMAC } = p.port;
  p.agreed =
    message !== null && rstpVersion && operPointToPointMAC && message.agreement && (isCist(p.tree) || sameCist(p));
  if (p.agreed) p.proposing = false;
  for (const instance of instancesOutside(p)) {
    instance.agreed = p.agreed;
    instance.proposing = p.proposing;
  }
}

function sameCist({ port: { trees } }: TreePort): boolean {
  const { msgPriority: a, portPriority: b } = trees[0]!;
  return a.root === b.root && a.externalCost === b.externalCost && a.regionalRoot === b.regionalRoot;
}

/** 13.29: a worse bridge speaks for the segment too, and learns: it does not hear us. */
export function recordDispute(p: TreePort): void {
  if (!flagged(p)?.learning) return;
  for (const tree of [p, ...instancesOutside(p)]) {
    tree.disputed = true;
    tree.agreed = false;
  }
}

/** 13.29: whether the bridge at the other end has a way out of the region. */
export function recordMastered(p: TreePort): void {
  if (p.rcvdMsg?.kind === 'msti') p.mastered = p.port.operPointToPointMAC && p.rcvdMsg.master;
  for (const instance of instancesOutside(p)) instance.mastered = false;
}

/** 13.29: flags of the message that has come. */
export function setTcFlags(p: TreePort): void {
  const message = p.rcvdMsg;
  if (!message) return;
  if (message.kind === 'tcn') p.port.rcvdTcn = true;
  else if (message.tc) p.rcvdTc = true;
  if (message.kind === 'config' && message.tcAck) p.port.rcvdTcAck = true;
  if (message.kind === 'tcn' || message.tc) for (const instance of instancesOutside(p)) instance.rcvdTc = true;
}

/** Lets timers run that the machine of the former role kept at their full value (13.37). */
export function letGo(p: TreePort): void {
  const { bridge } = p.port;
  if (p.fdWhile === HELD) p.fdWhile = inSeconds(bridge, p.role === 'disabled' ? maxAge(p) : forwardDelay(p));
  if (p.rrWhile === HELD) p.rrWhile = inSeconds(bridge, fwdDelay(p));
  if (p.rbWhile === HELD) p.rbWhile = inSeconds(bridge, 2 * helloTime(p));
}
