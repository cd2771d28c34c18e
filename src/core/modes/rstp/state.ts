/**
 * The variables of RSTP and MSTP under the standard's names (IEEE 802.1Q-2018 13.25 to 13.27): of a bridge, of its trees,
 * of its ports, and of each port in each tree. RSTP is the CIST alone. Timers hold the moment at which they reach zero.
 */
import type { Bpdu, MstBpdu, MstiMessage, RstBpdu } from '../bpdu';
import {
  SECOND,
  type EntitySettings,
  type Micros,
  type PortCost,
  type PortSettings,
  type RegionSettings,
  type RunRole,
  type Surroundings,
} from '../entity';
import { ownVector, timesOf, vectorOf, type Times, type Vector } from '../vector';

/**
 * A timer that the machines keep at its full value: it counts from the moment at which they let go of it. A small integer
 * as moments are, before all of them: engines box fields that hold Infinity.
 */
export const HELD: Micros = -(2 ** 30);
/** Migrate Time (802.1Q-2018 table 13-5), seconds. */
export const MIGRATE_TIME = 3;

export type InfoIs = 'Disabled' | 'Aged' | 'Mine' | 'Received';
export type RcvdInfo =
  | 'SuperiorDesignatedInfo'
  | 'RepeatedDesignatedInfo'
  | 'InferiorDesignatedInfo'
  | 'InferiorRootAlternateInfo'
  | 'OtherInfo';

/** A port in one tree (13.27, per-tree part). */
export interface TreePort {
  readonly port: BridgePort;
  readonly tree: TreeBridge;
  /** ExternalPortPathCost and InternalPortPathCost. */
  pathCost: PortCost;
  portId: number;
  infoIs: InfoIs;
  role: RunRole;
  selectedRole: RunRole;
  agree: boolean;
  agreed: boolean;
  disputed: boolean;
  forward: boolean;
  forwarding: boolean;
  learn: boolean;
  learning: boolean;
  proposed: boolean;
  proposing: boolean;
  mastered: boolean;
  /** Loop guard holds it: BPDUs stopped coming while it kept a loop open. */
  loopHeld: boolean;
  /** A check holds it, for as long as it is told to. */
  checkHeld: boolean;
  rcvdMsg: Bpdu | MstiMessage | null;
  /** The latest message of the port's own region that was taken in. */
  heardMsg: MstiMessage | null;
  rcvdTc: boolean;
  reRoot: boolean;
  reselect: boolean;
  selected: boolean;
  sync: boolean;
  synced: boolean;
  tcProp: boolean;
  updtInfo: boolean;
  designatedPriority: Vector;
  designatedTimes: Times;
  msgPriority: Vector;
  msgTimes: Times;
  portPriority: Vector;
  portTimes: Times;
  fdWhile: Micros;
  rrWhile: Micros;
  rbWhile: Micros;
  tcWhile: Micros;
  rcvdInfoWhile: Micros;
  /** The states of the machines that run for each tree and port. */
  pim: 'DISABLED' | 'AGED' | 'CURRENT';
  prt:
    | 'DISABLE_PORT'
    | 'DISABLED_PORT'
    | 'ROOT_PORT'
    | 'DESIGNATED_PORT'
    | 'MASTER_PORT'
    | 'BLOCK_PORT'
    | 'ALTERNATE_PORT';
  pst: 'DISCARDING' | 'LEARNING' | 'FORWARDING';
  tcm: 'INACTIVE' | 'LEARNING' | 'ACTIVE';
  /** Something has changed that the machines that follow its role may act on. */
  touched: boolean;
}

