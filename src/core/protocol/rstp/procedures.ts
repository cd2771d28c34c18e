/** Conditions and procedures that several machines share, under the clause's names (IEEE 802.1Q-2018 13.28 and 13.29). */
import { compareVectors } from '../vector';
import { HELD, forwardDelay, fwdDelay, helloTime, inSeconds, isZero, maxAge, type TreePort } from './state';

/** 13.28: every port has the role that was selected for it, and all but root ports are synced. */
export const allSynced = ({ tree }: TreePort): boolean =>
  tree.ports.every((p) => p.selected && p.role === p.selectedRole && !p.updtInfo && (p.synced || p.role === 'root'));

/** 13.28: no other port has been a root port of late. */
export const reRooted = (own: TreePort): boolean => own.tree.ports.every((p) => p === own || isZero(p.port.bridge, p.rrWhile));

/** 13.29: better or the same as what the port has, of the kind that it has. */
export function betterorsameInfo(p: TreePort, newInfoIs: 'Received' | 'Mine'): boolean {
  if (p.infoIs !== newInfoIs) return false;
  return compareVectors(newInfoIs === 'Received' ? p.msgPriority : p.designatedPriority, p.portPriority) <= 0;
}

/** 13.29: the bridge's other ports are to come into step before one forwards. */
export function setSyncTree({ tree }: TreePort): void {
  for (const p of tree.ports) p.sync = true;
}

/** 13.29: ports that were root ports of late are to stop forwarding. */
export function setReRootTree({ tree }: TreePort): void {
  for (const p of tree.ports) p.reRoot = true;
}

/** 13.29: the topology change goes out of every other port. */
export function setTcPropTree(own: TreePort): void {
  for (const p of own.tree.ports) if (p !== own) p.tcProp = true;
}

/** 13.29: starts telling of a topology change. */
export function newTcWhile(p: TreePort): void {
  const { bridge, sendRSTP } = p.port;
  if (!isZero(bridge, p.tcWhile)) return;
  if (sendRSTP) {
    p.tcWhile = inSeconds(bridge, helloTime(p) + 1);
    p.port.newInfo = true;
  } else p.tcWhile = inSeconds(bridge, p.tree.rootTimes.maxAge + p.tree.rootTimes.forwardDelay);
}

/** 13.29: received information lives for three hellos, unless it is too old. */
export function updtRcvdInfoWhile(p: TreePort): void {
  const { messageAge, maxAge: age, hello } = p.portTimes;
  p.rcvdInfoWhile = messageAge + 1 <= age ? inSeconds(p.port.bridge, 3 * hello) : 0;
}

/** 13.29: a designated port asks for agreement. */
export function recordProposal(p: TreePort): void {
  const bpdu = p.rcvdMsg;
  if (bpdu?.kind === 'rst' && bpdu.role === 'designated' && bpdu.proposal) p.proposed = true;
}

/** 13.29: the bridge at the other end has come into step. */
export function recordAgreement(p: TreePort): void {
  const bpdu = p.rcvdMsg;
  const agrees = bpdu?.kind === 'rst' && p.port.operPointToPointMAC && bpdu.agreement;
  p.agreed = agrees;
  if (agrees) p.proposing = false;
}

/** 13.29: a worse bridge speaks for the segment too, and learns: it does not hear us. */
export function recordDispute(p: TreePort): void {
  const bpdu = p.rcvdMsg;
  if (bpdu?.kind !== 'rst' || !bpdu.learning) return;
  p.disputed = true;
  p.agreed = false;
}

/** 13.29: flags of the BPDU that has come. */
export function setTcFlags(p: TreePort): void {
  const bpdu = p.rcvdMsg;
  if (!bpdu) return;
  if (bpdu.kind === 'tcn') p.port.rcvdTcn = true;
  else if (bpdu.tc) p.rcvdTc = true;
  if (bpdu.kind === 'config' && bpdu.tcAck) p.port.rcvdTcAck = true;
}

/** Lets timers run that the machine of the former role kept at their full value (13.37). */
export function letGo(p: TreePort): void {
  const { bridge } = p.port;
  if (p.fdWhile === HELD) p.fdWhile = inSeconds(bridge, p.role === 'disabled' ? maxAge(p) : forwardDelay(p));
  if (p.rrWhile === HELD) p.rrWhile = inSeconds(bridge, fwdDelay(p));
  if (p.rbWhile === HELD) p.rbWhile = inSeconds(bridge, 2 * helloTime(p));
}

