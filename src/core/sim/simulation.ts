/** The protocols of a whole network on one clock: a deterministic run of messages and timers, in microseconds. */
import { methodOf } from '../design/costMethod';
import { treeVlan, type TreeId } from '../design/ids';
import type { Bpdu } from '../protocol/bpdu';
import { SECOND, type EntitySettings, type Micros, type ProtocolEntity, type RunRole, type RunState } from '../protocol/entity';
import { rstpEntity } from '../protocol/rstp/entity';
import { stpEntity } from '../protocol/stp/entity';
import { randomFrom } from '../random';
import { portIdentifier, portIdentifierValue, setBridgePriority, setPathCost, systemIdExtension } from '../tree/bridgeId';
import type { Network } from '../tree/network';
import { pathCostOf } from '../tree/pathCost';
import { belongs, partOf } from '../tree/trees';
import { bridgeKeys, type BridgeKeys } from './bridgeKeys';
import { EventQueue } from './eventQueue';
import { Medium } from './medium';

/** What a frame takes over a cable, and a BPDU in a switch before it is acted upon. */
export const LINK_DELAY: Micros = 5;
export const HANDLING: Micros = 1000;

/** A port of a tree took another state or role. */
export interface PortChange {
  readonly t: Micros;
  readonly tree: number;
  readonly port: number;
  readonly from: RunState;
  readonly to: RunState;
  readonly role: RunRole;
}

/** What may be watched while it runs. */
export interface Watch {
  readonly changed?: (change: PortChange) => void;
  readonly flushed?: (t: Micros, tree: number, port: number) => void;
  readonly sent?: (t: Micros, tree: number, port: number, bpdu: Bpdu) => void;
}

type Event =
  | { readonly is: 'arrive'; readonly tree: number; readonly port: number; readonly bpdu: Bpdu; readonly through: readonly number[] }
  | { readonly is: 'wake'; readonly running: Running }
  | { readonly is: 'do'; readonly act: () => void };

/** An entity in its place. */
interface Running {
  readonly entity: ProtocolEntity;
  readonly tree: number;
  readonly switch: number;
  /** Global indices of its ports. */
  readonly ports: readonly number[];
  /** The moment of the wake-up that counts. */
  wakes: Micros;
  readonly dirty: Set<number>;
}

export class Simulation {
  readonly medium: Medium;
  readonly keys: BridgeKeys;
  now: Micros = 0;
  /** When a state or role changed last. */
  lastChange: Micros = 0;
  /** How many events have happened. */
  events = 0;
  private readonly queue = new EventQueue<Event>();
  /** By tree, then by switch. */
  private readonly running: (Running | null)[][];
  /** By tree, then by port: its place in its entity, -1 where it is not in the tree. */
  private readonly localOf: Int32Array[];
  private readonly states: RunState[][];
  private readonly roles: RunRole[][];
  private readonly random: () => number;

  constructor(readonly network: Network, readonly trees: readonly TreeId[], seed = 1, private readonly watch: Watch = {}) {
    const { switches, ports, owner, carried } = network;
    this.medium = new Medium(network);
    this.keys = bridgeKeys(switches);
    this.random = randomFrom(seed);
    this.localOf = trees.map((tree) => {
      const local = new Int32Array(ports.length).fill(-1);
      const next = new Int32Array(switches.length);
      ports.forEach((_, p) => {
        const sw = switches[owner[p]!]!;
        if (sw.dialect !== 'off' && partOf({ ...sw, up: true }, tree) === 'bridge' && belongs(sw, carried[p]!, treeVlan(tree))) local[p] = next[owner[p]!]!++;
      });
      return local;
    });
    this.running = trees.map(() => switches.map(() => null));
    this.states = trees.map(() => ports.map(() => 'disabled'));
    this.roles = trees.map(() => ports.map(() => 'disabled'));
  }

  /** Switches every switch on that has power. */
  boot(): void {
    this.network.switches.forEach((_, s) => this.medium.switchUp[s] && this.start(s));
    this.signal(this.network.ports.keys());
  }

  /** Runs up to a moment, everything that happens at it included. */
  runTo(until: Micros): void {
    const { queue } = this;
    while (queue.next <= until) {
      this.now = queue.next;
      this.events += 1;
      this.happen(queue.pop());
    }
    this.now = Math.max(this.now, until);
  }

  /** Does something at a moment to come. */
  at(t: Micros, act: () => void): void {
    this.queue.push(t, { is: 'do', act });
  }

  cutOrRestore(link: number, up: boolean): void {
    this.medium.linkUp[link] = up;
    const { a, b } = this.network.design.links[link]!;
    this.signal([this.network.portIndexOf(a.switch, a.port), this.network.portIndexOf(b.switch, b.port)]);
  }

