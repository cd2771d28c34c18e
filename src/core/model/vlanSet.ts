/**
 * A set of VLAN IDs (1 to 4094, IEEE 802.1Q-2018 clause 9.6), written as ranges: `15,25-29`.
 * Immutable. The empty set is written as the empty text.
 */
import { oncePerText } from '../base/cache';
import { fail, ok, type Result } from '../base/result';

/** Lowest VLAN ID that a frame can belong to. */
export const MIN_VLAN = 1;
/** Highest VLAN ID: 4095 is reserved. */
export const MAX_VLAN = 4094;

/** Where in the text (0-based offset) a VLAN set went wrong, and what would be right. */
export interface VlanSetError {
  readonly at: number;
  readonly found: string;
  readonly allowed: string;
}

const WORDS = 128;
const ALLOWED = 'VLAN IDs 1 to 4094, single or as rising ranges, with commas between: 15,25-29';

export class VlanSet {
  static readonly empty = new VlanSet(new Uint32Array(WORDS));
  static readonly all = VlanSet.of([[MIN_VLAN, MAX_VLAN]]);

  private readonly words: Uint32Array;

  private constructor(words: Uint32Array) {
    this.words = words;
  }

  /** Builds a set from inclusive ranges of legal VLAN IDs. */
  static of(ranges: Iterable<readonly [number, number]>): VlanSet {
    const words = new Uint32Array(WORDS);
    for (const [first, last] of ranges) {
      for (let vid = first; vid <= last; vid += 1) words[vid >>> 5]! |= 1 << (vid & 31);
    }
    return new VlanSet(words);
  }

  /** Reads `1-4094` or `15, 25-29`; spaces are allowed around numbers, order and overlap do not matter. */
  static parse(text: string): Result<VlanSet, VlanSetError> {
    if (text.trim() === '') return ok(VlanSet.empty);
    const ranges: [number, number][] = [];
    let offset = 0;
    for (const part of text.split(',')) {
      const range = parseRange(part, offset);
      if (!range.ok) return range;
      ranges.push(range.value);
      offset += part.length + 1;
    }
    return ok(VlanSet.of(ranges));
  }

  has(vid: number): boolean {
    return ((this.words[vid >>> 5] ?? 0) & (1 << (vid & 31))) !== 0;
  }

  /** The VLANs that are in one of the two sets but not in both. */
  differenceBothWays(other: VlanSet): VlanSet {
    return new VlanSet(this.words.map((word, i) => word ^ other.words[i]!));
  }

  union(other: VlanSet): VlanSet {
    return new VlanSet(this.words.map((word, i) => word | other.words[i]!));
  }

  intersect(other: VlanSet): VlanSet {
    return new VlanSet(this.words.map((word, i) => word & other.words[i]!));
  }

  /** This set and some VLANs more. */
  with(vids: Iterable<number>): VlanSet {
    return this.union(VlanSet.of([...vids].map((vid) => [vid, vid])));
  }

  isSame(other: VlanSet): boolean {
    return this === other || this.words.every((word, i) => word === other.words[i]);
  }

  get isEmpty(): boolean {
    return this.words.every((word) => word === 0);
  }

  /** The inclusive ranges in rising order, none touching the next. */
  ranges(): [number, number][] {
    const found: [number, number][] = [];
    for (let vid = MIN_VLAN; vid <= MAX_VLAN; vid += 1) {
      // Most words of most sets are empty.
      if ((vid & 31) === 0 && this.words[vid >>> 5] === 0) vid += 31;
      if (!this.has(vid)) continue;
      const first = vid;
      while (vid < MAX_VLAN && this.has(vid + 1)) vid += 1;
      found.push([first, vid]);
    }
    return found;
  }

  /** The one canonical text of this set; `parse` of it gives an equal set. */
  format(): string {
    return this.ranges()
      .map(([first, last]) => (first === last ? `${first}` : `${first}-${last}`))
      .join(',');
  }
}

function parseRange(part: string, offset: number): Result<[number, number], VlanSetError> {
  const wrong = (why: string): Result<never, VlanSetError> =>
    fail({ at: offset + (part.length - part.trimStart().length), found: why, allowed: ALLOWED });
  const match = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(part);
  if (!match) return wrong(part.trim() === '' ? 'an empty place between commas' : `"${part.trim()}"`);
  const first = Number(match[1]);
  const last = match[2] === undefined ? first : Number(match[2]);
  for (const vid of [first, last]) {
    if (vid < MIN_VLAN || vid > MAX_VLAN) return wrong(`VLAN ${vid}`);
  }
  if (last < first) return wrong(`"${part.trim()}", which runs backwards (${last}-${first}?)`);
  return ok([first, last]);
}

/** The set that a text of an already checked design stands for; remembered, since few texts recur on many ports. */
export const vlanSet = oncePerText((text: string): VlanSet => {
  const parsed = VlanSet.parse(text);
  if (!parsed.ok) throw new Error(`not a VLAN set: ${text}`);
  return parsed.value;
}, 4096);

/** `15,25-29` of a list of VLAN IDs. */
export const vlansText = (vids: Iterable<number>): string => VlanSet.of([...vids].map((vid) => [vid, vid])).format();
