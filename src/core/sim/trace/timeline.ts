/** Many places with a code of eight bits each, and how they change: known at any instant without going through all of it. */
import type { Micros } from '../../modes/entity';

/** How many changes lie between two full pictures: so many are gone through at most to know an instant, which costs what copying the picture does. */
const strideOf = (places: number): number => Math.max(512, places >> 4);

/** A timeline as plain data: so many changes, and the codes at the start. */
export interface TimelineData {
  readonly start: Uint8Array;
  readonly times: Float64Array;
  readonly places: Uint32Array;
  /** The codes after each change. */
  readonly codes: Uint8Array;
}

/** Grows change by change, in the order of time; fourteen octets each. */
export class Timeline {
  count = 0;
  private times = new Float64Array(256);
  private places = new Uint32Array(256);
  /** The code before, then the code after. */
  private codes = new Uint16Array(256);
  /** All codes after each stride of changes; the first is the start. */
  private readonly pictures: Uint8Array[];
  private readonly now: Uint8Array;
  private readonly stride: number;

  constructor(start: Uint8Array) {
    this.now = start;
    this.stride = strideOf(start.length);
    this.pictures = [start.slice()];
  }

  add(t: Micros, place: number, code: number): void {
    if (this.count === this.times.length) this.grow();
    this.times[this.count] = t;
    this.places[this.count] = place;
    this.codes[this.count] = (this.now[place]! << 8) | code;
    this.now[place] = code;
    this.count += 1;
    if (this.count % this.stride === 0) this.pictures.push(this.now.slice());
  }

  atStart(place: number): number {
    return this.pictures[0]![place]!;
  }
  timeOf(i: number): Micros {
    return this.times[i]!;
  }
  placeOf(i: number): number {
    return this.places[i]!;
  }
  before(i: number): number {
    return this.codes[i]! >> 8;
  }
  after(i: number): number {
    return this.codes[i]! & 255;
  }

  data(): TimelineData {
    const { count } = this;
    return {
      start: this.pictures[0]!.slice(),
      times: this.times.slice(0, count),
      places: this.places.slice(0, count),
      codes: Uint8Array.from({ length: count }, (_, i) => this.after(i)),
    };
  }

  static from({ start, times, places, codes }: TimelineData): Timeline {
    const timeline = new Timeline(start.slice());
    times.forEach((t, i) => timeline.add(t, places[i]!, codes[i]!));
    return timeline;
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

  /** The codes of all places at an instant. */
  pictureAt(t: Micros): Uint8Array {
    const { stride } = this;
    const count = this.until(t);
    const picture = this.pictures[Math.floor(count / stride)]!.slice();
    for (let i = count - (count % stride); i < count; i += 1) picture[this.places[i]!] = this.codes[i]! & 255;
    return picture;
  }

  /** The last change of a place up to an instant; -1 where there is none. */
  lastOf(place: number, t: Micros): number {
    for (let i = this.until(t) - 1; i >= 0; i -= 1) if (this.places[i] === place) return i;
    return -1;
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
