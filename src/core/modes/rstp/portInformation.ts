/** Port Information machine, PIM (IEEE 802.1Q-2018 13.35): whose information a port holds, and for how long. */
import { compareVectors, sameSender, sameTimes } from '../vector';
import { holdOpenLoop, letLoopGo } from './loopGuard';
import {
  betterorsameInfo,
  recordAgreement,
  recordDispute,
  recordMastered,
  recordProposal,
  setTcFlags,
  updtRcvdInfoWhile,
} from './procedures';
import { isCist, isZero, newInfoXst, type RcvdInfo, type TreePort } from './state';

/** 13.29 rcvInfo: what kind of information a message is, against what the port has. */
export function rcvInfo(p: TreePort): RcvdInfo {
  const message = p.rcvdMsg;
  if (!message || message.kind === 'tcn') return 'OtherInfo';
  const order = compareVectors(p.msgPriority, p.portPriority);
  if (message.kind !== 'config' && message.role !== 'designated')
    return message.role !== 'master' && order >= 0 ? 'InferiorRootAlternateInfo' : 'OtherInfo';
  if (order === 0 && sameTimes(p.msgTimes, p.portTimes)) return 'RepeatedDesignatedInfo';
  if (order <= 0 || (p.infoIs === 'Received' && sameSender(p.msgPriority, p.portPriority)))
    return 'SuperiorDesignatedInfo';
  return 'InferiorDesignatedInfo';
}

export function portInformation(p: TreePort): boolean {
  const { port } = p;
  if (!port.portEnabled) return p.infoIs !== 'Disabled' || p.rcvdMsg ? disabled(p) : false;
  if (p.pim === 'DISABLED') return aged(p);
  if (outlived(p)) return outlive(p);
  if (p.selected && p.updtInfo) return update(p);
  if (p.pim !== 'CURRENT' || !p.rcvdMsg || p.updtInfo) return false;
  receive(p);
  // What has come too far is gone in this machine before another one acts on it.
  return outlived(p) ? outlive(p) : true;
}

const outlived = (p: TreePort): boolean =>
  p.pim === 'CURRENT' && p.infoIs === 'Received' && isZero(p.port.bridge, p.rcvdInfoWhile) && !p.updtInfo && !p.rcvdMsg;

function disabled(p: TreePort): true {
  letLoopGo(p);
  p.pim = 'DISABLED';
  p.rcvdMsg = null;
  p.proposing = p.proposed = p.agree = p.agreed = false;
  p.rcvdInfoWhile = 0;
  p.infoIs = 'Disabled';
  p.reselect = true;
  p.selected = false;
  return true;
}

function aged(p: TreePort): true {
  p.pim = 'AGED';
  p.infoIs = 'Aged';
  p.reselect = true;
  p.selected = false;
  return true;
}

function outlive(p: TreePort): true {
  holdOpenLoop(p);
  return aged(p);
}

function update(p: TreePort): true {
  p.proposing = p.proposed = false;
  p.agreed = p.agreed && betterorsameInfo(p, 'Mine');
  p.synced = p.synced && p.agreed;
  p.portPriority = p.designatedPriority;
  p.portTimes = p.designatedTimes;
  p.updtInfo = false;
  p.infoIs = 'Mine';
  newInfoXst(p);
  p.pim = 'CURRENT';
  return true;
}

function receive(p: TreePort): void {
  recordMastered(p);
  letLoopGo(p);
  switch (rcvInfo(p)) {
    case 'SuperiorDesignatedInfo':
      recordInternal(p);
      p.agreed = p.proposing = false;
      recordProposal(p);
      setTcFlags(p);
      p.agree = p.agree && betterorsameInfo(p, 'Received');
      p.portPriority = p.msgPriority;
      p.portTimes = p.msgTimes;
      updtRcvdInfoWhile(p);
      p.infoIs = 'Received';
      p.reselect = true;
      p.selected = false;
      break;
    case 'RepeatedDesignatedInfo':
      recordInternal(p);
      recordProposal(p);
      setTcFlags(p);
      updtRcvdInfoWhile(p);
      break;
    case 'InferiorDesignatedInfo':
      recordDispute(p);
      break;
    case 'InferiorRootAlternateInfo':
      recordAgreement(p);
      setTcFlags(p);
      break;
    case 'OtherInfo':
      if (p.rcvdMsg?.kind === 'tcn') setTcFlags(p);
  }
  p.rcvdMsg = null;
}

/** infoInternal := rcvdInternal; what it decides for the instances is decided anew. */
function recordInternal({ port, tree }: TreePort): void {
  if (!isCist(tree) || port.infoInternal === port.rcvdInternal) return;
  port.infoInternal = port.rcvdInternal;
  for (const p of port.trees) p.reselect = true;
}
