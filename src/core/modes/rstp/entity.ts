/** RSTP, and MSTP where the settings name a region, as an entity of a switch: every machine of every port runs until none of them moves (IEEE 802.1Q-2018 13.24). */
import type { Bpdu } from '../bpdu';
import {
  SECOND,
  type Beginning,
  type EntitySettings,
  type Heard,
  type Hello,
  type Micros,
  type Offer,
  type PortCost,
  type ProtocolEntity,
  type RunRole,
  type RunState,
  type Steady,
  type Surroundings,
} from '../entity';
import type { Vector } from '../vector';
import { bridgeDetection } from './bridgeDetection';
import { keepsLoopOpen } from './loopGuard';
import { portInformation } from './portInformation';
import { portProtocolMigration } from './portProtocolMigration';
import { portReceive } from './portReceive';
import { portRoleSelection } from './portRoleSelection';
import { portRoleTransitions } from './portRoleTransitions';
import { portStateTransition } from './portStateTransition';
import { tellsInstances, transmitAll } from './portTransmit';
import { forgetTheWay, hasComeToRest, hearAll, knewOf, lastHello, leadTo, offerOf } from './rest';
import {
  HELD,
  MIGRATE_TIME,
  cist,
  createBridge,
  isCist,
  touch,
  touchAll,
  type Bridge,
  type BridgePort,
  type TreePort,
} from './state';
import { catchUp, hellosOf, knows, liveOn } from './steady';
import { topologyChange } from './topologyChange';

/** More rounds than any network needs: a machine that never rests is a fault of ours. */
const MOST_ROUNDS = 10_000;

/** An RSTP or MSTP entity, as at BEGIN: no port has signal yet. */
export function rstpEntity(settings: EntitySettings, around: Surroundings): ProtocolEntity {
  return new RstpEntity(createBridge(settings, around));
}

class RstpEntity implements ProtocolEntity, Beginning, Steady {
  readonly beginning = this;
  readonly steady = this;
  due: Micros = Infinity;
  /** When a timer other than a hello reaches zero, or may. */
  private machinesDue: Micros = Infinity;
  /** When the machines ran last, HELD before: a timer that was at zero then moves none of them. */
  private ranAt: Micros = HELD;
  private readonly bridge: Bridge;
  /** Hellos are due, but need not be sent. */
  private hushed = false;

  constructor(bridge: Bridge) {
    this.bridge = bridge;
  }

  receive(port: number, bpdu: Bpdu): void {
    const to = this.bridge.ports[port]!;
    if (!to.portEnabled || !to.enableBPDUrx) return; // DISCARD (13.31)
    if (this.knows(port, bpdu)) return this.hear(to, this.bridge.now);
    to.rcvdBpdu = bpdu;
    to.touched = true;
    this.run();
  }

  wake(): void {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    if (this.machinesDue <= bridge.now) {
      // Hellos have put off what this waited for, more often than not.
      this.machinesDue = machinesDue(bridge, this.ranAt);
      if (this.machinesDue <= bridge.now) return this.run();
    }
    transmitAll(bridge);
    this.due = Math.min(this.machinesDue, this.hellosDue());
  }

  get runs(): number {
    return this.bridge.runs;
  }
  hellos(): readonly (Hello | null)[] | null {
    return hellosOf(this.bridge);
  }
  hush(): void {
    this.hushed = true;
    this.due = this.machinesDue;
  }
  speak(from: Micros): void {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    this.hushed = false;
    catchUp(bridge, from);
    this.due = Math.min(Math.max(this.machinesDue, bridge.now), this.hellosDue(from - 1));
  }
  knows(port: number, bpdu: Bpdu): boolean {
    this.bridge.now = this.bridge.around.now();
    return knows(this.bridge.ports[port]!, bpdu);
  }
  stirs(): boolean {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    this.due = this.machinesDue = machinesDue(bridge, this.ranAt);
    return this.due <= bridge.now;
  }
  hold(port: number): void {
    liveOn(this.bridge.ports[port]!, () => HELD);
  }
  letGo(port: number, at: Micros): void {
    const from = this.bridge.ports[port]!;
    this.hear(from, at);
    this.machinesDue = portDue(from, this.machinesDue, this.ranAt); // the others wait for what they did
    this.due = Math.min(this.due, this.machinesDue);
  }

