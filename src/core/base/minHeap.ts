/** A binary heap of (key, item) pairs in typed arrays, smallest key first; grows as needed, keeps no order among equals. */
export class MinHeap {
  private keys = new Float64Array(64);
  private items = new Int32Array(64);
  private count = 0;

  get size(): number {
    return this.count;
  }

  push(key: number, item: number): void {
    if (this.count === this.keys.length) this.grow();
    const { keys, items } = this;
    let at = this.count++;
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (keys[up]! <= key) break;
      keys[at] = keys[up]!;
      items[at] = items[up]!;
      at = up;
    }
    keys[at] = key;
    items[at] = item;
  }

  /** Takes the item with the smallest key; -1 from an empty heap. */
  pop(): number {
    if (this.count === 0) return -1;
    const { keys, items } = this;
    const best = items[0]!;
    const last = --this.count;
    const key = keys[last]!;
    let at = 0;
    for (let down = 1; down < last; down = 2 * at + 1) {
      if (down + 1 < last && keys[down + 1]! < keys[down]!) down += 1;
      if (keys[down]! >= key) break;
      keys[at] = keys[down]!;
      items[at] = items[down]!;
      at = down;
    }
    keys[at] = key;
    items[at] = items[last]!;
    return best;
  }

  private grow(): void {
    const keys = new Float64Array(this.count * 2);
    keys.set(this.keys);
    this.keys = keys;
    const items = new Int32Array(this.count * 2);
    items.set(this.items);
    this.items = items;
  }
}
