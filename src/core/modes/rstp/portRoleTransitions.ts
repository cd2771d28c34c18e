/** Port Role Transitions machine, PRT (IEEE 802.1Q-2018 13.37): how a port takes a role, proposes, agrees, and comes to forward. */
import { keepsLoopOpen } from './loopGuard';
import { allSynced, letGo, reRooted, setReRootTree, setSyncTree } from './procedures';
import { HELD, edgeDelay, forwardDelay, inSeconds, isCist, isZero, newInfoXst, type TreePort } from './state';

export function portRoleTransitions(p: TreePort): boolean {
  if (!p.selected || p.updtInfo) return false;
  if (p.role !== p.selectedRole) return takeRole(p);
  switch (p.prt) {
    case 'DISABLE_PORT':
      return !p.learning && !p.forwarding && disabledPort(p);
    case 'DISABLED_PORT':
      return (p.fdWhile !== HELD || p.sync || p.reRoot || !p.synced) && disabledPort(p);
    case 'BLOCK_PORT':
      return !p.learning && !p.forwarding && alternatePort(p);
    case 'ALTERNATE_PORT':
      return alternate(p);
    case 'ROOT_PORT':
      return root(p);
    case 'DESIGNATED_PORT':
      return designated(p);
    case 'MASTER_PORT':
      return master(p);
  }
}

function takeRole(p: TreePort): true {
  letGo(p);
  p.role = p.selectedRole;
  switch (p.role) {
    case 'disabled':
      p.learn = p.forward = false;
      p.prt = 'DISABLE_PORT';
      break;
    case 'alternate':
    case 'backup':
      p.learn = p.forward = false;
      p.prt = 'BLOCK_PORT';
      break;
    case 'root':
      p.rrWhile = HELD;
      p.prt = 'ROOT_PORT';
      break;
    case 'master':
      p.prt = 'MASTER_PORT';
      break;
    case 'designated':
      p.prt = 'DESIGNATED_PORT';
  }
  p.port.bridge.around.changed(p.port.index, p.tree.index);
  return true;
}

function disabledPort(p: TreePort): true {
  p.prt = 'DISABLED_PORT';
  p.fdWhile = HELD; // at Max Age
  p.synced = true;
  p.rrWhile = 0;
  p.sync = p.reRoot = false;
  return true;
}

function alternatePort(p: TreePort): true {
  p.prt = 'ALTERNATE_PORT';
  p.fdWhile = HELD; // at forwardDelay
  p.synced = true;
  p.rrWhile = 0;
  p.sync = p.reRoot = false;
  return true;
}

function alternate(p: TreePort): boolean {
  if (p.proposed && !p.agree) {
    setSyncTree(p); // ALTERNATE_PROPOSED
    p.proposed = false;
    return true;
  }
  if ((!p.agree && allSynced(p)) || (p.proposed && p.agree)) {
    p.proposed = false; // ALTERNATE_AGREED
    p.agree = true;
    newInfoXst(p);
    return true;
  }
  if (p.role === 'backup' && p.rbWhile !== HELD) {
    p.rbWhile = HELD; // BACKUP_PORT, at twice Hello Time
    return true;
  }
  return (p.fdWhile !== HELD || p.sync || p.reRoot || !p.synced) && alternatePort(p);
}

function root(p: TreePort): boolean {
  const { bridge } = p.port;
  if (p.proposed && !p.agree) {
    setSyncTree(p); // ROOT_PROPOSED
    p.proposed = false;
    return true;
  }
  if ((!p.agree && allSynced(p)) || (p.proposed && p.agree)) {
    p.proposed = p.sync = false; // ROOT_AGREED
    p.agree = true;
    newInfoXst(p);
    return true;
  }
  if ((p.agreed && !p.synced) || (p.sync && p.synced)) {
    p.synced = true; // ROOT_SYNCED
    p.sync = false;
    return true;
  }
  if (!p.forward && !p.reRoot) {
    setReRootTree(p); // REROOT
    return true;
  }
  if (p.reRoot && p.forward) {
    p.reRoot = false; // REROOTED
    return true;
  }
  const may = isZero(bridge, p.fdWhile) || (p.port.rstpVersion && reRooted(p) && isZero(bridge, p.rbWhile));
  if (may && !p.learn) {
    p.fdWhile = inSeconds(bridge, forwardDelay(p)); // ROOT_LEARN
    p.learn = true;
    return true;
  }
  if (may && !p.forward) {
    p.fdWhile = 0; // ROOT_FORWARD
    p.forward = true;
    return true;
  }
  if (p.rrWhile !== HELD) {
    p.rrWhile = HELD; // ROOT_PORT, at FwdDelay
    return true;
  }
  return false;
}

