/** Every BPDU that went out of a port, in the order of time. */
import type { Bpdu } from '../../modes/bpdu';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Micros } from '../../modes/entity';
import type { Vector } from '../../modes/vector';
import { EventQueue } from '../engine/eventQueue';
import { MOST_PORTS } from '../engine/running';

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

/** Frames in the order of their times, trees and ports: when each goes, and the row of what it is. */
interface Ordered {
  readonly times: Float64Array;
  readonly rows: Uint32Array;
}

/**
 * Keeps the first `most`, and counts the others. Frames that a port sends again and again are one row: the first, how many, how
 * far apart. Rows may come in any order; reading puts the frames in theirs.
 */
export class SentLog {
  readonly most: number;
  private total = 0;
  private readonly rows: (SentBpdu & { readonly times: number; readonly period: Micros })[] = [];
  private inOrder: Ordered | null = null;

  constructor(most: number) {
    this.most = most;
  }

  get count(): number {
    return Math.min(this.total, this.most);
  }
  /** How many there was no room for. */
  get left(): number {
    return this.total - this.count;
  }

  /** `times` of them, one every `period`. */
  add(
    t: Micros,
    tree: number,
    port: number,
    bpdu: Bpdu,
    origin: number,
    held: Vector | null,
    times = 1,
    period: Micros = 0,
  ): void {
    this.total += times;
    if (this.rows.length < this.most) this.rows.push({ t, tree, port, bpdu, origin, held, times, period });
    this.inOrder = null;
  }

  at(i: number): SentBpdu {
    const { times, rows } = this.ordered();
    const { tree, port, bpdu, origin, held } = this.rows[rows[i]!]!;
    return { t: times[i]!, tree, port, bpdu, origin, held };
  }
  portOf(i: number): number {
    return this.rows[this.ordered().rows[i]!]!.port;
  }

  /** Times, ports and trees of all, for a player. */
  marks(): { readonly times: Float64Array; readonly ports: Uint32Array; readonly trees: Uint16Array } {
    const { times, rows } = this.ordered();
    return {
      times: times.slice(),
      ports: Uint32Array.from(rows, (row) => this.rows[row]!.port),
      trees: Uint16Array.from(rows, (row) => this.rows[row]!.tree),
    };
  }

  private ordered(): Ordered {
    return (this.inOrder ??= this.order());
  }

  private order(): Ordered {
    const queue = new EventQueue<number>();
    const rankOf = ({ tree, port }: SentBpdu): number => tree * MOST_PORTS + port;
    this.rows.forEach((row, i) => queue.push(row.t, i, rankOf(row)));
    const times = new Float64Array(this.count);
    const rows = new Uint32Array(this.count);
    for (let i = 0; i < this.count && queue.size > 0; i += 1) {
      const t = queue.next;
      const at = queue.pop();
      const row = this.rows[at]!;
      times[i] = t;
      rows[i] = at;
      if (t + row.period < row.t + row.times * row.period) queue.push(t + row.period, at, rankOf(row));
    }
    return { times, rows };
  }
}
