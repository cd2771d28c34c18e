/**
 * What is written down of a part of a run: changes of ports, frames, outages, and of the first one what all share, signals and
 * members. It watches the simulation.
 */
import { SECOND, type Micros } from '../modes/entity';
import { ARRIVES, CARRIES, LIVE, OPERATIONAL, SHUT_SHIFT } from './engine/signal';
import type { Told } from './engine/parts';
import type { Simulation } from './engine/simulation';
import type { Watch } from './engine/watch';
import { FlushLog } from './trace/flushLog';
import { MemberLog } from './trace/memberLog';
import { Recording } from './trace/recording';
import type { SentLacpdu, SentLog } from './trace/sentLog';
import { Timeline } from './trace/timeline';
import { DataPlane } from './traffic/dataPlane';

export const MOST_FLUSHES = 200_000;
/** Ports that are named of those that never rest. */
export const MOST_RESTLESS = 20;

export interface RecorderOptions {
  /** By tree that is run, those that it is told as. */
  readonly told: readonly (readonly Told[])[];
  /** BPDUs go here, as of trees that are so much further on; null where nobody wants them. */
  readonly sent: { readonly log: SentLog; readonly from: number } | null;
  /** LACPDUs that are kept. */
  readonly mostNegotiated: number;
  /** Whether it writes down what all parts of a run share. */
  readonly shared: boolean;
  /** Whether the hosts of a VLAN are looked after. */
  readonly follows: (vlan: number) => boolean;
}

export class Recorder {
  readonly flushes = new FlushLog();
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
  /** Where addresses are forgotten later is not written down: there is enough. */
  flushed: Micros = Infinity;
  private sim!: Simulation;
  private readonly options: RecorderOptions;

  constructor(options: RecorderOptions) {
    this.options = options;
  }

  /** What it hears of the simulation. */
  watch(): Watch {
    const { members, negotiation } = this;
    const { sent, mostNegotiated, shared } = this.options;
    const records = (t: Micros): boolean => t >= this.start && !this.restless;
    const ofAll: Watch = {
      member: (t, member, stands) => records(t) && members.mark(t, member, stands, this.start),
      used: (t, uses) => records(t) && members.use(t - this.start, uses),
      negotiated: (t, member, lacpdu) =>
        records(t) && negotiation.length < mostNegotiated && negotiation.push({ t: t - this.start, member, lacpdu }),
      signalled: (t) => void (this.restless ?? this.noteSignal(t - this.start)),
    };
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
        if (t >= this.start && t <= this.flushed && this.flushes.count < MOST_FLUSHES)
          this.flushes.add(t - this.start, tree, port);
      },
      ageing: (s) => void (this.restless ?? this.plane?.forgetAged(s)),
      moment: (t) => void (this.restless ?? this.plane?.look(t)),
      ...(shared ? ofAll : {}),
      ...(sent
        ? {
            sent: (t, tree, ...rest) => records(t) && sent.log.add(t - this.start, sent.from + tree, ...rest),
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
    const { bundles, use } = sim.physical;
    this.members.begin(use);
    if (!booted) bundles.members.forEach((_, m) => this.members.mark(start, m, sim.aggregation.memberNow(m), start));
    this.codes = Uint8Array.from(sim.physical.ports, (_, port) => this.signalOf(port));
    this.signal = new Timeline(this.codes.slice());
    this.plane = new DataPlane(sim, Math.round(talk * SECOND), this.options.follows);
    this.plane.begin(start);
  }

  /** Records no more: notes which ports change. */
  watchRestless(): void {
    this.restless = new Map();
  }

  /** Ports that have changed since nothing is recorded, the tree of each first. */
  get restlessPorts(): readonly (readonly [tree: number, port: number])[] {
    return [...(this.restless?.values() ?? [])];
  }

  /** Everything that ports did. */
  get ports(): Recording {
    return (this.recording ??= this.newRecording());
  }

  private newRecording(): Recording {
    return new Recording(this.options.told.length, this.sim.physical.ports.length, (tree, port) =>
      this.sim.shown(tree, port),
    );
  }

  private note(tree: number, port: number): void {
    if (this.restless && this.restless.size < MOST_RESTLESS) this.restless.set(`${tree} ${port}`, [tree, port]);
  }

  private signalOf(port: number): number {
    const { physical } = this.sim;
    return (
      (physical.live[port] ? LIVE : 0) |
      (this.sim.carries(port, physical) ? CARRIES : 0) |
      (this.sim.arrives(port) ? ARRIVES : 0) |
      (physical.macOperational[port] ? OPERATIONAL : 0) |
      (physical.shut[port]! << SHUT_SHIFT)
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
