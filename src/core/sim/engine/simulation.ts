/** The protocols of a whole network on one clock: a deterministic run of messages and timers, in microseconds. */
import type { BundleId, BridgePortId, TreeId } from '../../model/ids';
import { runsTrees, type Design } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import { SECOND, type Micros, type ProtocolEntity, type RunRole, type RunState } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Vector } from '../../modes/vector';
import { randomFrom } from '../../base/random';
import { compileNetwork, type Network } from '../../topology/network';
import { allApart, type Alike } from './alikeTrees';
import { bridgeKeys, type BridgeKeys } from './bridgeKeys';
import { Aggregation } from './aggregation';
import { bringToRest } from './atRest';
import { delayOf } from './delays';
import {
  entityOf,
  entitySettings,
  lifeOfInformation,
  settingsIn,
  settingCalls,
  type TreeSettings,
} from './entitySettings';
import { EventQueue } from './eventQueue';
import type { Cause } from '../trace/recording';
import { Muted } from './muted';
import { PortStates } from './portStates';
import { letsBpduThrough, letsThrough, speaksOtherwise, spokenIn, treesByEntity, type Spoken } from './places';
import { rankOf, type Event, type Running } from './running';
import { SteadyHellos, type Hearer } from './steadyHellos';
import { Telling } from './telling';
import { touchedSwitches } from './touched';
import type { Watch } from './watch';

/** Bundles that have moved no member for so long have negotiated; all have come to that by then. */
const NEGOTIATED: Micros = 4 * SECOND;
const BUNDLED_BY: Micros = 120 * SECOND;
const NOBODY: readonly number[] = [];
const TIMER: Cause = { kind: 'timer' };
const SIGNAL: Cause = { kind: 'signal' };
const SETTING: Cause = { kind: 'setting' };

interface SimulationOptions {
  /** Members of bundles that are single ports as yet. */
  readonly absent?: readonly number[];
  /** Trees that are run once and told as many. */
  readonly alike?: Alike;
  /** Runs every hello, also those that say nothing new. */
  readonly everyHello?: boolean;
}

export class Simulation {
  /** As it is now; switches and ports keep their indices. */
  network: Network;
  readonly keys: BridgeKeys;
  now: Micros = 0;
  /** When a state or role changed last. */
  lastChange: Micros = 0;
  /** How many events have happened. */
  events = 0;
  private readonly queue = new EventQueue<Event>();
  /** By tree, then by switch; one with several trees stands in each of them. */
  readonly running: (Running | null)[][];
  private readonly ports: PortStates;
  private readonly mute = new Muted();
  spoken: Spoken;
  /** By tree and switch: how long addresses are kept while a topology change is told (802.1D-1998 8.5.3.8); null as usual. */
  private readonly fast: (Micros | null)[][];
  readonly aggregation: Aggregation;
  private dirty = false;
  private cause: Cause = SIGNAL;
  /** The rank of the wake-up that happens now: those below it have happened at this moment; none where something else does. */
  private turn = Infinity;

  readonly trees: readonly TreeId[];
  private readonly watch: Watch;
  /** By tree, the one that is run in its stead. */
  private readonly runAs: Alike;
  private readonly telling: Telling;
  private readonly hellos: SteadyHellos;
  private readonly everyHello: boolean;
  /** By switch, when its first hello goes out after a start, as a share of the hello time. */
  private readonly offsets: Float64Array;

  constructor(
    network: Network,
    trees: readonly TreeId[],
    seed = 1,
    watch: Watch = {},
    { absent = [], alike = allApart(trees), everyHello = false }: SimulationOptions = {},
  ) {
    this.trees = trees;
    this.watch = watch;
    this.runAs = alike;
    this.telling = new Telling(trees, alike, watch);

    this.everyHello = everyHello;
    this.hellos = new SteadyHellos({
      now: () => this.now,
      hadItsTurn: ({ trees: all, switch: s }) => rankOf('wake', all[0], s) < this.turn,
      hearer: (from, port) => this.hearer(from, port),
      arrives: (at, { from, to, at: local, bpdu }) => this.onItsWay(at, from.trees[0]!, to!.ports[local]!, bpdu, from.switch),
      after: (running) => this.after(running),
      told: (t, { from, port, bpdu, held, period }, times) =>
        this.telling.sent(t, from.trees[0]!, port, bpdu, from.switch, () => held, times, period),
    });
    const { bundles } = network;
    if (absent.length > 0)
      network = compileNetwork(
        network.design,
        bundles.members.map((_, m) => (absent.includes(m) ? 'apart' : 'out')),
      );
    const { switches, ports } = network;
    this.network = network;
    this.spoken = spokenIn(network, trees);
    this.keys = bridgeKeys(switches);
    const random = randomFrom(seed);
    this.offsets = Float64Array.from(switches, random);
    this.running = trees.map(() => switches.map(() => null));
    this.fast = trees.map(() => switches.map(() => null));
    this.ports = new PortStates(trees.length, ports.length);
    this.aggregation = new Aggregation(network.design, absent, {
      now: () => this.now,
      transmit: (member, lacpdu) => this.negotiate(member, lacpdu),
      wakeAt: (t, end) => this.queue.push(t, { kind: 'lacp', end }, rankOf('lacp', 0, end)),
      changed: (member, now, turned) => {
        if (turned) this.lastChange = this.now;
        this.watch.member?.(this.now, member, now);
      },
    });
  }

