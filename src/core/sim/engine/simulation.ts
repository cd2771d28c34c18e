/** The protocols of a whole network on one clock: a deterministic run of messages and timers, in microseconds. */
import type { BundleId, BridgePortId, TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, RunRole, RunState } from '../../modes/entity';
import { randomFrom } from '../../base/random';
import { entitiesOf } from '../../topology/acting';
import { compileNetwork, type Network } from '../../topology/network';
import { withShut } from '../../topology/shut';
import type { BridgeKeys } from './bridgeKeys';
import { Aggregation, withAbsent } from './aggregation';
import { bringToRest } from './atRest';
import { lifeOfInformation, settingCalls, type TreeSettings } from './entitySettings';
import { Entities } from './entities';
import { Checks } from './checks';
import { Clock } from './clock';
import { Guards } from './guards';
import type { Cause } from '../trace/recording';
import { Medium } from './medium';
import { isEndOutside } from './outside';
import type { SimulationOptions } from './options';
import { letsFramesThrough, spokenIn, type Spoken } from './places';
import { ShownPorts } from './shownPorts';
import { ranksOf, type Event, type Running } from './running';
import { SteadyHellos } from './steadyHellos';
import { movedPorts, touchedSwitches, turnedSwitches } from './touched';
import type { Watch } from './watch';

const NONE: ReadonlyMap<TreeId, number> = new Map();
const [TIMER, SIGNAL, SETTING] = [{ kind: 'timer' }, { kind: 'signal' }, { kind: 'setting' }] as const;

export class Simulation extends Clock {
  /** As its bridges are now; switches and ports keep their indices. */
  network: Network;
  /** As its switches are: another one where pairs act as one. */
  physical: Network;
  /** When a state or role changed last. */
  lastChange: Micros = 0;
  private readonly entities: Entities;
  private readonly ports: ShownPorts;
  private readonly medium: Medium;
  spoken: Spoken;
  readonly aggregation: Aggregation;
  readonly guards = new Guards(this);
  private readonly checks = new Checks(this);
  private dirty = false;
  cause: Cause = SIGNAL;

  readonly trees: readonly TreeId[];
  private readonly watch: Watch;
  /** Trees that are not run, since one that is run fares alike: the place of that one. */
  private readonly alike: ReadonlyMap<TreeId, number>;
  private readonly compile: typeof compileNetwork;
  private readonly hellos: SteadyHellos;
  private readonly everyHello: boolean;

  constructor(
    network: Network,
    trees: readonly TreeId[],
    seed = 1,
    watch: Watch = {},
    { absent = [], alike = NONE, everyHello = false, outside, compile = compileNetwork }: SimulationOptions = {},
  ) {
    const { switches, ports, bundles } = network;
    const places = [switches, ports, bundles.members, bundles.ends].map(({ length }) => length);
    super(ranksOf(trees.length, Math.max(...places) + 1));
    this.trees = trees;
    this.watch = watch;
    this.alike = alike;
    this.compile = compile;
    this.medium = new Medium(this, watch, outside);
    this.everyHello = everyHello || outside !== undefined;
    this.hellos = new SteadyHellos({
      now: () => this.now,
      hadItsTurn: (running) => this.rankOf({ kind: 'wake', running }) < this.turn,
      hearer: (from, port) => this.medium.hearer(from, port),
      arrives: (at, hello) => this.medium.deliver(at, hello),
      after: (running) => this.after(running),
      told: (t, { from, port, bpdu, held, period }, times) =>
        watch.sent?.(t, from.trees[0]!, port, bpdu, from.switch, held, times, period),
    });
    this.physical = withAbsent(network, absent);
    this.network = this.physical.acting ?? this.physical;
    this.spoken = spokenIn(this.network, trees, alike);
    const random = randomFrom(seed);
    this.entities = new Entities(this, trees, Float64Array.from(switches, random), outside?.switches);
    this.ports = new ShownPorts(this, this.physical, trees.length, (change) => watch.changed?.(change));
    this.aggregation = new Aggregation(network.design, absent, {
      isOutside: (end) => isEndOutside(network, outside, end),
      now: () => this.now,
      transmit: (member, lacpdu) => this.medium.negotiate(member, lacpdu),
      wakeAt: (t, end) => this.schedule(t, { kind: 'lacp', end }),
      changed: (member, now, turned) => {
        if (turned) this.lastChange = this.now;
        this.watch.member?.(this.now, member, now);
      },
    });
  }

