/** Every BPDU that went out of a port, in the order of time. */
import type { Bpdu } from '../../modes/bpdu';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Micros } from '../../modes/entity';
import type { Vector } from '../../modes/vector';

export interface SentBpdu {
  readonly t: Micros;
  readonly tree: number;
  readonly port: number;
  readonly bpdu: Bpdu;
  /** The switch that it is of; another one where the port's switch only lets it through. */
  readonly origin: number;
  /** What the port at the other end held before it came. */
  readonly held: Vector | null;
}

/** Most frames that a run keeps; later ones are only counted. */
export const MOST_FRAMES = 1_000_000;

/** An LACPDU, or a message of the older negotiation. Microseconds since the start. */
export interface SentLacpdu {
  readonly t: Micros;
  readonly member: number;
  readonly lacpdu: Lacpdu;
}

/** Grows up to `most`; later ones are only counted. */
export class SentLog {
  count = 0;
  /** How many there was no room for. */
  left = 0;
  private times = new Float64Array(1024);
  private places = new Uint32Array(1024);
  private trees = new Uint16Array(1024);
  private origins = new Uint32Array(1024);
  private readonly bpdus: Bpdu[] = [];
  private readonly helds: (Vector | null)[] = [];

  readonly most: number;

  constructor(most: number) {
    this.most = most;
  }

  add(t: Micros, tree: number, port: number, bpdu: Bpdu, origin: number, held: Vector | null): void {
    if (this.count === this.most) {
      this.left += 1;
      return;
    }
    if (this.count === this.times.length) this.grow();
    this.times[this.count] = t;
    this.places[this.count] = port;
    this.trees[this.count] = tree;
    this.origins[this.count] = origin;
    this.bpdus.push(bpdu);
    this.helds.push(held);
    this.count += 1;
  }

  at(i: number): SentBpdu {
    return {
      t: this.times[i]!,
      tree: this.trees[i]!,
      port: this.places[i]!,
      bpdu: this.bpdus[i]!,
      origin: this.origins[i]!,
      held: this.helds[i]!,
    };
  }
  portOf(i: number): number {
    return this.places[i]!;
  }

  /** Times, ports and trees of all, for a player. */
  marks(): { readonly times: Float64Array; readonly ports: Uint32Array; readonly trees: Uint16Array } {
    return {
      times: this.times.slice(0, this.count),
      ports: this.places.slice(0, this.count),
      trees: this.trees.slice(0, this.count),
    };
  }

  private grow(): void {
    const size = this.times.length * 2;
    const [times, places, trees, origins] = [
      new Float64Array(size),
      new Uint32Array(size),
      new Uint16Array(size),
      new Uint32Array(size),
    ];
    times.set(this.times);
    places.set(this.places);
    trees.set(this.trees);
    origins.set(this.origins);
    [this.times, this.places, this.trees, this.origins] = [times, places, trees, origins];
  }
}
