/** Port Role Selection machine, PRS (IEEE 802.1Q-2018 13.36): the root of a tree as the bridge knows it, and a role for each port. */
import { compareVectors, ownVector, sameTimes, type Times, type Vector } from '../vector';
import type { TreeBridge, TreePort } from './state';

export function portRoleSelection(tree: TreeBridge): boolean {
  if (!tree.ports.some((p) => p.reselect)) return false;
  for (const p of tree.ports) p.reselect = false; // clearReselectTree
  updtRolesTree(tree);
  for (const p of tree.ports) p.selected = true; // setSelectedTree
  return true;
}

/** 13.29 updtRolesTree. */
function updtRolesTree(tree: TreeBridge): void {
  const own = ownVector(tree.bridgeIdentifier, 0);
  let best: Vector = own;
  let times: Times = tree.bridge.bridgeTimes;
  let rootPort: TreePort | null = null;
  for (const p of tree.ports) {
    if (p.infoIs !== 'Received' || p.portPriority.bridge === tree.bridgeIdentifier) continue;
    const path: Vector = { ...p.portPriority, externalCost: p.portPriority.externalCost + p.pathCost };
    const order = compareVectors(path, best);
    if (order > 0 || (order === 0 && rootPort !== null && p.portId >= rootPort.portId)) continue;
    best = path;
    rootPort = p;
    times = { ...p.portTimes, messageAge: p.portTimes.messageAge + 1 };
  }
  tree.rootPriority = best;
  tree.rootPort = rootPort;
  if (!sameTimes(tree.rootTimes, times)) tree.rootTimes = times;
  const designated: Times = { ...tree.rootTimes, hello: tree.bridge.bridgeTimes.hello };
  for (const p of tree.ports) {
    const vector: Vector = { root: best.root, externalCost: best.externalCost, regionalRoot: tree.bridgeIdentifier, internalCost: 0, bridge: tree.bridgeIdentifier, port: p.portId };
    if (compareVectors(p.designatedPriority, vector) !== 0) p.designatedPriority = vector;
    if (!sameTimes(p.designatedTimes, designated)) p.designatedTimes = designated;
    select(p, p === rootPort);
  }
}

function select(p: TreePort, isRoot: boolean): void {
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
      if (compareVectors(p.portPriority, p.designatedPriority) !== 0 || !sameTimes(p.portTimes, p.designatedTimes)) p.updtInfo = true;
      return;
    case 'Received':
      if (isRoot) p.selectedRole = 'root';
      else if (compareVectors(p.designatedPriority, p.portPriority) < 0) {
        p.selectedRole = 'designated';
        p.updtInfo = true;
        return;
      } else p.selectedRole = p.portPriority.bridge === p.tree.bridgeIdentifier ? 'backup' : 'alternate';
      p.updtInfo = false;
  }
}