  /** Switches every switch on that has power. */
  boot(): void {
    this.aggregation.boot();
    this.take(this.recompile(this.network.design));
    this.network.switches.forEach((sw, s) => sw.up && this.start(s));
    this.signal(this.network.ports.keys());
    this.ports.tellPairs(this.trees.keys());
    this.guards.probe();
  }

  /**
   * Switches every switch on that has power, and goes on from where they come to rest: bundles first, by themselves. False
   * where it cannot be said beforehand; then another simulation is to boot. Step by step: whoever asks may stop between them.
   */
  *beginAtRest(): Generator<void, boolean> {
    this.aggregation.boot();
    this.take(this.recompile(this.network.design));
    return yield* bringToRest(this);
  }

  /** Begins the entities of a switch; of a primary also those that have no port but its secondary's as yet. */
  readonly start = (s: number): void => {
    this.checks.forget(s);
    this.entities.start(s);
    if (this.network.pairs.some(({ first }) => first === s))
      for (const all of this.running) if (all[s]) this.after(all[s]);
  };

  /** A tree's entities have been brought to rest: goes on from there. */
  goOn(tree: number): void {
    const all = this.running[tree]!;
    this.cause = SIGNAL;
    for (const running of all) if (running) this.after(running);
    if (!this.everyHello) this.hellos.hushAll(all);
  }

  get keys(): BridgeKeys {
    return this.entities.keys;
  }
  get running(): readonly (readonly (Running | null)[])[] {
    return this.entities.running;
  }

  readonly transmit = (tree: number, port: number, bpdu: Bpdu, s: number): void =>
    this.medium.send(tree, port, bpdu, s);
  readonly flush = (tree: number, port: number): void => {
    this.dirty = true;
    this.watch.flushed?.(this.now, tree, port);
  };
  readonly ageing = (s: number): void => {
    this.watch.ageing?.(s);
    this.dirty = true;
  };

  /** Members that move at one moment are one change of the network, and so are ports that guards shut. */
  protected endMoment(): void {
    if (this.guards.due) this.guards.act();
    const { aggregation, network } = this;
    if (aggregation.moved.size > 0)
      this.adopt(network.design, new Set(aggregation.movedOwners.flatMap((id) => entitiesOf(network, id))));
    if (this.dirty && this.isOver) this.passMoment();
  }

  /** Guards have shut ports, or opened them. */
  turned(): void {
    this.aggregation.follow(withShut(this.network.design, this.guards.shut));
    this.adopt(this.network.design);
  }

  private passMoment(): void {
    this.dirty = false;
    this.watch.moment?.(this.now);
  }
  /** Goes over to another state of the design: cables, power, costs and priorities. The switches and their ports must be the same ones. */
  follow(design: Design): void {
    this.guards.follow(design);
    this.aggregation.follow(withShut(design, this.guards.shut));
    this.adopt(design);
  }

  /** A bundle has these ports from now on; with none it is taken apart. */
  setBundle(id: BundleId, ports: readonly BridgePortId[]): void {
    this.aggregation.setPorts(id, ports);
    this.adopt(this.network.design);
  }

  private recompile(design: Design): Network {
    this.aggregation.moved.clear();
    const uses = this.aggregation.uses();
    this.watch.used?.(this.now, uses);
    return this.compile(design, uses, this.guards.shut);
  }
  private take(physical: Network): void {
    this.physical = physical;
    this.network = physical.acting ?? physical;
  }

