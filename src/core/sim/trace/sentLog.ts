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

const ROOM = 1024;

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
  private rows = 0;
  /** Of each row: time of its first frame, how many, how far apart, port, tree, switch; BPDU and what is held beside it. */
  private columns = [new Float64Array(ROOM), new Float64Array(ROOM), new Float64Array(ROOM)] as const;
  private places = [new Uint32Array(ROOM), new Uint32Array(ROOM), new Uint32Array(ROOM)] as const;
  private readonly bpdus: Bpdu[] = [];
  private readonly helds: (Vector | null)[] = [];
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
    this.inOrder = null;
    if (this.rows === this.most) return;
    if (this.rows === this.columns[0].length) this.grow();
    const [firsts, counts, periods] = this.columns;
    const [ports, trees, origins] = this.places;
    firsts[this.rows] = t;
    counts[this.rows] = times;
    periods[this.rows] = period;
    ports[this.rows] = port;
    trees[this.rows] = tree;
    origins[this.rows] = origin;
    this.bpdus.push(bpdu);
    this.helds.push(held);
    this.rows += 1;
  }

  at(i: number): SentBpdu {
    const { times, rows } = this.ordered();
    const row = rows[i]!;
    const [ports, trees, origins] = this.places;
    const [bpdu, held] = [this.bpdus[row]!, this.helds[row]!];
    return { t: times[i]!, tree: trees[row]!, port: ports[row]!, bpdu, origin: origins[row]!, held };
  }
  portOf(i: number): number {
    return this.places[0][this.ordered().rows[i]!]!;
  }

  /** Times, ports and trees of all, for a player. */
  marks(): { readonly times: Float64Array; readonly ports: Uint32Array; readonly trees: Uint16Array } {
    const { times, rows } = this.ordered();
    const [ports, trees] = this.places;
    return {
      times: times.slice(),
      ports: Uint32Array.from(rows, (row) => ports[row]!),
      trees: Uint16Array.from(rows, (row) => trees[row]!),
    };
  }

  private ordered(): Ordered {
    return (this.inOrder ??= this.order());
  }

  private order(): Ordered {
    const queue = new EventQueue<number>();
    const [firsts, counts, periods] = this.columns;
    const [ports, trees] = this.places;
    const rankOf = (row: number): number => trees[row]! * MOST_PORTS + ports[row]!;
    for (let row = 0; row < this.rows; row += 1) queue.push(firsts[row]!, row, rankOf(row));
    const times = new Float64Array(this.count);
    const rows = new Uint32Array(this.count);
    for (let i = 0; i < this.count && queue.size > 0; i += 1) {
      const t = queue.next;
      const row = queue.pop();
      times[i] = t;
      rows[i] = row;
      const next = t + periods[row]!;
      if (next < firsts[row]! + counts[row]! * periods[row]!) queue.push(next, row, rankOf(row));
    }
    return { times, rows };
  }

  private grow(): void {
    const wider = <A extends Float64Array<ArrayBuffer> | Uint32Array<ArrayBuffer>>(next: A, old: A): A => {
      next.set(old);
      return next;
    };
    const size = this.rows * 2;
    const [a, b, c] = this.columns;
    this.columns = [
      wider(new Float64Array(size), a),
      wider(new Float64Array(size), b),
      wider(new Float64Array(size), c),
    ];
    const [d, e, f] = this.places;
    this.places = [wider(new Uint32Array(size), d), wider(new Uint32Array(size), e), wider(new Uint32Array(size), f)];
  }
}
