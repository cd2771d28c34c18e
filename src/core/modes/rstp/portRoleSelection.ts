/** Port Role Selection machine, PRS (IEEE 802.1Q-2018 13.36): the root of a tree as the bridge knows it, and a role for each port. */
import {
  compareVectors,
  sameAddress,
  sameTimes,
  timesOf,
  vectorOf,
  wholeSeconds,
  type Times,
  type Vector,
} from '../vector';
import { syncMaster } from './procedures';
import { cist, isCist, type TreeBridge, type TreePort } from './state';

export function portRoleSelection(tree: TreeBridge): boolean {
  if (!tree.ports.some(asks)) return false;
  for (const p of tree.ports) p.reselect = false; // clearReselectTree
  updtRolesTree(tree);
  for (const p of tree.ports) p.selected = true; // setSelectedTree
  return true;
}

const asks = (p: TreePort): boolean => p.reselect;

/** 13.29 updtRolesTree. What comes out as it was stays the same object. */
function updtRolesTree(tree: TreeBridge): void {
  const { bridgeIdentifier, ports, rootPriority: old } = tree;
  const { bridgeTimes } = tree.bridge;
  const common = isCist(tree);
  let [root, externalCost, regionalRoot, internalCost] = [common ? bridgeIdentifier : 0, 0, bridgeIdentifier, 0];
  let [designatedBridge, designatedPort] = [bridgeIdentifier, 0];
  let rootPort: TreePort | null = null;
  for (const p of ports) {
    if (p.infoIs !== 'Received' || p.port.restrictedRole) continue;
    if (sameAddress(p.portPriority.bridge, bridgeIdentifier) || atBoundary(p)) continue;
    // 13.9, root path priority vector: external cost is added where a region is entered, internal cost inside.
    const held = p.portPriority;
    const within = inside(p);
    const external = within ? held.externalCost : held.externalCost + p.pathCost.external;
    const regional = within ? held.regionalRoot : bridgeIdentifier;
    const internal = within ? held.internalCost + p.pathCost.internal : 0;
    const order =
      held.root - root ||
      external - externalCost ||
      regional - regionalRoot ||
      internal - internalCost ||
      held.bridge - designatedBridge ||
      held.port - designatedPort;
    if (order > 0 || (order === 0 && rootPort !== null && p.portId >= rootPort.portId)) continue;
    root = held.root;
    externalCost = external;
    regionalRoot = regional;
    internalCost = internal;
    designatedBridge = held.bridge;
    designatedPort = held.port;
    rootPort = p;
  }
  if (!isVector(old, root, externalCost, regionalRoot, internalCost, designatedBridge, designatedPort))
    tree.rootPriority = vectorOf(root, externalCost, regionalRoot, internalCost, designatedBridge, designatedPort);
  tree.rootPort = rootPort;
  const times = rootPort ? timesThrough(rootPort) : bridgeTimes;
  if (!sameTimes(tree.rootTimes, times)) tree.rootTimes = times;
  if (common && old.regionalRoot !== regionalRoot && (old.externalCost !== 0 || externalCost !== 0))
    syncMaster(tree.bridge);
  const { messageAge, maxAge, forwardDelay, remainingHops } = tree.rootTimes;
  const designated = timesOf(messageAge, maxAge, forwardDelay, bridgeTimes.hello, remainingHops);
  for (const p of ports) {
    // 13.10: where version 0 is spoken, the bridge stands in the place of its regional root too.
    const itself = common && !p.port.sendRSTP;
    const regional = itself ? bridgeIdentifier : regionalRoot;
    const way = itself ? 0 : internalCost;
    if (!isVector(p.designatedPriority, root, externalCost, regional, way, bridgeIdentifier, p.portId))
      p.designatedPriority = vectorOf(root, externalCost, regional, way, bridgeIdentifier, p.portId);
    if (!sameTimes(p.designatedTimes, designated)) p.designatedTimes = designated;
    const before = p.selectedRole;
    select(p, p === rootPort);
    // Outside the region an instance's role follows the CIST's.
    if (common && p.selectedRole !== before)
      for (let i = 1; i < p.port.trees.length; i += 1) p.port.trees[i]!.reselect = true;
  }
}

const isVector = (
  vector: Vector,
  root: number,
  externalCost: number,
  regionalRoot: number,
  internalCost: number,
  bridge: number,
  port: number,
): boolean =>
  vector.root === root &&
  vector.externalCost === externalCost &&
  vector.regionalRoot === regionalRoot &&
  vector.internalCost === internalCost &&
  vector.bridge === bridge &&
  vector.port === port;

/** What is heard at the root port, a hop farther: inside of a region a hop less, else a second older. */
function timesThrough(p: TreePort): Times {
  const { messageAge, maxAge, forwardDelay, hello, remainingHops } = p.portTimes;
  return inside(p)
    ? timesOf(messageAge, maxAge, forwardDelay, hello, remainingHops - 1)
    : timesOf(wholeSeconds(messageAge) + 1, maxAge, forwardDelay, hello, p.tree.bridge.bridgeTimes.remainingHops);
}

/** Whether what a port holds has come from the bridge's own region: of an instance nothing else does. */
const inside = (p: TreePort): boolean => !isCist(p.tree) || p.port.infoInternal;

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
