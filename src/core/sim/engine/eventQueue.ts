/** The clock's queue: what happens next, earliest first; of what happens at one moment, the lowest rank first, then what came first. */

/** A binary heap over integer times; the order of equals is theirs and that of their coming, so that a run can be had again. */
export class EventQueue<T> {
  private times = new Float64Array(1024);
  private ranks = new Float64Array(1024);
  private orders = new Float64Array(1024);
  private items: T[] = [];
  private coming = 0;

  get size(): number {
    return this.items.length;
  }

  /** The moment of what is next; Infinity where nothing is. */
  get next(): number {
    return this.items.length > 0 ? this.times[0]! : Infinity;
  }

  push(time: number, item: T, rank = 0): void {
    const { items } = this;
    if (items.length === this.times.length) this.grow();
    const { times, ranks } = this;
    const order = (this.coming += 1);
    let at = items.length;
    items.push(item);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (times[up]! < time || (times[up] === time && ranks[up]! <= rank)) break; // an equal one came before
      this.move(up, at);
      at = up;
    }
    this.put(at, time, rank, order, item);
  }

  /** Takes what is next; only where `size` is not 0. */
  pop(): T {
    const { items, times, ranks, orders } = this;
    const first = items[0]!;
    const last = items.pop()!;
    const count = items.length;
    if (count === 0) return first;
    const [time, rank, order] = [times[count]!, ranks[count]!, orders[count]!];
    let at = 0;
    for (let down = 1; down < count; down = 2 * at + 1) {
      const right = down + 1;
      if (right < count && this.isBefore(right, times[down]!, ranks[down]!, orders[down]!)) down = right;
      if (!this.isBefore(down, time, rank, order)) break;
      this.move(down, at);
      at = down;
    }
    this.put(at, time, rank, order, last);
    return first;
  }

  private isBefore(at: number, time: number, rank: number, order: number): boolean {
    const by = this.times[at]! - time || this.ranks[at]! - rank || this.orders[at]! - order;
    return by < 0;
  }

  private move(from: number, to: number): void {
    this.put(to, this.times[from]!, this.ranks[from]!, this.orders[from]!, this.items[from]!);
  }

  private put(at: number, time: number, rank: number, order: number, item: T): void {
    this.times[at] = time;
    this.ranks[at] = rank;
    this.orders[at] = order;
    this.items[at] = item;
  }

  private grow(): void {
    const wider = (old: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> => {
      const next = new Float64Array(old.length * 2);
      next.set(old);
      return next;
    };
    this.times = wider(this.times);
    this.ranks = wider(this.ranks);
    this.orders = wider(this.orders);
  }
}
