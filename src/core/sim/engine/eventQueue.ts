/** The clock's queue: what happens next, earliest first, in the order in which it was put in where moments are the same. */

/** A binary heap over integer times; the order of equals is that of their coming, so that a run can be had again. */
export class EventQueue<T> {
  private times = new Float64Array(1024);
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

  push(time: number, item: T): void {
    const { items } = this;
    if (items.length === this.times.length) this.grow();
    const { times, orders } = this;
    const order = (this.coming += 1);
    let at = items.length;
    items.push(item);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (times[up]! <= time) break; // an equal one came before
      times[at] = times[up]!;
      orders[at] = orders[up]!;
      items[at] = items[up]!;
      at = up;
    }
    times[at] = time;
    orders[at] = order;
    items[at] = item;
  }

  /** Takes what is next; only where `size` is not 0. */
  pop(): T {
    const { items, times, orders } = this;
    const first = items[0]!;
    const last = items.pop()!;
    const count = items.length;
    if (count === 0) return first;
    const [time, order] = [times[count]!, orders[count]!];
    let at = 0;
    for (let down = 1; down < count; down = 2 * at + 1) {
      const right = down + 1;
      if (
        right < count &&
        (times[right]! < times[down]! || (times[right]! === times[down]! && orders[right]! < orders[down]!))
      )
        down = right;
      if (times[down]! > time || (times[down]! === time && orders[down]! > order)) break;
      times[at] = times[down]!;
      orders[at] = orders[down]!;
      items[at] = items[down]!;
      at = down;
    }
    times[at] = time;
    orders[at] = order;
    items[at] = last;
    return first;
  }

  private grow(): void {
    const wider = (old: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> => {
      const next = new Float64Array(old.length * 2);
      next.set(old);
      return next;
    };
    this.times = wider(this.times);
    this.orders = wider(this.orders);
  }
}
