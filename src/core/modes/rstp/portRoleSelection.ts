/** Port Role Selection machine, PRS (IEEE 802.1Q-2018 13.36): the root of a tree as the bridge knows it, and a role for each port. */
import { compareVectors, sameAddress, sameTimes, wholeSeconds, type Times, type Vector } from '../vector';
import { syncMaster } from './procedures';
import { bridgePriority, cist, isCist, type TreeBridge, type TreePort } from './state';

export function portRoleSelection(tree: TreeBridge): boolean {
  if (!tree.ports.some((p) => p.reselect)) return false;
  for (const p of tree.ports) p.reselect = false; // clearReselectTree
  updtRolesTree(tree);
  for (const p of tree.ports) p.selected = true; // setSelectedTree
  return true;
}

/** 13.29 updtRolesTree. */
function updtRolesTree(tree: TreeBridge): void {
  let best: Vector = bridgePriority(tree, 0);
  let times: Times = tree.bridge.bridgeTimes;
  let rootPort: TreePort | null = null;
  for (const p of tree.ports) {
    if (p.infoIs !== 'Received' || sameAddress(p.portPriority.bridge, tree.bridgeIdentifier) || atBoundary(p)) continue;
    const path = rootPathPriority(p);
    const order = compareVectors(path, best);
    if (order > 0 || (order === 0 && rootPort !== null && p.portId >= rootPort.portId)) continue;
    best = path;
    rootPort = p;
    times = inside(p)
      ? { ...p.portTimes, remainingHops: p.portTimes.remainingHops - 1 }
      : {
          ...p.portTimes,
          messageAge: wholeSeconds(p.portTimes.messageAge) + 1,
          remainingHops: tree.bridge.bridgeTimes.remainingHops,
        };
  }
  const old = tree.rootPriority;
  tree.rootPriority = best;
  tree.rootPort = rootPort;
  if (!sameTimes(tree.rootTimes, times)) tree.rootTimes = times;
  if (isCist(tree) && old.regionalRoot !== best.regionalRoot && (old.externalCost !== 0 || best.externalCost !== 0))
    syncMaster(tree.bridge);
  const designated: Times = { ...tree.rootTimes, hello: tree.bridge.bridgeTimes.hello };
  for (const p of tree.ports) {
    // 13.10: where a classic bridge is attached, the bridge stands in the place of its regional root too.
    const vector: Vector = {
      ...best,
      regionalRoot: isCist(tree) && !p.port.sendRSTP ? tree.bridgeIdentifier : best.regionalRoot,
      bridge: tree.bridgeIdentifier,
      port: p.portId,
    };
    if (compareVectors(p.designatedPriority, vector) !== 0) p.designatedPriority = vector;
    if (!sameTimes(p.designatedTimes, designated)) p.designatedTimes = designated;
    const before = p.selectedRole;
    select(p, p === rootPort);
    // Outside the region an instance's role follows the CIST's.
    if (isCist(tree) && p.selectedRole !== before)
      for (const instance of p.port.trees.slice(1)) instance.reselect = true;
  }
}

/** Whether what a port holds has come from the bridge's own region: of an instance nothing else does. */
const inside = (p: TreePort): boolean => !isCist(p.tree) || p.port.infoInternal;

/** 13.9, root path priority vector: external cost is added where a region is entered, internal cost inside. */
function rootPathPriority(p: TreePort): Vector {
  const { portPriority, pathCost, tree } = p;
  if (inside(p)) return { ...portPriority, internalCost: portPriority.internalCost + pathCost.internal };
  return {
    ...portPriority,
    externalCost: portPriority.externalCost + pathCost.external,
    regionalRoot: tree.bridgeIdentifier,
    internalCost: 0,
  };
}

const differs = (p: TreePort): boolean =>
  compareVectors(p.portPriority, p.designatedPriority) !== 0 || !sameTimes(p.portTimes, p.designatedTimes);

/** Of an instance: what the CIST hears through the port comes from outside of the region. */
const atBoundary = (p: TreePort): boolean =>
  !isCist(p.tree) && cist(p.port).infoIs === 'Received' && !p.port.infoInternal;

function select(p: TreePort, isRoot: boolean): void {
  const common = cist(p.port);
  if (p.infoIs !== 'Disabled' && atBoundary(p) && common.selectedRole !== 'designated') {
    p.selectedRole = common.selectedRole === 'root' ? 'master' : 'alternate';
    p.updtInfo = differs(p);
    return;
  }
  switch (p.infoIs) {
    case 'Disabled':
      p.selectedRole = 'disabled';
      return;
    case 'Aged':
      p.selectedRole = 'designated';
      p.updtInfo = true;
      return;
    case 'Mine':
      p.selectedRole = 'designated';
      if (differs(p)) p.updtInfo = true;
      return;
    case 'Received':
      if (isRoot) p.selectedRole = 'root';
      else if (compareVectors(p.designatedPriority, p.portPriority) < 0) {
        p.selectedRole = 'designated';
        p.updtInfo = true;
        return;
      } else p.selectedRole = sameAddress(p.portPriority.bridge, p.tree.bridgeIdentifier) ? 'backup' : 'alternate';
      p.updtInfo = false;
  }
}
