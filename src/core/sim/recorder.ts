/** What is written down of a run: changes of ports, signals, members, frames. It watches the simulation. */
import { SECOND, type Micros, type RunRole, type RunState } from '../modes/entity';
import type { BridgePortId, SwitchId, TreeId } from '../model/ids';
import { ARRIVES, CARRIES, LIVE, OPERATIONAL, SHUT_SHIFT } from './engine/signal';
import type { Simulation } from './engine/simulation';
import type { Watch } from './engine/watch';
import type { Flush, TraceEntry } from './run';
import { MemberLog } from './trace/memberLog';
import { Recording } from './trace/recording';
import { SentLog, type SentLacpdu } from './trace/sentLog';
import { Timeline } from './trace/timeline';
import { DataPlane } from './traffic/dataPlane';

const MOST_FLUSHES = 200_000;
/** Ports that are named of those that never rest. */
const MOST_RESTLESS = 20;

/** A port of a tree as people name them. */
export interface NamedPort {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly tree: TreeId;
}

export class Recorder {
  readonly sent: SentLog;
  readonly flushes: Flush[] = [];
  readonly members = new MemberLog();
  readonly negotiation: SentLacpdu[] = [];
  /** By port, what is known of its signal. */
  signal = new Timeline(new Uint8Array());
  plane: DataPlane | null = null;
  private recording: Recording | null = null;
  private codes = new Uint8Array();
  /** When the scenario began; Infinity before. */
  private start: Micros = Infinity;
  /** Ports that change while nothing is recorded: before a scenario can begin, and after it has ended. */
  private restless: Map<string, readonly [tree: number, port: number]> | null = null;
  private sim!: Simulation;

  private readonly trees: readonly TreeId[];
  private readonly mostFrames: number;

  constructor(trees: readonly TreeId[], mostFrames: number) {
    this.trees = trees;
    this.mostFrames = mostFrames;

    this.sent = new SentLog(mostFrames);
  }

  /** What it hears of the simulation. */
  watch(): Watch {
    const { members, negotiation, mostFrames } = this;
    const records = (t: Micros): boolean => t >= this.start && !this.restless;
    return {
      changed: (change) => {
        const { t, tree, port, to } = change;
        if (this.restless) return this.note(tree, port);
        if (to === 'disabled' || to === 'blocking' || to === 'discarding') this.plane?.flush(port, tree);
        if (t >= this.start) this.recording?.add({ ...change, t: t - this.start });
      },
      flushed: (t, tree, port) => {
        if (this.restless) return;
        this.plane?.flush(port, tree);
        if (t >= this.start && this.flushes.length < MOST_FLUSHES) this.flushes.push({ t: t - this.start, tree, port });
      },
      ageing: (s) => void (this.restless ?? this.plane?.forgetAged(s)),
      member: (t, member, stands) => records(t) && members.mark(t, member, stands, this.start),
      used: (t, uses) => records(t) && members.use(t - this.start, uses),
      negotiated: (t, member, lacpdu) =>
        records(t) && negotiation.length < mostFrames && negotiation.push({ t: t - this.start, member, lacpdu }),
      moment: (t) => void (this.restless ?? this.plane?.look(t)),
      signalled: (t) => void (this.restless ?? this.noteSignal(t - this.start)),
      ...(mostFrames > 0
        ? {
            sent: (t, ...rest) => records(t) && this.sent.add(t - this.start, ...rest),
          }
        : {}),
    };
  }

  /** Records from the power on; else from `begin` on. */
  fromBoot(sim: Simulation): void {
    this.sim = sim;
    this.start = 0;
    this.recording = this.newRecording();
  }

  /** The network has come to rest, or boots: the scenario begins. `talk` is how often hosts send, seconds. */
  begin(sim: Simulation, start: Micros, talk: number): void {
    this.sim = sim;
    if (this.start > start) sim.tellHellos(); // what was before is not recorded
    this.start = start;
    this.restless = null;
    const booted = this.recording !== null;
    this.recording ??= this.newRecording();
    const { bundles, use } = sim.network;
    this.members.begin(use);
    if (!booted) bundles.members.forEach((_, m) => this.members.mark(start, m, sim.aggregation.memberNow(m), start));
    this.codes = Uint8Array.from(sim.network.ports, (_, port) => this.signalOf(port));
    this.signal = new Timeline(this.codes.slice());
    this.plane = new DataPlane(sim, Math.round(talk * SECOND));
    this.plane.begin(start);
  }

  /** Records no more: notes which ports change. */
  watchRestless(): void {
    this.restless = new Map();
  }

  /** Ports that have changed since nothing is recorded. */
  restlessPorts({ network: { switches, owner, ports } }: Simulation): NamedPort[] {
    return [...(this.restless?.values() ?? [])].map(([tree, p]) => ({
      switch: switches[owner[p]!]!.id,
      port: ports[p]!.id,
      tree: this.trees[tree]!,
    }));
  }

  /** Everything that ports did. */
  get ports(): Recording {
    return (this.recording ??= this.newRecording());
  }

  /** A change as an object, with names. */
  entry(t: Micros, tree: number, p: number, from: RunState, to: RunState, role: RunRole): TraceEntry {
    const { ports, switches, owner } = this.sim.network;
    return {
      t: t / SECOND,
      switch: switches[owner[p]!]!.id,
      port: ports[p]!.id,
      tree: this.trees[tree]!,
      from,
      to,
      role,
    };
  }

  private newRecording(): Recording {
    return new Recording(this.trees.length, this.sim.network.ports.length, (tree, port) => [
      this.sim.state(tree, port),
      this.sim.role(tree, port),
      this.sim.isHeld(tree, port),
    ]);
  }

  private note(tree: number, port: number): void {
    if (this.restless && this.restless.size < MOST_RESTLESS) this.restless.set(`${tree} ${port}`, [tree, port]);
  }

  private signalOf(port: number): number {
    return (
      (this.sim.network.live[port] ? LIVE : 0) |
      (this.sim.carries(port) ? CARRIES : 0) |
      (this.sim.arrives(port) ? ARRIVES : 0) |
      (this.sim.network.macOperational[port] ? OPERATIONAL : 0) |
      (this.sim.network.shut[port]! << SHUT_SHIFT)
    );
  }

  private noteSignal(t: Micros): void {
    this.codes.forEach((before, port) => {
      const code = this.signalOf(port);
      if (code === before) return;
      this.codes[port] = code;
      this.signal.add(t, port, code);
    });
  }
}