function designated(p: TreePort): boolean {
  const { port } = p;
  const { bridge } = port;
  if (!p.forward && !p.agreed && !p.proposing && !port.operEdge) {
    p.proposing = true; // DESIGNATED_PROPOSE
    if (isCist(p.tree)) port.edgeDelayWhile = inSeconds(bridge, edgeDelay(port));
    newInfoXst(p);
    return true;
  }
  if (synced(p) || retired(p) || discard(p)) return true;
  if (keepsLoopOpen(p)) return false;
  if ((isZero(bridge, p.fdWhile) || p.agreed || port.operEdge) && (isZero(bridge, p.rrWhile) || !p.reRoot) && !p.sync) {
    if (!p.learn) {
      p.learn = true; // DESIGNATED_LEARN
      p.fdWhile = inSeconds(bridge, forwardDelay(p));
      return true;
    }
    if (!p.forward) {
      p.forward = true; // DESIGNATED_FORWARD
      p.fdWhile = 0;
      p.agreed = port.sendRSTP;
      return true;
    }
  }
  return false;
}

/** A boundary port that is the CIST's root port leads every instance out of the region. */
function master(p: TreePort): boolean {
  const { bridge } = p.port;
  if (p.proposed && !p.agree) {
    setSyncTree(p); // MASTER_PROPOSED
    p.proposed = false;
    return true;
  }
  if ((!p.agree && allSynced(p)) || (p.proposed && p.agree)) {
    p.proposed = p.sync = false; // MASTER_AGREED
    p.agree = true;
    return true;
  }
  if (synced(p) || retired(p) || discard(p)) return true;
  if (!isZero(bridge, p.fdWhile) && !allSynced(p)) return false;
  if (!p.learn) {
    p.learn = true; // MASTER_LEARN
    p.fdWhile = inSeconds(bridge, forwardDelay(p));
    return true;
  }
  if (!p.forward) {
    p.forward = true; // MASTER_FORWARD
    p.fdWhile = 0;
    p.agreed = p.port.sendRSTP;
    return true;
  }
  return false;
}

/** DESIGNATED_SYNCED, MASTER_SYNCED. */
function synced(p: TreePort): boolean {
  if (!(
    (!p.learning && !p.forwarding && !p.synced) ||
    (p.agreed && !p.synced) ||
    (p.port.operEdge && !p.synced) ||
    (p.sync && p.synced)
  ))
    return false;
  p.rrWhile = 0;
  p.synced = true;
  p.sync = false;
  return true;
}

/** DESIGNATED_RETIRED, MASTER_RETIRED. */
function retired(p: TreePort): boolean {
  if (!p.reRoot || !isZero(p.port.bridge, p.rrWhile)) return false;
  p.reRoot = false;
  return true;
}

/** DESIGNATED_DISCARD, MASTER_DISCARD. */
function discard(p: TreePort): boolean {
  const { port } = p;
  const must = (p.sync && !p.synced) || (p.reRoot && !isZero(port.bridge, p.rrWhile)) || p.disputed || keepsLoopOpen(p);
  if (!must || port.operEdge || (!p.learn && !p.forward)) return false;
  p.learn = p.forward = p.disputed = false;
  p.fdWhile = inSeconds(port.bridge, forwardDelay(p));
  return true;
}
