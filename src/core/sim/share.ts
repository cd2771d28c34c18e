/** A share of a run: some of its parts, each on a clock of its own, kept at one time. */
import { oncePer } from '../base/cache';
import type { Design } from '../model/document';
import { vlanTree, type TreeId } from '../model/ids';
import type { Scenario } from '../model/scenario';
import { SECOND, type Micros } from '../modes/entity';
import { bundlesOf } from '../topology/lag/ends';
import { compileNetwork, type Network } from '../topology/network';
import type { TreeView } from '../tree/settled';
import type { Part } from './engine/parts';
import { Simulation } from './engine/simulation';
import { MOST_FLUSHES, MOST_RESTLESS, Recorder } from './recorder';
import type { PortInTree, TraceEntry } from './run';
import { happeningIn, States } from './scenario/clocked';
import type { Written } from './trace/joined';
import { SentLog } from './trace/sentLog';
import { viewNow } from './trace/view';

/** Events between two looks at whether the run is to go on. */
const STEP = 5000;

/** All that a share hangs on; plain data. */
export interface ShareOf {
  /** With everything that the scenario brings along. */
  readonly design: Design;
  /** The design before the scenario's bundles came. */
  readonly before: Design;
  readonly scenario: Scenario;
  readonly trees: readonly TreeId[];
  /** All parts of the run, and the places of those that are this share. */
  readonly parts: readonly Part[];
  readonly own: readonly number[];
  readonly seed: number;
  readonly mostFrames: number;
  readonly everyHello: boolean;
}

/** Where a run got to: the moment; it was told to stop; so many events were too many. */
export type Went = 'there' | 'stopped' | 'spent';

interface Member {
  readonly part: Part;
  readonly sim: Simulation;
  readonly recorder: Recorder;
}

/** How a share stands. */
export interface Standing {
  /** How far it is: parts that are ahead count for what they are. */
  readonly now: Micros;
  /** How far the part is that is furthest. */
  readonly furthest: Micros;
  readonly events: number;
  /** When a port of a tree changed last. */
  readonly lastChange: Micros;
}

/** Something of a tree, by its place among all of them. */
export type OfTree<T> = readonly [tree: number, it: T];

export class Share {
  readonly of: ShareOf;
  sent: SentLog;
  private members: readonly Member[] = [];
  private states: States;
  /** When the scenario began; Infinity before. */
  private start: Micros = Infinity;
  private readonly compile = sharedCompile();

  constructor(of: ShareOf) {
    this.of = of;
    this.sent = this.newLog();
    this.states = new States(of.design);
  }

  private newLog(): SentLog {
    return new SentLog(
      this.of.mostFrames,
      this.of.parts.flatMap(({ told }) => told),
    );
  }

  /** Everything is switched off, and nothing written down. */
  private anew(): void {
    this.sent = this.newLog();
    const { compile } = this;
    const { design, before, trees, parts, own, seed, mostFrames, everyHello } = this.of;
    const partOf = (vlan: number): number => {
      const tree = trees.indexOf(vlanTree(vlan));
      return Math.max(
        0,
        parts.findIndex(({ told }) => told.some((all) => all.some((each) => each.tree === tree))),
      );
    };
    const absent = comingMembers(before, design);
    const network = compile(design);
    this.members = own.map((p) => {
      const part = parts[p]!;
      const { told, alike } = part;
      const follows = (vlan: number): boolean => partOf(vlan) === p;
      const from = parts.slice(0, p).reduce((sum, { trees: before }) => sum + before.length, 0);
      const sent = mostFrames > 0 ? { log: this.sent, from } : null;
      const recorder = new Recorder({ told, sent, mostNegotiated: mostFrames, shared: p === 0, follows });
      const sim = new Simulation(network, part.trees, seed, recorder.watch(), { absent, alike, everyHello, compile });
      return { part, sim, recorder };
    });
  }

  /** Every switch that has power is switched on; `recorded`: the run begins with it. */
  boot(recorded: boolean): void {
    this.anew();
    for (const { sim, recorder } of this.members) {
      if (recorded) recorder.fromBoot(sim);
      sim.boot();
    }
  }

  /** Puts all parts where they come to rest; where one cannot begin so, 'spent': it is to be booted. */
  *beginAtRest(): Generator<void, Went, boolean> {
    this.anew();
    for (const { sim } of this.members) {
      const steps = sim.beginAtRest();
      for (let step = steps.next(); ; step = steps.next()) {
        if (!step.done) {
          if (!(yield)) return 'stopped';
        } else if (step.value) break;
        else return 'spent';
      }
    }
    return 'there';
  }

  /**
   * Runs every part up to a moment. Where a run of several parts is told to stop, they come to that moment still, so that all
   * are written down up to the same one.
   */
  *runTo(until: Micros, mostEvents: number): Generator<void, Went, boolean> {
    let went: Went = 'there';
    for (const { sim } of this.members)
      while (!sim.runTo(until, STEP)) {
        if (went !== 'there') continue;
        if (!(yield)) went = 'stopped';
        else if (this.events > mostEvents) went = 'spent';
        if (went !== 'there' && this.of.parts.length === 1) return went;
      }
    this.sent.passed(until - this.start);
    if (this.members.reduce((sum, { recorder }) => sum + recorder.flushes.count, 0) >= MOST_FLUSHES)
      for (const { recorder } of this.members) recorder.flushed = Math.min(recorder.flushed, until);
    return went;
  }

