/**
 * The shortest-path walk of every tree (IEEE 802.1Q-2018 13.9 to 13.11): the best bridge of each island is its root, and what
 * it sends grows with every hop. What a message holds, and when it is thrown away, differs from tree to tree: `Messages`.
 */
import { MinHeap } from '../base/minHeap';
import { hearingOn } from './hearing';
import type { Network } from '../topology/network';
import type { Wear } from './ageing';
import type { Segments } from '../topology/segments';

/** The best message of each bridge so far. */
export interface Messages {
  /** The root of each bridge, -1 before it has heard of one. */
  readonly root: Int32Array;
  /** Makes a bridge a root. */
  begin(s: number): void;
  /**
   * Takes what bridge s says, heard by port q of bridge t, where it is better than what t knows; of what is equal, the better
   * sender's. Gives whether it is better.
   */
  hear(s: number, q: number, t: number): boolean;
  /** How near a bridge is to its root: by `far`, of those alike by `farther`; then the better bridge first. */
  far(t: number): number;
  farther(t: number): number;
}

/** What keeps messages from passing everywhere in a segment; each is left out where it does not arise. */
export interface Bounds {
  /** Whether what a bridge says by a port takes part at all. */
  readonly sends?: (s: number, p: number) => boolean;
  /** Ports that hear a port though they are not of its segment. */
  readonly beside?: ReadonlyMap<number, readonly number[]>;
}

/** Walks away from the roots, the best bridge first; `rank` is the place of each bridge among them, -1 of those that take no part. */
export function walkFromRoots(
  network: Network,
  segments: Segments,
  rank: Int32Array,
  messages: Messages,
  { sends, beside }: Bounds = {},
): void {
  const { firstPort, owner } = network;
  const count = rank.length;
  const byRank = new Int32Array(count).fill(-1);
  rank.forEach((place, s) => place >= 0 && (byRank[place] = s));
  const settled = new Uint8Array(count);
  const crossed = new Uint8Array(segments.first.length);
  const heap = new MinHeap();
  const hear = (s: number, q: number): void => {
    const t = owner[q]!;
    if (!settled[t] && messages.hear(s, q, t)) heap.push(messages.far(t), t, messages.farther(t) * count + rank[t]!);
  };
  const hearing = hearingOn(network, segments);
  /** By segment where BPDUs are filtered, the ports that speak there: nearer ones that it hears silence a port. */
  const speakers = new Map<number, number[]>();
  const speak = (s: number, p: number, segment: number): void => {
    const before = speakers.get(segment) ?? [];
    if (before.some((other) => hearing!.hears(other, p))) return;
    speakers.set(segment, [...before, p]);
    for (let i = segments.first[segment]!; i < segments.first[segment + 1]!; i += 1)
      if (hearing!.hears(p, segments.ports[i]!)) hear(s, segments.ports[i]!);
  };
  for (const best of byRank) {
    if (best < 0 || messages.root[best]! >= 0) continue;
    messages.begin(best);
    heap.push(0, best);
    while (heap.size > 0) {
      const s = heap.pop();
      if (settled[s]) continue;
      settled[s] = 1;
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
        const segment = segments.of[p]!;
        if (segment < 0 || (sends && !sends(s, p))) continue;
        if (beside) for (const q of beside.get(p) ?? []) if (!hearing || hearing.hears(p, q)) hear(s, q);
        if (hearing?.filtered[segment]) {
          speak(s, p, segment);
          continue;
        }
        if (crossed[segment]) continue;
        crossed[segment] = 1; // the first bridge to reach a segment is its nearest
        for (let i = segments.first[segment]!; i < segments.first[segment + 1]!; i += 1) hear(s, segments.ports[i]!);
      }
    }
  }
}

/** Messages that hold one cost. */
export interface Costs extends Messages {
  readonly cost: Float64Array;
}

interface CostRules {
  readonly rank: Int32Array;
  /** Of each port. */
  readonly cost: Int32Array;
  /** What grows with every bridge beside the cost. */
  readonly wear: Wear;
  /** Whether port q of bridge t takes in what bridge s says; always, where it is left out. */
  readonly takes?: (s: number, q: number, t: number) => boolean;
}

/** Costs add up away from the root, as far as messages count. */
export function costsFrom({ rank, cost, wear, takes }: CostRules): Costs {
  const count = rank.length;
  const root = new Int32Array(count).fill(-1);
  const total = new Float64Array(count).fill(Infinity);
  /** The bridge that a bridge hears its way from. */
  const from = new Int32Array(count).fill(-1);
  return {
    root,
    cost: total,
    begin(s) {
      root[s] = s;
      total[s] = 0;
      wear.begin(s);
    },
    hear(s, q, t) {
      const there = total[s]! + cost[q]!;
      if (there > total[t]! || !wear.counts(s, root[s]!, t) || (takes && !takes(s, q, t))) return false;
      const better = there < total[t]!;
      if (!better && rank[s]! >= rank[from[t]!]!) return false;
      total[t] = there;
      root[t] = root[s]!;
      wear.pass(s, t);
      from[t] = s;
      return better;
    },
    far: (t) => total[t]!,
    farther: () => 0,
  };
}