/** A port of the bridge (13.27, the part that all trees share). */
export interface BridgePort {
  readonly index: number;
  readonly bridge: Bridge;
  /** The CIST first. */
  readonly trees: TreePort[];
  readonly adminEdge: boolean;
  readonly autoEdge: boolean;
  readonly operPointToPointMAC: boolean;
  readonly restrictedRole: boolean;
  readonly restrictedTcn: boolean;
  readonly enableBPDUrx: boolean;
  readonly enableBPDUtx: boolean;
  readonly rstpVersion: boolean;
  readonly loopGuard: boolean;
  portEnabled: boolean;
  operEdge: boolean;
  sendRSTP: boolean;
  mcheck: boolean;
  rcvdBpdu: Bpdu | null;
  /** The latest one that was sent. */
  sentBpdu: RstBpdu | MstBpdu | null;
  /** The latest one that was taken in whole. */
  heardBpdu: Bpdu | null;
  /** The message in hand, and the information that is held, come from the bridge's own region. */
  rcvdInternal: boolean;
  infoInternal: boolean;
  rcvdRSTP: boolean;
  rcvdSTP: boolean;
  rcvdTcn: boolean;
  rcvdTcAck: boolean;
  tcAck: boolean;
  newInfo: boolean;
  newInfoMsti: boolean;
  txCount: number;
  /** When the next of `txCount` is forgiven. */
  txTick: Micros;
  helloWhen: Micros;
  mdelayWhile: Micros;
  edgeDelayWhile: Micros;
  ppm: 'CHECKING_RSTP' | 'SELECTING_STP' | 'SENSING';
  /** Something has changed that its machines may act on. */
  touched: boolean;
}

/** A tree of the bridge (13.26, per-tree part). */
export interface TreeBridge {
  readonly bridge: Bridge;
  /** Its place among the bridge's trees; 0 is the CIST. */
  readonly index: number;
  /** 0 for the CIST. */
  readonly mstid: number;
  readonly ports: TreePort[];
  /** One of its ports is. */
  touched: boolean;
  bridgeIdentifier: number;
  rootPriority: Vector;
  rootTimes: Times;
  rootPort: TreePort | null;
}

export interface Bridge {
  readonly ports: BridgePort[];
  /** The CIST first. */
  readonly trees: TreeBridge[];
  /** Null for a bridge that speaks RST BPDUs: it is a region of its own. */
  readonly region: RegionSettings | null;
  readonly bridgeTimes: Times;
  readonly txHoldCount: number;
  readonly around: Surroundings;
  now: Micros;
  /** How often the machines have run. */
  runs: number;
}

/** The machines of a port in a tree are to run, and those of the port. */
export function touch(p: TreePort): void {
  p.touched = p.port.touched = p.tree.touched = true;
}
export function touchAll({ trees }: Bridge): void {
  for (const tree of trees) tree.ports.forEach(touch);
}

export const cist = (port: BridgePort): TreePort => port.trees[0]!;
export const isCist = (tree: TreeBridge): boolean => tree.index === 0;
/** A port in the instance that a message speaks of; bridges of a region tell of them in one order, as a rule. */
export function instanceOf({ trees }: BridgePort, { mstid }: MstiMessage, i: number): TreePort | undefined {
  const likely = trees[i + 1];
  return likely?.tree.mstid === mstid ? likely : trees.find(({ tree }) => !isCist(tree) && tree.mstid === mstid);
}
/** 13.27 newInfo of the CIST, newInfoMsti of an instance: there is something to tell. */
export function newInfoXst(p: TreePort): void {
  if (isCist(p.tree)) p.port.newInfo = true;
  else p.port.newInfoMsti = true;
}

/** Whether a timer has reached zero. */
export const isZero = (bridge: Bridge, timer: Micros): boolean => timer <= bridge.now && timer !== HELD;
export const inSeconds = (bridge: Bridge, seconds: number): Micros => bridge.now + seconds * SECOND;

/** Times by their names in the clause (13.28). */
export const helloTime = (p: TreePort): number => p.designatedTimes.hello;
export const fwdDelay = (p: TreePort): number => p.designatedTimes.forwardDelay;
export const maxAge = (p: TreePort): number => p.designatedTimes.maxAge;
/** Hello Time where RST BPDUs are sent, else Forward Delay. */
export const forwardDelay = (p: TreePort): number => (p.port.sendRSTP ? helloTime(p) : fwdDelay(p));
export const edgeDelay = (port: BridgePort): number => (port.operPointToPointMAC ? MIGRATE_TIME : maxAge(cist(port)));