  get events(): number {
    return this.members.reduce((sum, { sim }) => sum + sim.events, 0);
  }
  get rests(): boolean {
    return this.members.every(({ sim }) => sim.rests);
  }

  get standing(): Standing {
    const sims = this.members.map(({ sim }) => sim);
    return {
      now: sims.reduce((sum, { now }) => sum + now, 0) / sims.length,
      furthest: Math.max(...sims.map(({ now }) => now)),
      events: this.events,
      lastChange: Math.max(...sims.map(({ lastChange }) => lastChange)),
    };
  }

  /** The scenario begins: its actions are on the clock of each part. */
  begin(start: Micros): void {
    const { scenario, design } = this.of;
    this.start = start;
    this.states = new States(design);
    for (const { sim, recorder } of this.members) {
      sim.lastChange = start;
      recorder.begin(sim, start, scenario.talk);
      this.states.schedule(sim, happeningIn(scenario), start);
    }
  }

  /** Why an action could not be done; null where all could. */
  get refused(): string | null {
    return this.states.refused;
  }

  /** From now on nothing is written down but which ports change. */
  watchRestless(): void {
    for (const { recorder } of this.members) recorder.watchRestless();
  }

  /** Ports that have changed since then. */
  restlessPorts(): PortInTree[] {
    const found = this.members.flatMap(({ part, recorder }) =>
      recorder.restlessPorts.flatMap(([run, port]) => part.told[run]!.map(({ tree }) => [tree, port] as const)),
    );
    return found.slice(0, MOST_RESTLESS).map(([tree, port]) => this.named(tree, port));
  }

  /** Ports that listen or learn now. */
  onTheWay(): OfTree<readonly TraceEntry[]>[] {
    const { named } = this;
    return this.ofTrees(({ sim }, run) => {
      const moving = sim.physical.ports.flatMap((_, p) => {
        const [state, role] = sim.shown(run, p);
        return state === 'listening' || state === 'learning' ? [{ p, from: state, to: state, role }] : [];
      });
      const t = (sim.now - this.start) / SECOND;
      return (tree) => moving.map(({ p, ...entry }) => ({ t, ...named(tree, p), ...entry }));
    });
  }

  /** How each tree stands now. */
  views(): OfTree<TreeView>[] {
    return this.ofTrees(({ sim }, run) => {
      const view = viewNow(sim, run);
      return (tree) => ({ ...view, id: this.of.trees[tree]! });
    });
  }

  /** What has been written down of each part. */
  written(): Written[] {
    for (const { sim } of this.members) sim.tellHellos();
    return this.members.map(({ recorder: { ports: recording, flushes, plane } }) => {
      const outages = plane!.end();
      return { recording, flushes, outages, reach: plane!.reach, storms: plane!.storms };
    });
  }
  /** Of the first part: where it is the first of all, it writes down what all share. */
  get first(): Recorder {
    return this.members[0]!.recorder;
  }

  /** Ports by their names. */
  private get named(): (tree: number, port: number) => PortInTree {
    return namesIn(this.network, this.of.trees);
  }

  /** As it is now. */
  get network(): Network {
    return this.members[0]!.sim.physical;
  }

  /** Something of each tree, from the part that runs it; `of` is asked once for all trees that a run tells. */
  private ofTrees<T>(of: (member: Member, run: number) => (tree: number) => T): OfTree<T>[] {
    return this.members.flatMap((member) =>
      member.part.told.flatMap((told, run) => {
        const tell = of(member, run);
        return told.map(({ tree }) => [tree, tell(tree)] as const);
      }),
    );
  }
}

/** What the ports of trees are called. */
export const namesIn =
  ({ ports, switches, home }: Network, trees: readonly TreeId[]) =>
  (tree: number, p: number): PortInTree => ({
    switch: switches[home[p]!]!.id,
    port: ports[p]!.id,
    tree: trees[tree]!,
  });

/** Compiles each state of a network once for all parts. */
function sharedCompile(): typeof compileNetwork {
  const known = oncePer((_: Design) => new Map<string, Network>());
  return (design, use, shut) => {
    const key = `${use?.join() ?? ''} ${shut?.map((port) => `${port.switch} ${port.port} ${port.by}`).join() ?? 'settled'}`;
    const found = known(design).get(key) ?? compileNetwork(design, use, shut);
    known(design).set(key, found);
    return found;
  };
}

/** Members that a scenario brings into bundles: of those that it adds, and of those that get other ports. */
function comingMembers(before: Design, design: Design): number[] {
  const { ends, members } = bundlesOf(design);
  return members.flatMap(({ at, index, end }) =>
    ends[end]!.owner.kind === 'switch' &&
    !before.bundles.some((bundle) => bundle.switch === at.switch && bundle.ports.includes(at.port))
      ? [index]
      : [],
  );
}