  /** `only`: the switches that can have changed; null for all. */
  private adopt(design: Design, only: ReadonlySet<number> | null = null): void {
    const before = this.network;
    const physical = this.recompile(design);
    const moving = movedPorts(before, physical.acting ?? physical);
    this.leave(moving);
    this.take(physical);
    const next = this.network;
    const spoken = design === before.design ? this.spoken : spokenIn(next, this.trees, this.alike);
    const turned = turnedSwitches([before, this.spoken], [next, spoken]);
    this.hellos.rouseAt(touchedSwitches(before, next, turned));
    this.cause = SIGNAL;
    this.restart(before, turned, spoken);
    for (const [tree, all] of this.running.entries())
      for (const running of all)
        if (running && !turned.includes(running.switch) && (only === null || only.has(running.switch)))
          this.reset(running, running.trees.indexOf(tree), before);
    const isAnother = (p: number): boolean => before.live[p] !== next.live[p] || turned.includes(next.owner[p]!);
    this.signal([...next.ports.keys()].filter((p) => isAnother(p) || moving.includes(p)));
    this.ports.tellPairs(this.trees.keys());
    this.watch.signalled?.(this.now);
    this.dirty = true;
    if (this.isOver) this.passMoment();
  }

  /** Ports leave the bridges that have them: their pair is one no longer, or again. */
  private leave(ports: readonly number[]): void {
    const { owner } = this.network;
    this.hellos.rouseAt(new Set(ports.map((p) => owner[p]!)));
    this.cause = SIGNAL;
    this.signal(ports, () => false);
  }

  /** Starts the protocol over where a switch has got power, or speaks otherwise than before, and ends it where it has lost power. */
  private restart(before: Network, turned: readonly number[], spoken: Spoken): void {
    const gone = (tree: number, port: number): void => this.record(tree, port, 'disabled', 'disabled');
    for (const s of turned) if (before.switches[s]!.up) this.entities.stop(s, gone);
    this.spoken = spoken;
    for (const s of turned) if (this.network.switches[s]!.up) this.start(s);
  }

  /** Tells an entity of costs and priorities in one of its trees that are others now. */
  private reset(running: Running, own: number, before: Network): void {
    const { entity, switch: s, ports, trees } = running;
    this.cause = SETTING;
    const of = (network: Network): TreeSettings => this.entities.settingsOf(network, trees[own]!, s, ports);
    const calls = settingCalls(entity, own, of(before), of(this.network));
    if (calls.length === 0) return;
    this.hellos.rouse(running);
    for (const call of calls) call();
    this.after(running);
  }

  /** What a port sends gets lost, or arrives again. */
  setMute(port: number, on: boolean, bpdus = false): void {
    this.hellos.rouseAt(new Set([this.network.owner[port]!]));
    this.medium.setMute(port, on, bpdus);
    this.watch.signalled?.(this.now);
    this.dirty = true;
  }

  /** Whether what a port sends reaches the other end. */
  carries = (port: number, as = this.network): boolean => this.medium.carries(port, as);
  /** Whether what goes out of a aggregationPort comes out of the cable. */
  arrives = (aggregationPort: number): boolean => this.medium.arrives(aggregationPort);
  /** The tree that decides where a VLAN's frames pass at a port; -1 where none does. */
  treeFor = (port: number, vid: number): number => this.spoken.treeFor(port, vid);
  /** Whether frames of a VLAN pass a port now. */
  passes = (vid: number, port: number): boolean => letsFramesThrough(this, vid, port);

  /**
   * Whether nothing moves and nothing will: every entity rests, and no information that is left from before can still be
   * alive unrepeated.
   */
  get rests(): boolean {
    return (
      this.now - this.lastChange >= lifeOfInformation(this.network) && this.aggregation.resting && this.entities.resting
    );
  }

  /** How long a switch keeps the addresses of a VLAN while a topology change is told; null for as long as usual. */
  readonly fastAgeing = (s: number, vid: number): Micros | null => this.entities.ageing(s, vid);