  /** What a port knows comes again. */
  private hear(port: BridgePort, at: Micros): void {
    liveOn(port, (lifetime) => at + lifetime);
    port.edgeDelayWhile = at + MIGRATE_TIME * SECOND;
  }

  enable(port: number, on: boolean): void {
    const { bridge } = this;
    const to = bridge.ports[port]!;
    if (to.portEnabled === on) return;
    bridge.now = bridge.around.now();
    to.portEnabled = on;
    to.rcvdBpdu = null;
    // While a port is down these are kept at Migrate Time (13.31, 13.32); they count from now.
    to.edgeDelayWhile = to.mdelayWhile = bridge.now + MIGRATE_TIME * SECOND;
    to.ppm = 'CHECKING_RSTP';
    to.sendRSTP = to.rstpVersion;
    to.trees.forEach(touch);
    this.run();
  }

  setHeld(port: number, on: boolean): void {
    const to = this.bridge.ports[port]!;
    const had = to.portEnabled;
    this.enable(port, false);
    cist(to).checkHeld = on;
    if (on) to.operEdge = false; // it hears BPDUs
    this.enable(port, had);
  }

  setPathCost(port: number, cost: PortCost, tree = 0): void {
    this.bridge.ports[port]!.trees[tree]!.pathCost = cost;
    this.reselect(tree);
  }

  setPortId(port: number, id: number, tree = 0): void {
    this.bridge.ports[port]!.trees[tree]!.portId = id;
    this.reselect(tree);
  }

  setBridge(key: number, tree = 0): void {
    this.bridge.trees[tree]!.bridgeIdentifier = key;
    this.reselect(tree);
  }

  /** 13.26.2 and 13.27: another parameter means that roles are selected anew. */
  private reselect(tree: number): void {
    for (const p of this.bridge.trees[tree]!.ports) {
      p.selected = false;
      p.reselect = true;
      touch(p);
    }
    this.run();
  }

  role(port: number, tree = 0): RunRole {
    return this.bridge.ports[port]!.trees[tree]!.role;
  }

  state(port: number, tree = 0): RunState {
    const p = this.bridge.ports[port]!.trees[tree]!;
    return p.role === 'disabled' ? 'disabled' : p.forwarding ? 'forwarding' : p.learning ? 'learning' : 'discarding';
  }

  isHeld(port: number, tree = 0): boolean {
    return keepsLoopOpen(this.bridge.ports[port]!.trees[tree]!);
  }
  held(port: number): Vector {
    return cist(this.bridge.ports[port]!).portPriority;
  }
  inside(port: number): boolean {
    return this.bridge.ports[port]!.rcvdInternal;
  }

  get resting(): boolean {
    const { bridge } = this;
    const now = bridge.around.now();
    return bridge.ports.every(
      (port) =>
        !port.portEnabled ||
        port.trees.every(
          (p) =>
            p.tcWhile <= now &&
            (p.forwarding || keepsLoopOpen(p) || (p.role !== 'root' && p.role !== 'designated' && p.role !== 'master')),
        ),
    );
  }

  rootVector(tree = 0): Vector {
    return this.bridge.trees[tree]!.rootPriority;
  }
  rootPort(tree = 0): number {
    return this.bridge.trees[tree]!.rootPort?.port.index ?? -1;
  }

  leadTo(port: number, offer: Offer, tree: number): void {
    leadTo(this.bridge.ports[port]!.trees[tree]!, offer);
  }
  offer(port: number, tree: number): Offer {
    return offerOf(this.bridge.ports[port]!.trees[tree]!);
  }
  lastHello(port: number): Micros {
    return lastHello(this.bridge.ports[port]!);
  }
  rest(heard: readonly Heard[]): boolean {
    const { bridge } = this;
    const foreseen = bridge.trees.map((_, tree) => this.rootPort(tree));
    if (!hearAll(bridge, heard)) return false;
    this.runMachines();
    forgetTheWay(bridge);
    this.schedule();
    return hasComeToRest(bridge, foreseen);
  }

  said(port: number): Bpdu | null {
    return this.bridge.ports[port]!.sentBpdu;
  }
  knew(port: number, bpdu: Bpdu): void {
    knewOf(this.bridge.ports[port]!, bpdu);
  }

  private run(): void {
    this.runMachines();
    // Sent once all has come to rest: one BPDU says it all.
    transmitAll(this.bridge);
    this.schedule();
  }

