/** RSTP as an entity of a switch: every machine of every port runs until none of them moves (IEEE 802.1Q-2018 13.24). */
import type { Bpdu } from '../bpdu';
import { SECOND, type EntitySettings, type Micros, type ProtocolEntity, type RunRole, type RunState, type Surroundings } from '../entity';
import { bridgeDetection } from './bridgeDetection';
import { portInformation } from './portInformation';
import { portProtocolMigration } from './portProtocolMigration';
import { portReceive } from './portReceive';
import { portRoleSelection } from './portRoleSelection';
import { portRoleTransitions } from './portRoleTransitions';
import { portStateTransition } from './portStateTransition';
import { portTransmit } from './portTransmit';
import { updtRcvdInfoWhile } from './procedures';
import { HELD, MIGRATE_TIME, cist, createBridge, inSeconds, type Bridge, type BridgePort } from './state';
import { topologyChange } from './topologyChange';

/** More rounds than any network needs: a machine that never rests is a fault of ours. */
const MOST_ROUNDS = 10_000;

/** An RSTP entity, as at BEGIN: no port has signal yet. */
export function rstpEntity(settings: EntitySettings, around: Surroundings): ProtocolEntity {
  return new RstpEntity(createBridge(settings, around));
}

class RstpEntity implements ProtocolEntity {
  due: Micros = Infinity;
  /** When a timer other than a hello reaches zero, or may. */
  private machinesDue: Micros = Infinity;
  constructor(private readonly bridge: Bridge) {}

  receive(port: number, bpdu: Bpdu): void {
    const to = this.bridge.ports[port]!;
    if (!to.portEnabled || this.repeats(to, bpdu)) return;
    to.rcvdBpdu = bpdu;
    this.run();
  }

  /** A hello that says nothing new to a port at rest: only its information lives on (13.35 REPEATED_DESIGNATED), no machine moves. */
  private repeats(to: BridgePort, bpdu: Bpdu): boolean {
    const p = cist(to);
    if (bpdu.kind !== 'rst' || bpdu.role !== 'designated' || bpdu.proposal || bpdu.tc || !to.sendRSTP || to.operEdge || p.infoIs !== 'Received') return false;
    if (bpdu.vector !== p.portPriority || bpdu.times !== p.portTimes) return false;
    this.bridge.now = this.bridge.around.now();
    if (p.rcvdInfoWhile <= this.bridge.now) return false; // it is about to age
    updtRcvdInfoWhile(p);
    to.edgeDelayWhile = inSeconds(this.bridge, MIGRATE_TIME);
    return true;
  }

  wake(): void {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    if (this.machinesDue <= bridge.now) {
      // Hellos have put off what this waited for, more often than not.
      this.machinesDue = machinesDue(bridge, -Infinity);
      if (this.machinesDue <= bridge.now) return this.run();
    }
    for (const port of bridge.ports) while (portTransmit(port));
    this.due = Math.min(this.machinesDue, hellosDue(bridge));
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
    to.sendRSTP = true;
    this.run();
  }

  setPathCost(port: number, cost: number): void {
    cist(this.bridge.ports[port]!).pathCost = cost;
    this.reselect();
  }

  setPortId(port: number, id: number): void {
    cist(this.bridge.ports[port]!).portId = id;
    this.reselect();
  }

  setBridge(key: number): void {
    this.bridge.trees[0]!.bridgeIdentifier = key;
    this.reselect();
  }

  /** 13.26.2 and 13.27: another parameter means that roles are selected anew. */
  private reselect(): void {
    for (const p of this.bridge.trees[0]!.ports) {
      p.selected = false;
      p.reselect = true;
    }
    this.run();
  }

  role(port: number): RunRole {
    return cist(this.bridge.ports[port]!).role;
  }

  state(port: number): RunState {
    const p = cist(this.bridge.ports[port]!);
    return p.role === 'disabled' ? 'disabled' : p.forwarding ? 'forwarding' : p.learning ? 'learning' : 'discarding';
  }

  get resting(): boolean {
    const { bridge } = this;
    return bridge.ports.every((port) => !port.portEnabled || port.trees.every((p) => p.tcWhile <= bridge.now && (p.forwarding || (p.role !== 'root' && p.role !== 'designated'))));
  }

  get root(): number {
    return this.bridge.trees[0]!.rootPriority.root;
  }
  get rootPathCost(): number {
    return this.bridge.trees[0]!.rootPriority.externalCost;
  }
  get rootPort(): number {
    return this.bridge.trees[0]!.rootPort?.port.index ?? -1;
  }

  private run(): void {
    const { bridge } = this;
    bridge.now = bridge.around.now();
    for (let round = 0; ; round += 1) {
      if (round > MOST_ROUNDS) throw new Error('the machines of a bridge do not come to rest');
      let moved = false;
      for (const port of bridge.ports) {
        if (portReceive(port)) moved = true;
        if (portProtocolMigration(port)) moved = true;
        if (bridgeDetection(port)) moved = true;
        for (const p of port.trees) if (portInformation(p)) moved = true;
      }
      for (const tree of bridge.trees) if (portRoleSelection(tree)) moved = true;
      for (const tree of bridge.trees) {
        for (const p of tree.ports) {
          if (portRoleTransitions(p)) moved = true;
          if (portStateTransition(p)) moved = true;
          if (topologyChange(p)) moved = true;
        }
      }
      if (!moved) break;
    }
    // Sent once all has come to rest: one BPDU says it all.
    for (const port of bridge.ports) while (portTransmit(port));
    this.machinesDue = machinesDue(bridge, bridge.now);
    this.due = Math.min(this.machinesDue, hellosDue(bridge));
  }
}

/** The first moment after another at which some timer reaches zero that a machine waits for. */
function machinesDue(bridge: Bridge, after: Micros): Micros {
  let due: Micros = HELD;
  for (const port of bridge.ports) {
    if (!port.portEnabled) continue;
    if (port.ppm !== 'SENSING') due = sooner(due, port.mdelayWhile, after);
    if (!port.operEdge && cist(port).proposing) due = sooner(due, port.edgeDelayWhile, after);
    for (const p of port.trees) {
      if (p.infoIs === 'Received') due = sooner(due, p.rcvdInfoWhile, after);
      if (!p.forward) due = sooner(sooner(due, p.fdWhile, after), p.rbWhile, after);
      if (p.reRoot || !p.forward) due = sooner(due, p.rrWhile, after);
    }
  }
  return due;
}

const sooner = (due: Micros, timer: Micros, after: Micros): Micros => (timer > after && timer < due ? timer : due);

/** When the next BPDU may be sent. */
function hellosDue(bridge: Bridge): Micros {
  let due = Infinity;
  for (const port of bridge.ports) {
    if (!port.portEnabled) continue;
    if (port.helloWhen > bridge.now && port.helloWhen < due) due = port.helloWhen;
    if (port.newInfo && port.txCount > 0 && port.txTick > bridge.now && port.txTick < due) due = port.txTick;
  }
  return due;
}
