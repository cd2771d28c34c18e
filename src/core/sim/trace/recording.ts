/** What a run leaves behind: every change with what brought it about, and the state of every port at any instant. */
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, RunRole, RunState } from '../../modes/entity';
import { Timeline, type TimelineData } from './timeline';

/** States and roles by their codes in a recording. */
export const RUN_STATES: readonly RunState[] = [
  'disabled',
  'blocking',
  'listening',
  'discarding',
  'learning',
  'forwarding',
];
export const RUN_ROLES: readonly RunRole[] = ['disabled', 'root', 'designated', 'alternate', 'backup', 'master'];

/** What an entity was doing when a port changed: acting on a BPDU, on a timer, on signal that came or went, on a setting. */
export type Cause =
  | { readonly kind: 'bpdu'; readonly port: number; readonly bpdu: Bpdu }
  /** A BPDU guard has shut the port that heard it. */
  | { readonly kind: 'guard'; readonly port: number; readonly bpdu: Bpdu }
  /** A test frame of its own switch has come back to a port, and a loop probe has stopped it. */
  | { readonly kind: 'probe'; readonly port: number }
  | { readonly kind: 'timer' | 'signal' | 'setting' };

/** A port of a tree took another state or role. */
export interface PortChange {
  readonly t: Micros;
  readonly tree: number;
  readonly port: number;
  readonly from: RunState;
  readonly to: RunState;
  readonly role: RunRole;
  /** Whether loop guard holds it. */
  readonly held: boolean;
  readonly cause: Cause;
}

/** Grows change by change; reading is by index or by instant. */
export class Recording {
  private timeline: Timeline;
  private causes: Cause[] = [];

  readonly trees: number;
  readonly ports: number;

  /** `at` gives what a port of a tree is at the start. */
  constructor(
    trees: number,
    ports: number,
    at: (tree: number, port: number) => readonly [RunState, RunRole, held?: boolean],
  ) {
    this.trees = trees;
    this.ports = ports;

    this.timeline = new Timeline(
      Uint8Array.from({ length: trees * ports }, (_, place) => coded(...at(Math.floor(place / ports), place % ports))),
    );
  }

  /** A recording again, of its data and the causes of its changes. */
  static from(data: TimelineData, trees: number, causes: Cause[]): Recording {
    const recording = new Recording(0, trees === 0 ? 0 : data.start.length / trees, () => ['disabled', 'disabled']);
    return Object.assign(recording, { trees, timeline: Timeline.from(data), causes });
  }

  data(): TimelineData {
    return this.timeline.data();
  }

  get count(): number {
    return this.timeline.count;
  }

  add({ t, tree, port, to, role, held, cause }: PortChange): void {
    this.timeline.add(t, tree * this.ports + port, coded(to, role, held));
    this.causes.push(cause);
  }

  /** Takes over a change of another recording, as one of another tree. */
  take(from: Recording, i: number, tree: number): void {
    const port = from.timeline.placeOf(i) % this.ports;
    this.timeline.add(from.timeline.timeOf(i), tree * this.ports + port, from.timeline.after(i));
    this.causes.push(from.causes[i]!);
  }

  timeOf(i: number): Micros {
    return this.timeline.timeOf(i);
  }
  causeOf(i: number): Cause {
    return this.causes[i]!;
  }
  treeOf(i: number): number {
    return Math.floor(this.timeline.placeOf(i) / this.ports);
  }
  /** State, role and whether loop guard holds it, of a port at the start. */
  atStart(tree: number, port: number): readonly [RunState, RunRole, boolean] {
    const code = this.timeline.atStart(tree * this.ports + port);
    return [runStateOf(code), runRoleOf(code), isHeld(code)];
  }

  /** The change at an index, 0 up to `count`. */
  change(i: number): PortChange {
    const { timeline } = this;
    const place = timeline.placeOf(i);
    return {
      t: timeline.timeOf(i),
      tree: Math.floor(place / this.ports),
      port: place % this.ports,
      from: runStateOf(timeline.before(i)),
      to: runStateOf(timeline.after(i)),
      role: runRoleOf(timeline.after(i)),
      held: isHeld(timeline.after(i)),
      cause: this.causes[i]!,
    };
  }

  /** How many changes have happened up to and at an instant. */
  until(t: Micros): number {
    return this.timeline.until(t);
  }

  /** Every port of every tree at an instant: read it with `stateIn` and `roleIn`. */
  pictureAt(t: Micros): Uint8Array {
    return this.timeline.pictureAt(t);
  }

  stateIn(picture: Uint8Array, tree: number, port: number): RunState {
    return runStateOf(picture[tree * this.ports + port]!);
  }
  roleIn(picture: Uint8Array, tree: number, port: number): RunRole {
    return runRoleOf(picture[tree * this.ports + port]!);
  }

  /** The change that made a port what it is at an instant; null where it has been so from the start. */
  whyAt(tree: number, port: number, t: Micros): PortChange | null {
    const i = this.timeline.lastOf(tree * this.ports + port, t);
    return i < 0 ? null : this.change(i);
  }
}

const HELD = 8;
/** A place's state and role, and whether loop guard holds it, as one code. */
export const coded = (state: RunState, role: RunRole, held = false): number =>
  (RUN_STATES.indexOf(state) << 4) | (held ? HELD : 0) | RUN_ROLES.indexOf(role);
export const runStateOf = (code: number): RunState => RUN_STATES[code >> 4]!;
export const runRoleOf = (code: number): RunRole => RUN_ROLES[code & 7]!;
export const isHeld = (code: number): boolean => (code & HELD) !== 0;