  /** Switches every switch on that has power. */
  boot(): void {
    this.aggregation.boot();
    this.recompile(this.network.design);
    this.network.switches.forEach((sw, s) => sw.up && this.start(s));
    this.signal(this.network.ports.keys());
  }

  /**
   * Switches every switch on that has power, and goes on from where they come to rest: bundles first, by themselves. False
   * where it cannot be said beforehand; then another simulation is to boot.
   */
  beginAtRest(): boolean {
    this.aggregation.boot();
    this.recompile(this.network.design);
    while (!this.aggregation.resting || this.now - this.lastChange < NEGOTIATED) {
      if (this.now >= BUNDLED_BY) return false;
      this.runTo(this.now + SECOND);
    }
    this.network.switches.forEach((sw, s) => sw.up && this.start(s));
    if (!bringToRest(this)) return false;
    this.cause = SIGNAL;
    for (const all of this.running) for (const running of all) if (running) this.after(running);
    return true;
  }

  /** Runs up to a moment, everything that happens at it included; no farther than so many events take it. True where it got there. */
  runTo(until: Micros, most = Infinity): boolean {
    const { queue } = this;
    for (let count = 0; queue.next <= until; count += 1) {
      if (count >= most) return false;
      if (queue.next < this.now) throw new Error('something was put before the present');
      this.now = queue.next;
      this.events += 1;
      const event = queue.pop();
      this.turn = event.kind === 'wake' ? rankOf('wake', event.running.trees[0], event.running.switch) : -1;
      this.happen(event);
      this.turn = Infinity;
      // Members that move at one moment are one change of the network.
      if (this.aggregation.moved.size > 0 && queue.next > this.now)
        this.adopt(
          this.network.design,
          new Set(this.aggregation.movedOwners.map((id) => this.network.switchIndex.get(id)!)),
        );
      if (this.dirty && queue.next > this.now) this.passMoment();
    }
    this.now = Math.max(this.now, until);
    return true;
  }

  /** Does something at a moment to come. */
  at(t: Micros, act: () => void): void {
    this.queue.push(t, { kind: 'do', act }, rankOf('do'));
  }

  private passMoment(): void {
    this.dirty = false;
    this.watch.moment?.(this.now);
  }

  /** Goes over to another state of the design: cables, power, costs and priorities. The switches and their ports must be the same ones. */
  follow(design: Design): void {
    this.aggregation.follow(design);
    this.adopt(design);
  }

  /** A bundle has these ports from now on; with none it is taken apart. */
  setBundle(id: BundleId, ports: readonly BridgePortId[]): void {
    this.aggregation.setPorts(id, ports);
    this.adopt(this.network.design);
  }

  private recompile(design: Design): void {
    this.aggregation.moved.clear();
    const uses = this.aggregation.uses();
    this.watch.used?.(this.now, uses);
    this.network = compileNetwork(design, uses);
  }

  /** `only`: the switches that can have changed; null for all. */
  private adopt(design: Design, only: ReadonlySet<number> | null = null): void {
    const before = this.network;
    this.recompile(design);
    const next = this.network;
    const spoken = design === before.design ? this.spoken : spokenIn(next, this.trees);
    const turned = this.turned(before, spoken);
    this.hellos.rouseAt(touchedSwitches(before, next, turned));
    this.cause = SIGNAL;
    this.restart(before, turned, spoken);
    for (const [tree, all] of this.running.entries()) {
      if (this.runAs[tree] !== tree) continue;
      for (const running of all)
        if (running && !turned.includes(running.switch) && (only === null || only.has(running.switch)))
          this.reset(running, running.trees.indexOf(tree), before);
    }
    this.signal(
      only === null ? next.ports.keys() : Array.from(next.ports.keys()).filter((p) => only.has(next.owner[p]!)),
    );
    this.watch.signalled?.(this.now);
    this.dirty = true;
    if (this.queue.next > this.now) this.passMoment();
  }

