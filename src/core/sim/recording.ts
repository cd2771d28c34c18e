/** What a run leaves behind: every change with what brought it about, and the state of every port at any instant. */
import type { Bpdu } from '../protocol/bpdu';
import type { Micros, RunRole, RunState } from '../protocol/entity';

/** States and roles by their codes in a recording. */
export const RUN_STATES: readonly RunState[] = ['disabled', 'blocking', 'listening', 'discarding', 'learning', 'forwarding'];
export const RUN_ROLES: readonly RunRole[] = ['disabled', 'root', 'designated', 'alternate', 'backup', 'master'];

/** What an entity was doing when a port changed: acting on a BPDU, on a timer, on signal that came or went, on a setting. */
export type Cause =
  | { readonly by: 'bpdu'; readonly port: number; readonly bpdu: Bpdu }
  | { readonly by: 'timer' | 'signal' | 'setting' };

/** A port of a tree took another state or role. */
export interface PortChange {
  readonly t: Micros;
  readonly tree: number;
  readonly port: number;
  readonly from: RunState;
  readonly to: RunState;
  readonly role: RunRole;
  readonly cause: Cause;
}

/** How many changes lie between two full pictures: so many are gone through at most to know an instant. */
const STRIDE = 512;

/** Grows change by change; reading is by index or by instant. Twenty octets a change and a reference to its cause. */
export class Recording {
  private times = new Float64Array(256);
  /** Tree x ports + port. */
  private places = new Uint32Array(256);
  /** State and role before, then after, four bits each. */
  private codes = new Uint16Array(256);
  private readonly causes: Cause[] = [];
  /** State and role of every place after each stride of changes; the first is the start. */
  private readonly pictures: Uint8Array[];
  private readonly now: Uint8Array;
  count = 0;

  /** `at` gives what a port of a tree is at the start. */
  constructor(readonly trees: number, readonly ports: number, at: (tree: number, port: number) => readonly [RunState, RunRole]) {
    this.now = new Uint8Array(trees * ports);
    for (let tree = 0; tree < trees; tree += 1) for (let port = 0; port < ports; port += 1) this.now[tree * ports + port] = coded(...at(tree, port));
    this.pictures = [this.now.slice()];
  }

  add({ t, tree, port, to, role, cause }: PortChange): void {
    if (this.count === this.times.length) this.grow();
    const place = tree * this.ports + port;
    const code = coded(to, role);
    this.times[this.count] = t;
    this.places[this.count] = place;
    this.codes[this.count] = (this.now[place]! << 8) | code;
    this.causes.push(cause);
    this.now[place] = code;
    this.count += 1;
    if (this.count % STRIDE === 0) this.pictures.push(this.now.slice());
  }

  /** The change at an index, 0 up to `count`. */
  change(i: number): PortChange {
    const place = this.places[i]!;
    const code = this.codes[i]!;
    return {
      t: this.times[i]!, tree: Math.floor(place / this.ports), port: place % this.ports, from: stateOf(code >> 8), to: stateOf(code & 255), role: roleOf(code & 255), cause: this.causes[i]!,
    };
  }

  /** How many changes have happened up to and at an instant. */
  until(t: Micros): number {
    let [low, high] = [0, this.count];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.times[middle]! <= t) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Every port of every tree at an instant: read it with `stateAt` and `roleAt`. */
  pictureAt(t: Micros): Uint8Array {
    const count = this.until(t);
    const picture = this.pictures[Math.floor(count / STRIDE)]!.slice();
    for (let i = count - (count % STRIDE); i < count; i += 1) picture[this.places[i]!] = this.codes[i]! & 255;
    return picture;
  }

  stateIn(picture: Uint8Array, tree: number, port: number): RunState {
    return stateOf(picture[tree * this.ports + port]!);
  }
  roleIn(picture: Uint8Array, tree: number, port: number): RunRole {
    return roleOf(picture[tree * this.ports + port]!);
  }

  /** The change that made a port what it is at an instant; null where it has been so from the start. */
  whyAt(tree: number, port: number, t: Micros): PortChange | null {
    const place = tree * this.ports + port;
    for (let i = this.until(t) - 1; i >= 0; i -= 1) if (this.places[i] === place) return this.change(i);
    return null;
  }

  private grow(): void {
    const size = this.times.length * 2;
    const [times, places, codes] = [new Float64Array(size), new Uint32Array(size), new Uint16Array(size)];
    times.set(this.times);
    places.set(this.places);
    codes.set(this.codes);
    [this.times, this.places, this.codes] = [times, places, codes];
  }
}

const coded = (state: RunState, role: RunRole): number => (RUN_STATES.indexOf(state) << 4) | RUN_ROLES.indexOf(role);
const stateOf = (code: number): RunState => RUN_STATES[code >> 4]!;
const roleOf = (code: number): RunRole => RUN_ROLES[code & 15]!;