  /** Whether a port forwards in the tree that decides for a VLAN. */
  readonly forwardsIn = (vid: number, port: number): boolean =>
    this.state(this.treeFor(port, vid), port) === 'forwarding';

  state = (tree: number, port: number): RunState => this.ports.acting.state(tree, port);
  role = (tree: number, port: number): RunRole => this.ports.acting.role(tree, port);
  inTree = (tree: number, port: number): boolean => this.placeOf(tree, port) >= 0;
  /** A port's place in the entity that has it, -1 in none. */
  placeOf = (tree: number, port: number): number => this.spoken.places[tree]![port]!;
  /** State, role and whether loop guard holds it, as its switch shows it. */
  shown = (tree: number, port: number) => this.ports.at(tree, port);
  /** The root port of a bridge; -1 at a root, null where it has no part in the tree. */
  rootPort(tree: number, s: number): number | null {
    const running = this.running[tree]![s];
    return running ? (running.ports[running.entity.rootPort(running.trees.indexOf(tree))] ?? -1) : null;
  }
  /** The entity of a switch that runs a tree, and the tree's place among its own; null where none does. */
  entity = (tree: number, s: number) => this.entities.at(tree, s);
  /** The path costs of a switch's ports in a tree, in the order of the ports. */
  costs = (tree: number, s: number): number[] => this.entities.costs(tree, s);

  protected happen(event: Event): void {
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
    if (runs === entity.steady?.runs && !this.everyHello) this.hellos.hushAfterHello(running);
  }

  readonly rouse = (running: Running): void => this.hellos.rouse(running);

  /** Tells whoever watches what is sent of the hellos up to now that were not run. */
  tellHellos(): void {
    this.hellos.tell();
  }

  private arrive(tree: number, port: number, bpdu: Bpdu, origin: number, through: readonly number[]): void {
    if (!this.network.live[port]) return; // the light went out meanwhile
    const running = this.running[tree]![this.network.owner[port]!];
    const local = this.spoken.places[tree]![port]!;
    if (this.checks.catches(tree, port, bpdu, origin)) return;
    if (running && local >= 0) {
      const { entity } = running;
      if (this.guards.catches(port, bpdu)) return;
      if (entity.steady?.knows(local, bpdu)) return running.unheard[local] ? undefined : entity.receive(local, bpdu);
      this.cause = { kind: 'bpdu', port, bpdu };
      this.hellos.rouse(running);
      entity.receive(local, bpdu);
      this.after(running);
      return;
    }
    this.medium.flood(tree, port, bpdu, origin, through);
  }

  /** Tells the entities which ports have signal now. */
  private signal(ports: Iterable<number>, isLive = (p: number): boolean => this.network.live[p] === 1): void {
    for (const p of ports) {
      const live = isLive(p);
      this.cause = this.guards.causeOf(p) ?? SIGNAL;
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
  after(running: Running): void {
    const { entity, trees, dirty, ports } = running;
    if (dirty.size > 0) {
      for (const each of dirty) {
        const [own, local] = [Math.floor(each / ports.length), each % ports.length];
        const [state, role, held] = [entity.state(local, own), entity.role(local, own), entity.isHeld(local, own)];
        this.record(trees[own]!, ports[local]!, state, role, held);
      }
      dirty.clear();
      this.ports.tellPairs(trees, running.switch);
    }
    this.hellos.answer(running);
    if (entity.due === running.wakes || entity.due === Infinity || ports.length === 0) return; // without a port there is nobody to tell
    running.wakes = entity.due;
    this.schedule(entity.due, { kind: 'wake', running });
  }

  private record(tree: number, port: number, is: RunState, role: RunRole, holds = false): void {
    const [to, held] = this.checks.shows(port, is, holds);
    if (!this.ports.set(tree, port, to, role, held)) return;
    this.lastChange = this.now;
    this.dirty = true;
  }
}
