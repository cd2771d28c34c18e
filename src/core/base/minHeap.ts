/** A binary heap of items by key, of equal keys by tie, in typed arrays, smallest first; grows as needed, keeps no order among equals. */
export class MinHeap {
  private keys = new Float64Array(64);
  private ties = new Float64Array(64);
  private items = new Int32Array(64);
  private count = 0;

  get size(): number {
    return this.count;
  }

  push(key: number, item: number, tie = 0): void {
    if (this.count === this.keys.length) this.grow();
    const { keys, ties, items } = this;
    let at = this.count++;
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (keys[up]! < key || (keys[up] === key && ties[up]! <= tie)) break;
      keys[at] = keys[up]!;
      ties[at] = ties[up]!;
      items[at] = items[up]!;
      at = up;
    }
    keys[at] = key;
    ties[at] = tie;
    items[at] = item;
  }

  /** Takes the item with the smallest key; -1 from an empty heap. */
  pop(): number {
    if (this.count === 0) return -1;
    const { keys, ties, items } = this;
    const best = items[0]!;
    const last = --this.count;
    const [key, tie] = [keys[last]!, ties[last]!];
    let at = 0;
    for (let down = 1; down < last; down = 2 * at + 1) {
      const other = down + 1;
      if (other < last && (keys[other]! < keys[down]! || (keys[other] === keys[down] && ties[other]! < ties[down]!)))
        down = other;
      if (keys[down]! > key || (keys[down] === key && ties[down]! >= tie)) break;
      keys[at] = keys[down]!;
      ties[at] = ties[down]!;
      items[at] = items[down]!;
      at = down;
    }
    keys[at] = key;
    ties[at] = tie;
    items[at] = items[last]!;
    return best;
  }

  private grow(): void {
    this.keys = doubled(this.keys, Float64Array);
    this.ties = doubled(this.ties, Float64Array);
    this.items = doubled(this.items, Int32Array);
  }
}

function doubled<T extends Float64Array | Int32Array>(array: T, kind: new (length: number) => T): T {
  const next = new kind(array.length * 2);
  next.set(array);
  return next;
}