  powerOffOrOn(s: number, up: boolean): void {
    if (this.medium.switchUp[s] === up) return;
    const { firstPort, far } = this.network;
    this.medium.switchUp[s] = up;
    const own = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i);
    if (up) this.start(s);
    else this.stop(s);
    this.signal([...own, ...own.flatMap((p) => (far[p]! >= 0 ? [far[p]!] : []))]);
  }

  state(tree: number, port: number): RunState {
    return this.states[tree]![port]!;
  }
  role(tree: number, port: number): RunRole {
    return this.roles[tree]![port]!;
  }
  inTree(tree: number, port: number): boolean {
    return this.localOf[tree]![port]! >= 0;
  }
  entity(tree: number, s: number): ProtocolEntity | null {
    return this.running[tree]![s]?.entity ?? null;
  }

  private start(s: number): void {
    this.trees.forEach((_, tree) => {
      const ports = Array.from(this.localOf[tree]!.keys()).filter((p) => this.network.owner[p] === s && this.localOf[tree]![p]! >= 0);
      if (ports.length === 0) return;
      this.running[tree]![s] = this.entityFor(tree, s, ports);
    });
  }

  private stop(s: number): void {
    for (const [tree, all] of this.running.entries()) {
      const gone = all[s];
      if (!gone) continue;
      all[s] = null;
      for (const p of gone.ports) this.record(tree, p, 'disabled', 'disabled');
    }
  }

  private entityFor(tree: number, s: number, ports: readonly number[]): Running {
    const { network, trees } = this;
    const sw = network.switches[s]!;
    const id = trees[tree]!;
    const method = methodOf(network.design, sw);
    const { hello } = sw.timers;
    const settings: EntitySettings = {
      bridge: this.keys.keyOf(s, setBridgePriority(sw, id) + systemIdExtension(sw, id)), times: sw.timers, offset: Math.floor(this.random() * hello * SECOND),
      ports: ports.map((p) => {
        const port = network.ports[p]!;
        return { id: portIdentifierValue(portIdentifier(port, id, sw.dialect)), cost: setPathCost(port, id, sw.dialect) ?? pathCostOf(port.speed, method), edge: port.edge, pointToPoint: true };
      }),
    };
    const dirty = new Set<number>();
    const entity = (sw.dialect === 'stp' || sw.dialect === 'per-vlan-stp' ? stpEntity : rstpEntity)(settings, {
      now: () => this.now,
      transmit: (port, bpdu) => this.send(tree, ports[port]!, bpdu, []),
      changed: (port) => dirty.add(port),
      flush: (port) => this.watch.flushed?.(this.now, tree, ports[port]!),
      fastAgeing: () => undefined,
    });
    return { entity, tree, switch: s, ports, wakes: Infinity, dirty };
  }

  private happen(event: Event): void {
    switch (event.is) {
      case 'arrive':
        this.arrive(event.tree, event.port, event.bpdu, event.through);
        return;
      case 'wake': {
        const { running } = event;
        if (running.wakes !== this.now || this.running[running.tree]![running.switch] !== running) return; // put off, or gone
        running.wakes = Infinity;
        running.entity.wake();
        this.after(running);
        return;
      }
      case 'do':
        event.act();
    }
  }

  /** Puts a BPDU on the cable of a port; `through` are the switches that have flooded it already. */
  private send(tree: number, port: number, bpdu: Bpdu, through: readonly number[]): void {
    this.watch.sent?.(this.now, tree, port, bpdu);
    const to = this.network.far[port]!;
    if (to < 0 || !this.medium.live(port)) return;
    this.queue.push(this.now + LINK_DELAY + HANDLING, { is: 'arrive', tree, port: to, bpdu, through });
  }

  private arrive(tree: number, port: number, bpdu: Bpdu, through: readonly number[]): void {
    if (!this.medium.live(port)) return; // the light went out meanwhile
    const { owner, firstPort } = this.network;
    const s = owner[port]!;
    const running = this.running[tree]![s];
    const local = this.localOf[tree]![port]!;
    if (running && local >= 0) {
      running.entity.receive(local, bpdu);
      this.after(running);
      return;
    }
    if (!this.floods(tree, port) || through.includes(s)) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) if (p !== port && this.medium.live(p) && this.floods(tree, p)) this.send(tree, p, bpdu, [...through, s]);
  }

  /** Whether a port lets a tree's BPDUs through as any multicast: of a switch without spanning tree, or a standard bridge's in another VLAN, where it forwards. */
  private floods(tree: number, port: number): boolean {
    const { switches, owner, carried } = this.network;
    const sw = switches[owner[port]!]!;
    const id = this.trees[tree]!;
    const part = partOf({ ...sw, up: true }, id);
    if (part === 'bridge' || !belongs(sw, carried[port]!, treeVlan(id))) return false;
    return part === 'hub' || this.state(this.trees.findIndex((each) => treeVlan(each) === 1), port) === 'forwarding';
  }

  /** Tells the entities which ports have signal now. */
  private signal(ports: Iterable<number>): void {
    for (const p of ports) {
      const live = this.medium.live(p);
      for (const all of this.running) {
        const running = all[this.network.owner[p]!];
        const local = running ? this.localOf[running.tree]![p]! : -1;
        if (!running || local < 0) continue;
        running.entity.enable(local, live);
        this.after(running);
      }
    }
  }

  /** What an entity's run has changed, and when it wants to run again. */
  private after(running: Running): void {
    const { entity, tree, dirty, ports } = running;
    if (dirty.size > 0) {
      for (const local of dirty) this.record(tree, ports[local]!, entity.state(local), entity.role(local));
      dirty.clear();
    }
    if (entity.due === running.wakes || entity.due === Infinity) return;
    running.wakes = entity.due;
    this.queue.push(entity.due, { is: 'wake', running });
  }

  private record(tree: number, port: number, to: RunState, role: RunRole): void {
    const from = this.states[tree]![port]!;
    if (from === to && this.roles[tree]![port] === role) return;
    this.states[tree]![port] = to;
    this.roles[tree]![port] = role;
    this.lastChange = this.now;
    this.watch.changed?.({ t: this.now, tree, port, from, to, role });
  }
}
