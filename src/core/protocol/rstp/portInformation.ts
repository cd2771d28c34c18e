/** Port Information machine, PIM (IEEE 802.1Q-2018 13.35): whose information a port holds, and for how long. */
import { compareVectors, sameTimes } from '../vector';
import { betterorsameInfo, recordAgreement, recordDispute, recordProposal, setTcFlags, updtRcvdInfoWhile } from './procedures';
import { isZero, type RcvdInfo, type TreePort } from './state';

/** 13.29 rcvInfo: what kind of information a message is, against what the port has. */
export function rcvInfo(p: TreePort): RcvdInfo {
  const bpdu = p.rcvdMsg;
  if (!bpdu || bpdu.kind === 'tcn') return 'OtherInfo';
  const order = compareVectors(p.msgPriority, p.portPriority);
  if (bpdu.kind === 'rst' && bpdu.role !== 'designated') return bpdu.role !== 'master' && order >= 0 ? 'InferiorRootAlternateInfo' : 'OtherInfo';
  const sameSender = p.infoIs === 'Received' && p.msgPriority.bridge === p.portPriority.bridge && p.msgPriority.port === p.portPriority.port;
  if (order === 0 && sameTimes(p.msgTimes, p.portTimes)) return 'RepeatedDesignatedInfo';
  if (order < 0 || sameSender || order === 0) return 'SuperiorDesignatedInfo';
  return 'InferiorDesignatedInfo';
}

export function portInformation(p: TreePort): boolean {
  const { port } = p;
  if (!port.portEnabled) return p.infoIs !== 'Disabled' || p.rcvdMsg ? disabled(p) : false;
  if (p.pim === 'DISABLED' || (p.pim === 'CURRENT' && p.infoIs === 'Received' && isZero(port.bridge, p.rcvdInfoWhile) && !p.updtInfo && !p.rcvdMsg)) return aged(p);
  if (p.selected && p.updtInfo) return update(p);
  if (p.pim === 'CURRENT' && p.rcvdMsg && !p.updtInfo) return receive(p);
  return false;
}

function disabled(p: TreePort): true {
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

function update(p: TreePort): true {
  p.proposing = p.proposed = false;
  p.agreed = p.agreed && betterorsameInfo(p, 'Mine');
  p.synced = p.synced && p.agreed;
  p.portPriority = p.designatedPriority;
  p.portTimes = p.designatedTimes;
  p.updtInfo = false;
  p.infoIs = 'Mine';
  p.port.newInfo = true;
  p.pim = 'CURRENT';
  return true;
}

function receive(p: TreePort): true {
  switch (rcvInfo(p)) {
    case 'SuperiorDesignatedInfo':
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
  return true;
}
