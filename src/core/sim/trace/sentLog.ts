/** Every BPDU that went out of a port, in the order of time. */
import type { Bpdu } from '../../modes/bpdu';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Micros } from '../../modes/entity';
import type { Vector } from '../../modes/vector';
import { EventQueue } from '../engine/eventQueue';
import type { Told } from '../engine/parts';
import { bpduIn, packBpdus, packVectors, vectorIn } from './packed';
import { raisedVector, Retold } from './retold';

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

/** The rows of a log as plain data: how many frames they are, and the columns. */
export interface SentRows {
  readonly total: number;
  readonly columns: readonly Float64Array[];
  readonly places: readonly Uint32Array[];
}

/** What its rows say, as plain data: BPDUs, and what was held at the other end. */
export interface SentWords {
  readonly bpdus: Float64Array;
  readonly helds: Float64Array;
}

/** Rows from another log, whose words come when somebody asks. */
interface Taken {
  readonly from: number;
  readonly fetch: () => Promise<SentWords>;
  words: SentWords | null;
}

const ROOM = 1024;
/** More ports than a network has. */
const MOST_PORTS = 2 ** 20;

/** Frames in the order of their times, trees and ports: when each goes, in which tree, and the row of what it is. */
interface Ordered {
  readonly times: Float64Array;
  readonly trees: Uint16Array;
  readonly rows: Uint32Array;
}

/**
 * Keeps the first `most`, and counts the others. Frames that a port sends again and again are one row: the first, how many, how
 * far apart. Rows may come in any order; reading puts the frames in theirs, those of trees that fare alike beside each other.
 */
export class SentLog {
  readonly most: number;
  private total = 0;
  private rows = 0;
  /** What begins later is only counted. */
  private full: Micros = Infinity;
  /** Of each row: time of its first frame, how many, how far apart, port, tree that is run, switch; BPDU and what is held beside it. */
  private columns = [new Float64Array(ROOM), new Float64Array(ROOM), new Float64Array(ROOM)] as const;
  private places = [new Uint32Array(ROOM), new Uint32Array(ROOM), new Uint32Array(ROOM)] as const;
  private readonly bpdus: Bpdu[] = [];
  private readonly helds: (Vector | null)[] = [];
  /** Rows that others have written, from which on. */
  private readonly taken: Taken[] = [];
  private inOrder: Ordered | null = null;
  private readonly retold = new Retold();

  /** `told`: by tree that is run, those that its frames are told as. */
  private readonly told: readonly (readonly Told[])[];

  constructor(most: number, told: readonly (readonly Told[])[]) {
    this.most = most;
    this.told = told;
  }

  get count(): number {
    return Math.min(this.total, this.most);
  }
  /** How many there was no room for. */
  get left(): number {
    return this.total - this.count;
  }

  /** Everything up to a moment has been told: where that is enough, what begins later is only counted. */
  passed(t: Micros): void {
    if (this.total >= this.most) this.full = Math.min(this.full, t);
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
    this.total += times * this.told[tree]!.length;
    this.inOrder = null;
    if (t > this.full) return;
    if (this.rows === this.columns[0].length) this.grow(this.rows * 2);
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
    const { times, trees, rows } = this.ordered();
    const [row, tree] = [rows[i]!, trees[i]!];
    const [ports, run, origins] = this.places;
    const { by } = this.told[run[row]!]!.find((told) => told.tree === tree)!;
    const { bpdu, held } = this.saidIn(row);
    return {
      t: times[i]!,
      tree,
      port: ports[row]!,
      bpdu: this.retold.bpdu(bpdu, by),
      origin: origins[row]!,
      held: held && by !== 0 ? raisedVector(held, by) : held,
    };
  }
  private saidIn(row: number): { readonly bpdu: Bpdu; readonly held: Vector | null } {
    const other = this.taken.findLast(({ from }) => row >= from);
    if (!other) return { bpdu: this.bpdus[row]!, held: this.helds[row]! };
    const { from, words } = other;
    if (!words) throw new Error('the words of these rows have not been fetched');
    return { bpdu: bpduIn(words.bpdus, row - from), held: vectorIn(words.helds, row - from) };
  }

  portOf(i: number): number {
    return this.places[0][this.ordered().rows[i]!]!;
  }

  /** Times, ports and trees of all, for a player. */
  marks(): { readonly times: Float64Array; readonly ports: Uint32Array; readonly trees: Uint16Array } {
    const { times, trees, rows } = this.ordered();
    const [ports] = this.places;
    return { times: times.slice(), ports: Uint32Array.from(rows, (row) => ports[row]!), trees: trees.slice() };
  }

  /** Its rows, for somebody who puts several logs together. */
  data(): SentRows {
    const { total, rows, columns, places } = this;
    return {
      total,
      columns: columns.map((column) => column.slice(0, rows)),
      places: places.map((column) => column.slice(0, rows)),
    };
  }
  words(): SentWords {
    return { bpdus: packBpdus(this.bpdus), helds: packVectors(this.helds) };
  }

  /** Takes over the rows of another log of the same run; nothing is added afterwards. `fetch` gives what they say. */
  take(rows: SentRows, fetch: () => Promise<SentWords>): void {
    const from = this.rows;
    this.taken.push({ from, fetch, words: null });
    this.rows += rows.places[0]!.length;
    this.total += rows.total;
    this.inOrder = null;
    this.grow(Math.max(this.rows, this.columns[0].length));
    this.columns.forEach((column, i) => column.set(rows.columns[i]!, from));
    this.places.forEach((column, i) => column.set(rows.places[i]!, from));
  }

  /** Fetches what others have of it: to be waited for before any frame is read. */
  async complete(): Promise<void> {
    await Promise.all(this.taken.map(async (taken) => (taken.words ??= await taken.fetch())));
  }

  private ordered(): Ordered {
    return (this.inOrder ??= this.order());
  }

  private order(): Ordered {
    const { told, count } = this;
    const queue = new EventQueue<number>();
    const [firsts, counts, periods] = this.columns;
    const [ports, run] = this.places;
    const rankOf = (row: number): number => told[run[row]!]![0]!.tree * MOST_PORTS + ports[row]!;
    for (let row = 0; row < this.rows; row += 1) queue.push(firsts[row]!, row, rankOf(row));
    const ordered = { times: new Float64Array(count), trees: new Uint16Array(count), rows: new Uint32Array(count) };
    for (let i = 0; i < count && queue.size > 0;) {
      const t = queue.next;
      const row = queue.pop();
      for (const { tree } of told[run[row]!]!) {
        ordered.times[i] = t;
        ordered.trees[i] = tree;
        ordered.rows[i] = row;
        i += 1;
      }
      const next = t + periods[row]!;
      if (next < firsts[row]! + counts[row]! * periods[row]!) queue.push(next, row, rankOf(row));
    }
    return ordered;
  }

  private grow(size: number): void {
    const wider = <A extends Float64Array<ArrayBuffer> | Uint32Array<ArrayBuffer>>(next: A, old: A): A => {
      next.set(old);
      return next;
    };
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