/** A bridge with the CIST and, with MSTP, its instances; everything as at BEGIN. */
export function createBridge(settings: EntitySettings, around: Surroundings): Bridge {
  const { hello, maxAge: age, forwardDelay: delay, maxHops, txHold } = settings.times;
  const bridgeTimes = timesOf(0, age, delay, hello, maxHops);
  const bridge: Bridge = {
    ports: [],
    trees: [],
    region: settings.region,
    bridgeTimes,
    txHoldCount: txHold,
    around,
    now: around.now(),
    runs: 0,
  };
  for (const given of settings.ports) {
    bridge.ports.push({
      index: bridge.ports.length,
      bridge,
      trees: [],
      adminEdge: given.edge,
      autoEdge: given.autoEdge,
      operPointToPointMAC: given.pointToPoint,
      restrictedRole: given.restrictedRole,
      restrictedTcn: given.restrictedTcn,
      enableBPDUrx: given.enableBPDUrx,
      enableBPDUtx: given.enableBPDUtx,
      rstpVersion: given.rstpVersion,
      loopGuard: given.loopGuard,
      portEnabled: false,
      operEdge: given.edge,
      sendRSTP: given.rstpVersion,
      mcheck: false,
      rcvdBpdu: null,
      sentBpdu: null,
      heardBpdu: null,
      rcvdInternal: false,
      infoInternal: false,
      rcvdRSTP: false,
      rcvdSTP: false,
      rcvdTcn: false,
      rcvdTcAck: false,
      tcAck: false,
      newInfo: true,
      newInfoMsti: true,
      txCount: 0,
      txTick: 0,
      helloWhen: bridge.now + settings.offset,
      mdelayWhile: 0,
      edgeDelayWhile: 0,
      ppm: 'SENSING',
      touched: true,
    });
  }
  for (const tree of [
    { mstid: 0, bridge: settings.bridge, ports: settings.ports },
    ...(settings.region?.instances ?? []),
  ])
    addTree(bridge, tree.mstid, tree.bridge, tree.ports);
  return bridge;
}

function addTree(bridge: Bridge, mstid: number, bridgeIdentifier: number, ports: readonly PortSettings[]): void {
  const { bridgeTimes } = bridge;
  const tree: TreeBridge = {
    bridge,
    index: bridge.trees.length,
    mstid,
    ports: [],
    touched: true,
    bridgeIdentifier,
    rootPriority: NO_VECTOR,
    rootTimes: bridgeTimes,
    rootPort: null,
  };
  tree.rootPriority = bridgePriority(tree, 0);
  bridge.trees.push(tree);
  for (const port of bridge.ports) {
    const { id, cost } = ports[port.index]!;
    const vector = bridgePriority(tree, id);
    const treePort: TreePort = {
      port,
      tree,
      pathCost: cost,
      portId: id,
      infoIs: 'Disabled',
      role: 'disabled',
      selectedRole: 'disabled',
      agree: false,
      agreed: false,
      disputed: false,
      forward: false,
      forwarding: false,
      learn: false,
      learning: false,
      proposed: false,
      proposing: false,
      mastered: false,
      loopHeld: false,
      checkHeld: false,
      rcvdMsg: null,
      heardMsg: null,
      rcvdTc: false,
      reRoot: false,
      reselect: true,
      selected: false,
      sync: false,
      synced: true,
      tcProp: false,
      updtInfo: false,
      designatedPriority: vector,
      designatedTimes: bridgeTimes,
      msgPriority: vector,
      msgTimes: bridgeTimes,
      portPriority: vector,
      portTimes: bridgeTimes,
      fdWhile: HELD,
      rrWhile: 0,
      rbWhile: 0,
      tcWhile: 0,
      rcvdInfoWhile: 0,
      pim: 'DISABLED',
      prt: 'DISABLED_PORT',
      pst: 'DISCARDING',
      tcm: 'INACTIVE',
      touched: true,
    };
    port.trees.push(treePort);
    tree.ports.push(treePort);
  }
}

const NO_VECTOR = ownVector(0, 0);

/** 13.9, bridge priority vector: the bridge as its own root, seen at a port. */
export function bridgePriority(tree: TreeBridge, port: number): Vector {
  const { bridgeIdentifier: own } = tree;
  return vectorOf(isCist(tree) ? own : 0, 0, own, 0, own, port);
}