  /** Switches whose power is another than before, or that speak otherwise. */
  private turned(before: Network, spoken: Spoken): number[] {
    return this.network.switches.flatMap((sw, s) =>
      sw.up !== before.switches[s]!.up ||
      speaksOtherwise([before.switches[s]!, this.spoken.regions[s]!], [sw, spoken.regions[s]!])
        ? [s]
        : [],
    );
  }

  /** Starts the protocol over where a switch has got power, or speaks otherwise than before, and ends it where it has lost power. */
  private restart(before: Network, turned: readonly number[], spoken: Spoken): void {
    for (const s of turned) if (before.switches[s]!.up) this.stop(s);
    this.spoken = spoken;
    for (const s of turned) if (this.network.switches[s]!.up) this.start(s);
  }

  /** Tells an entity of costs and priorities in one of its trees that are others now. */
  private reset(running: Running, own: number, before: Network): void {
    const { entity, switch: s, ports, trees } = running;
    this.cause = SETTING;
    const of = (network: Network): TreeSettings => this.settingsOf(network, trees[own]!, s, ports);
    const calls = settingCalls(entity, own, of(before), of(this.network));
    if (calls.length === 0) return;
    this.hellos.rouse(running);
    for (const call of calls) call();
    this.after(running);
  }

  /** What a port sends gets lost, or arrives again. */
  setMute(port: number, on: boolean): void {
    this.hellos.rouseAt(new Set([this.network.owner[port]!]));
    this.mute.set(port, on);
    this.watch.signalled?.(this.now);
    this.dirty = true;
  }

  /** Whether what a port sends reaches the other end. */
  carries = (port: number): boolean => this.mute.carries(this.network, port);

  /** Whether what goes out of a aggregationPort comes out of the cable. */
  arrives = (aggregationPort: number): boolean => this.mute.arrives(this.network, aggregationPort);

  /** The tree that decides where a VLAN's frames pass at a switch; -1 where none does. */
  treeFor = (s: number, vid: number): number => this.spoken.treeFor(s, vid);

  /** Whether frames of a VLAN pass a port now. */
  passes(vid: number, port: number): boolean {
    const { switches, owner, live, carried } = this.network;
    if (!live[port] || !carried[port]!.has(vid)) return false;
    if (!runsTrees(switches[owner[port]!]!)) return true;
    const tree = this.treeFor(owner[port]!, vid);
    return tree >= 0 && this.state(tree, port) === 'forwarding';
  }

  /**
   * Whether nothing moves and nothing will: every entity rests, and no information that is left from before can still be
   * alive unrepeated.
   */
  get rests(): boolean {
    return (
      this.now - this.lastChange >= lifeOfInformation(this.network) &&
      this.aggregation.resting &&
      this.running.every((all) => all.every((running) => running === null || running.entity.resting))
    );
  }

  /** How long a switch keeps the addresses of a VLAN while a topology change is told; null for as long as usual. */
  fastAgeing(s: number, vid: number): Micros | null {
    const tree = this.treeFor(s, vid);
    return tree < 0 ? null : this.fast[this.runAs[tree]!]![s]!;
  }

  /** Whether a port forwards in the tree that decides for a VLAN. */
  private readonly forwardsIn = (vid: number, port: number): boolean =>
    this.state(this.treeFor(this.network.owner[port]!, vid), port) === 'forwarding';

  state = (tree: number, port: number): RunState => this.ports.state(this.runAs[tree]!, port);
  role = (tree: number, port: number): RunRole => this.ports.role(this.runAs[tree]!, port);
  inTree = (tree: number, port: number): boolean => this.spoken.places[tree]![port]! >= 0;
  /** The entity of a switch that runs a tree, and the tree's place among its own; null where none does. */
  entity(tree: number, s: number): { readonly entity: ProtocolEntity; readonly own: number } | null {
    const run = this.runAs[tree]!;
    const running = this.running[run]![s];
    return running ? { entity: running.entity, own: running.trees.indexOf(run) } : null;
  }

