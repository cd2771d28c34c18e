/** The parts of a run, each on a clock of its own, kept at one time; and what they have come to, as one. */
import { oncePer } from '../base/cache';
import type { Design } from '../model/document';
import { vlanTree, type TreeId } from '../model/ids';
import { SECOND, type Micros } from '../modes/entity';
import { bundlesOf } from '../topology/lag/ends';
import { compileNetwork, type Network } from '../topology/network';
import type { TreeView } from '../tree/settled';
import type { Part } from './engine/parts';
import { Simulation } from './engine/simulation';
import { MOST_FLUSHES, MOST_RESTLESS, Recorder } from './recorder';
import type { PortInTree, Run, TraceEntry } from './run';
import { joinFlushes, joinReaches, joinRecordings, joinStorms } from './trace/joined';
import { SentLog } from './trace/sentLog';
import { byStart } from './traffic/dataPlane';
import { viewNow } from './trace/view';

/** Events between two looks at whether the run is to go on. */
const STEP = 5000;

interface Member {
  readonly part: Part;
  readonly sim: Simulation;
  readonly recorder: Recorder;
}

export interface EnsembleOptions {
  readonly seed: number;
  readonly mostFrames: number;
  readonly everyHello: boolean;
  /** How often hosts send, seconds. */
  readonly talk: number;
  /** The design before the scenario's bundles came. */
  readonly before: Design;
}

/** Where a run got to: the moment; it was told to stop; so many events were too many. */
export type Went = 'there' | 'stopped' | 'spent';

export class Ensemble {
  private members: readonly Member[] = [];
  private sent: SentLog;
  /** When the scenario began; Infinity before. */
  private start: Micros = Infinity;
  private readonly design: Design;
  private readonly trees: readonly TreeId[];
  private readonly parts: readonly Part[];
  private readonly options: EnsembleOptions;
  private readonly compile = sharedCompile();

  /** `design` has everything that the scenario brings along. */
  constructor(design: Design, trees: readonly TreeId[], parts: readonly Part[], options: EnsembleOptions) {
    this.design = design;
    this.trees = trees;
    this.parts = parts;
    this.options = options;
    this.sent = this.newLog();
  }

  private newLog(): SentLog {
    return new SentLog(
      this.options.mostFrames,
      this.parts.flatMap(({ told }) => told),
    );
  }

  /** Everything is switched off, and nothing written down. */
  private anew(): void {
    this.sent = this.newLog();
    const { design, trees, parts, compile } = this;
    const { seed, mostFrames, everyHello, before } = this.options;
    const partOf = (vlan: number): number => {
      const tree = trees.indexOf(vlanTree(vlan));
      return Math.max(
        0,
        parts.findIndex(({ told }) => told.some((all) => all.some((each) => each.tree === tree))),
      );
    };
    const absent = comingMembers(before, design);
    const network = compile(design);
    this.members = parts.map((part, p) => {
      const { told, alike } = part;
      const follows = (vlan: number): boolean => partOf(vlan) === p;
      const from = parts.slice(0, p).reduce((sum, { trees: own }) => sum + own.length, 0);
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
    const now = Math.max(...this.members.map(({ sim }) => sim.now));
    for (const { sim } of this.members) sim.runTo(now);
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
        if (went !== 'there' && this.members.length === 1) return went;
      }
    this.sent.passed(until - this.start);
    return went;
  }

  /** How far it is: parts that are ahead count for what they are. */
  get now(): Micros {
    return this.members.reduce((sum, { sim }) => sum + sim.now, 0) / this.members.length;
  }
  get events(): number {
    return this.members.reduce((sum, { sim }) => sum + sim.events, 0);
  }
  get rests(): boolean {
    return this.members.every(({ sim }) => sim.rests);
  }
  /** When a port of a tree changed last. */
  get lastChange(): Micros {
    return Math.max(...this.members.map(({ sim }) => sim.lastChange));
  }

  /** The scenario begins; `act` puts its actions on the clock of each part. */
  begin(start: Micros, act: (sim: Simulation) => void): void {
    this.start = start;
    for (const { sim, recorder } of this.members) {
      sim.lastChange = start;
      recorder.begin(sim, start, this.options.talk);
      act(sim);
    }
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
  onTheWay(start: Micros): TraceEntry[] {
    return this.ofTrees(({ sim }, run, tree) =>
      sim.network.ports.flatMap((_, p) => {
        const state = sim.state(run, p);
        return state === 'listening' || state === 'learning'
          ? [{ t: (sim.now - start) / SECOND, ...this.named(tree, p), from: state, to: state, role: sim.role(run, p) }]
          : [];
      }),
    ).flat();
  }

  /** How each tree stands now. */
  views(): TreeView[] {
    return this.ofTrees(({ sim }, run, tree) => viewNow(sim, run, this.trees[tree]!));
  }

  /** What has been written down. */
  records(): Pick<
    Run,
    | 'recording'
    | 'sent'
    | 'flushes'
    | 'signal'
    | 'members'
    | 'negotiation'
    | 'outages'
    | 'reach'
    | 'storms'
    | 'unfollowed'
  > {
    for (const { sim } of this.members) sim.tellHellos();
    const { parts, trees, members: all } = this;
    const recorders = all.map(({ recorder }) => recorder);
    const [{ signal, members, negotiation, plane, flushes, ports }] = recorders as [Recorder];
    const outages = recorders.flatMap((recorder) => recorder.plane!.end());
    const shared = { signal, members, negotiation, sent: this.sent, unfollowed: plane!.unfollowed };
    const [part] = parts;
    if (parts.length === 1 && part!.alike.size === 0) {
      const { reach, storms } = plane!;
      return { ...shared, outages, reach, storms, flushes, recording: ports };
    }
    return {
      ...shared,
      outages: outages.sort(byStart),
      reach: joinReaches(recorders.map((recorder) => recorder.plane!.reach)),
      storms: joinStorms(recorders.map((recorder) => recorder.plane!.storms)),
      recording: joinRecordings(
        parts,
        recorders.map((recorder) => recorder.ports),
        trees.length,
      ),
      flushes: joinFlushes(
        parts,
        recorders.map((recorder) => recorder.flushes),
        MOST_FLUSHES,
      ),
    };
  }

  /** Ports by their names. */
  private get named(): (tree: number, port: number) => PortInTree {
    return namesIn(this.network, this.trees);
  }

  /** As it is now. */
  get network(): Network {
    return this.members[0]!.sim.network;
  }

  /** Something of each tree, from the part that runs it. */
  private ofTrees<T>(of: (member: Member, run: number, tree: number) => T): T[] {
    const found: T[] = [];
    for (const member of this.members)
      for (const [run, told] of member.part.told.entries())
        for (const { tree } of told) found[tree] = of(member, run, tree);
    return found;
  }
}

/** What the ports of trees are called. */
export const namesIn =
  ({ ports, switches, owner }: Network, trees: readonly TreeId[]) =>
  (tree: number, p: number): PortInTree => ({
    switch: switches[owner[p]!]!.id,
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