  private schedule(): void {
    this.machinesDue = machinesDue(this.bridge, this.bridge.now);
    this.due = Math.min(this.machinesDue, this.hellosDue());
  }

  /** When the next BPDU may be sent, after a moment. */
  private hellosDue(after = this.bridge.now): Micros {
    const { bridge } = this;
    let due = Infinity;
    for (const port of this.hushed ? [] : bridge.ports) {
      if (!port.portEnabled || !port.enableBPDUtx) continue;
      if (port.helloWhen > after && port.helloWhen < due) due = port.helloWhen;
      if ((port.newInfo || tellsInstances(port)) && port.txCount > 0 && port.txTick > bridge.now && port.txTick < due)
        due = port.txTick;
    }
    return due;
  }

  /** Runs the machines of all that is touched until none of them moves; a timer may have touched anything. */
  private runMachines(): void {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    if (this.machinesDue <= bridge.now) touchAll(bridge);
    this.ranAt = bridge.now;
    bridge.runs += 1;
    for (let round = 0, moved = true; moved; round += 1) {
      if (round > MOST_ROUNDS) throw new Error('the machines of a bridge do not come to rest');
      moved = false;
      for (const port of bridge.ports) if (port.touched && moveOfPort(port)) moved = true;
      for (const tree of bridge.trees) {
        if (!tree.touched || !portRoleSelection(tree)) continue;
        // The CIST's roles decide on those of instances.
        if (isCist(tree)) touchAll(bridge);
        else tree.ports.forEach(touch);
        moved = true;
      }
      for (const tree of bridge.trees) {
        if (!tree.touched) continue;
        tree.touched = false;
        for (const p of tree.ports) if (p.touched && moveOfTreePort(p)) moved = true;
      }
    }
  }
}

/** Runs the machines of a port once, and says whether one moved: then they are to run again, and those of the trees that it matters to. */
function moveOfPort(port: BridgePort): boolean {
  port.touched = false;
  const { operEdge, sendRSTP, infoInternal } = port;
  let moved = portReceive(port);
  if (portProtocolMigration(port)) moved = true;
  if (bridgeDetection(port)) moved = true;
  for (const p of port.trees) {
    if (!(p.touched || p.updtInfo || p.rcvdMsg !== null) || !portInformation(p)) continue;
    moved = true;
    touch(p);
    // What a CIST message says from outside of the region it says to every instance.
    if (isCist(p.tree) && !port.rcvdInternal) port.trees.forEach(touch);
  }
  if (operEdge !== port.operEdge || sendRSTP !== port.sendRSTP || infoInternal !== port.infoInternal)
    port.trees.forEach(touch);
  if (moved) port.touched = true;
  return moved;
}

/** Runs the machines of a port in a tree that come after its role is selected; where one moves, the tree's other ports may wait for it. */
function moveOfTreePort(p: TreePort): boolean {
  p.touched = false;
  let moved = portRoleTransitions(p);
  if (portStateTransition(p)) moved = true;
  if (topologyChange(p)) moved = true;
  if (!moved) return false;
  for (const other of p.tree.ports) other.touched = true;
  p.tree.touched = p.port.touched = true;
  return true;
}

/** The first moment after another at which some timer reaches zero that a machine waits for. */
function machinesDue(bridge: Bridge, after: Micros): Micros {
  let due: Micros = Infinity;
  for (const port of bridge.ports) due = portDue(port, due, after);
  return due;
}

/** The same of one port; `due` where that is sooner. */
function portDue(port: BridgePort, until: Micros, after: Micros): Micros {
  if (!port.portEnabled) return until;
  let due = until;
  if (port.ppm !== 'SENSING') due = sooner(due, port.mdelayWhile, after);
  if (!port.operEdge && cist(port).proposing) due = sooner(due, port.edgeDelayWhile, after);
  for (const p of port.trees) {
    if (p.infoIs === 'Received') due = sooner(due, p.rcvdInfoWhile, after);
    if (!p.forward) due = sooner(sooner(due, p.fdWhile, after), p.rbWhile, after);
    if (p.reRoot || !p.forward) due = sooner(due, p.rrWhile, after);
  }
  return due;
}

const sooner = (due: Micros, timer: Micros, after: Micros): Micros => (timer > after && timer < due ? timer : due);