  /** The path costs of a switch's ports in a tree, in the order of the ports: those of the region where it speaks to its region. */
  costs(of: number, s: number): number[] {
    const tree = this.runAs[of]!;
    const running = this.running[tree]![s];
    if (!running) return [];
    return this.settingsOf(this.network, tree, s, running.ports).ports.map(({ cost }, local) =>
      tree !== running.trees[0] || running.entity.inside(local) ? cost.internal : cost.external,
    );
  }

  private start(s: number): void {
    for (const trees of treesByEntity(this.network.switches[s]!, this.spoken.regions[s]!, this.trees)) {
      if (this.runAs[trees[0]!] !== trees[0]) continue;
      const { firstPort } = this.network;
      const places = this.spoken.places[trees[0]!]!;
      const ports: number[] = [];
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) if (places[p]! >= 0) ports.push(p);
      const running = this.entityFor(trees, s, ports);
      for (const tree of trees) this.running[tree]![s] = running;
    }
  }

  private stop(s: number): void {
    for (const [tree, all] of this.running.entries()) {
      const gone = all[s];
      if (!gone) continue;
      all[s] = null;
      this.fast[tree]![s] = null;
      for (const p of gone.ports) this.record(tree, p, 'disabled', 'disabled');
    }
  }

  private settingsOf(network: Network, tree: number, s: number, ports: readonly number[]): TreeSettings {
    return settingsIn(network, this.keys, this.trees[tree]!, s, ports);
  }

  private entityFor(trees: readonly number[], s: number, ports: readonly number[]): Running {
    const { network, keys, spoken } = this;
    const [tree] = trees as [number];
    const ids = trees.map((each) => this.trees[each]!);
    const [region, offset] = [spoken.regions[s]!, this.offsets[s]!];
    const settings = entitySettings({ network, keys, region, ids, s, ports, offset });
    const dirty = new Set<number>();
    const entity = entityOf(network.switches[s]!, settings, {
      now: () => this.now,
      transmit: (port, bpdu) => this.send(tree, ports[port]!, bpdu, s, NOBODY),
      changed: (port, own) => dirty.add(own * ports.length + port),
      flush: (port, own) => {
        this.dirty = true;
        this.telling.flushed(this.now, trees[own]!, ports[port]!);
      },
      fastAgeing: (seconds) => {
        this.watch.ageing?.(s);
        this.fast[tree]![s] = seconds === null ? null : seconds * SECOND;
        this.dirty = true;
      },
    });
    const unheard = ports.map(() => null);
    return { entity, trees, switch: s, ports, wakes: Infinity, dirty, unsent: null, unheard, hearing: 0, answered: -1, ranBefore: -1 };
  }

  private happen(event: Event): void {
    switch (event.kind) {
      case 'lacpdu':
        if (this.aggregation.bundles.members[event.member]!.macOperational)
          this.aggregation.arrive(event.member, event.lacpdu, event.from);
        return;
      case 'lacp':
        this.aggregation.wake(event.end);
        return;
      case 'arrive':
        this.arrive(event.tree, event.port, event.bpdu, event.origin, event.through);
        return;
      case 'wake':
        this.wake(event.running);
        return;
      case 'do':
        event.act();
    }
  }

  private wake(running: Running): void {
    if (running.wakes !== this.now || this.running[running.trees[0]!]![running.switch] !== running) return; // put off, or gone
    running.wakes = Infinity;
    this.cause = TIMER;
    const { entity } = running;
    if (running.unsent && !entity.steady!.stirs()) return this.after(running);
    this.hellos.rouse(running);
    const runs = entity.steady?.runs;
    entity.wake();
    this.after(running);
    if (runs === entity.steady?.runs && !this.everyHello) this.hellos.hush(running);
  }

  /** Puts an LACPDU on the cable of a member. */
  private negotiate(member: number, lacpdu: Lacpdu): void {
    const { members, ends } = this.aggregation.bundles;
    const { far, at, end } = members[member]!;
    const aggregationPort = this.network.portIndexOf(at.switch, at.port);
    this.watch.negotiated?.(this.now, member, lacpdu);
    if (far < 0 || (ends[end]!.owner.kind === 'switch' && this.mute.has(aggregationPort))) return;
    const arrival = this.now + delayOf(this.network, this.network.cable[aggregationPort]!);
    this.queue.push(arrival, { kind: 'lacpdu', member: far, lacpdu, from: member }, rankOf('lacpdu', 0, far));
  }

  /** Puts a BPDU on the cable of a port; `through` are the switches that have flooded it already. */
  private send(tree: number, port: number, bpdu: Bpdu, origin: number, through: readonly number[]): void {
    const to = this.network.far[port]!;
    this.telling.sent(this.now, tree, port, bpdu, origin, () => (to < 0 ? null : this.heldBy(tree, to)));
    if (to < 0 || !this.carries(port)) return;
    this.onItsWay(this.now + delayOf(this.network, this.network.link[port]!), tree, to, bpdu, origin, through);
  }

  private onItsWay(at: Micros, tree: number, port: number, bpdu: Bpdu, origin: number, through = NOBODY): void {
    this.queue.push(at, { kind: 'arrive', tree, port, bpdu, origin, through }, rankOf('arrive', tree, port));
  }

  /** Who hears what a port of an entity sends. */
  private hearer({ trees: [tree] }: Running, port: number): Hearer | null | undefined {
    const { far, owner, link } = this.network;
    const to = far[port]!;
    if (to < 0 || !this.carries(port)) return null;
    const [running, local] = [this.running[tree!]![owner[to]!], this.spoken.places[tree!]![to]!];
    if (running && local >= 0) return { running, local, delay: delayOf(this.network, link[port]!) };
    return letsThrough(this.network, this.trees[tree!]!, to) === 'never' ? null : undefined;
  }

  /** Tells whoever watches what is sent of the hellos up to now that were not run. */
  tellHellos(): void {
    this.hellos.tell();
  }

  /** The port priority vector of a port, where a bridge's entity has one. */
  private heldBy(tree: number, port: number): Vector | null {
    const running = this.running[tree]![this.network.owner[port]!];
    const local = this.spoken.places[tree]![port]!;
    return running && local >= 0 ? running.entity.held(local) : null;
  }

  private arrive(tree: number, port: number, bpdu: Bpdu, origin: number, through: readonly number[]): void {
    if (!this.network.live[port]) return; // the light went out meanwhile
    const { owner, firstPort } = this.network;
    const s = owner[port]!;
    const running = this.running[tree]![s];
    const local = this.spoken.places[tree]![port]!;
    if (running && local >= 0) {
      const { entity } = running;
      if (entity.steady?.knows(local, bpdu)) return running.unheard[local] ? undefined : entity.receive(local, bpdu);
      this.cause = { kind: 'bpdu', port, bpdu };
      this.hellos.rouse(running);
      entity.receive(local, bpdu);
      this.after(running);
      return;
    }
    const id = this.trees[tree]!;
    const floods = (p: number): boolean => letsBpduThrough(this.network, id, p, this.forwardsIn);
    if (!floods(port) || through.includes(s)) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (p !== port && this.network.live[p] && floods(p)) this.send(tree, p, bpdu, origin, [...through, s]);
  }

  /** Tells the entities which ports have signal now. */
  private signal(ports: Iterable<number>): void {
    this.cause = SIGNAL;
    for (const p of ports) {
      const live = this.network.live[p] === 1;
      for (const all of this.running) {
        const running = all[this.network.owner[p]!];
        const local = running ? this.spoken.places[running.trees[0]!]![p]! : -1;
        if (!running || local < 0) continue;
        running.entity.enable(local, live);
        this.after(running);
      }
    }
  }

  /** What an entity's run has changed, and when it wants to run again. */
  private after(running: Running): void {
    const { entity, trees, dirty, ports } = running;
    if (dirty.size > 0) {
      for (const each of dirty) {
        const [own, local] = [Math.floor(each / ports.length), each % ports.length];
        this.record(trees[own]!, ports[local]!, entity.state(local, own), entity.role(local, own));
      }
      dirty.clear();
    }
    this.hellos.answer(running);
    if (entity.due === running.wakes || entity.due === Infinity || ports.length === 0) return; // without a port there is nobody to tell
    running.wakes = entity.due;
    this.queue.push(entity.due, { kind: 'wake', running }, rankOf('wake', trees[0], running.switch));
  }

  private record(tree: number, port: number, to: RunState, role: RunRole): void {
    const from = this.ports.set(tree, port, to, role);
    if (from === null) return;
    this.lastChange = this.now;
    this.dirty = true;
    this.telling.changed({ t: this.now, tree, port, from, to, role, cause: this.cause });
  }
}
