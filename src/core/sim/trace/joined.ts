/** What the parts of a run have written down, as one: in the order of time. */
import { MinHeap } from '../../base/minHeap';
import type { Micros } from '../../modes/entity';
import type { Part } from '../engine/parts';
import type { Outage, Storm } from '../traffic/dataPlane';
import { Reach } from '../traffic/reach';
import { FlushLog } from './flushLog';
import { Recording, type Cause } from './recording';

/** What one part has written down. */
export interface Written {
  readonly recording: Recording;
  readonly flushes: FlushLog;
  readonly reach: Reach;
  readonly outages: readonly Outage[];
  readonly storms: readonly Storm[];
}

/** Something in the order of time. */
interface Ordered {
  readonly count: number;
  readonly timeOf: (i: number) => Micros;
  /** Of what is at one moment, what comes first. */
  readonly rankOf: (i: number) => number;
}

/** Goes through several lists as one, as long as it is answered with true. */
function inOrder(lists: readonly Ordered[], visit: (list: number, i: number) => boolean): void {
  const heads = new MinHeap();
  const next = new Uint32Array(lists.length);
  const put = (list: number): void => {
    const { count, timeOf, rankOf } = lists[list]!;
    const i = next[list]!;
    if (i < count) heads.push(timeOf(i), list, rankOf(i) * lists.length + list);
  };
  for (const list of lists.keys()) put(list);
  for (let list = heads.pop(); list >= 0; list = heads.pop()) {
    if (!visit(list, next[list]!)) return;
    next[list]! += 1;
    put(list);
  }
}

/** What arrives is taken in before a timer is served; what is done to the network comes before both. */
const RANKS: Record<Cause['kind'], number> = { setting: 0, signal: 0, guard: 0, probe: 0, bpdu: 1, timer: 2 };

/** `trees`: of the whole run. */
export function joinRecordings(parts: readonly Part[], recordings: readonly Recording[], trees: number): Recording {
  const runs = new Map<number, readonly [part: number, run: number]>(
    parts.flatMap(({ told }, p) => told.flatMap((all, run) => all.map(({ tree }) => [tree, [p, run]] as const))),
  );
  const joined = new Recording(trees, recordings[0]!.ports, (tree, port) => {
    const [part, run] = runs.get(tree)!;
    return recordings[part]!.atStart(run, port);
  });
  const lists = recordings.map((recording): Ordered => ({
    count: recording.count,
    timeOf: (i) => recording.timeOf(i),
    rankOf: (i) => RANKS[recording.causeOf(i).kind],
  }));
  inOrder(lists, (part, i) => {
    const recording = recordings[part]!;
    for (const { tree } of parts[part]!.told[recording.treeOf(i)]!) joined.take(recording, i, tree);
    return true;
  });
  return joined;
}

/** At most `most` of them. */
export function joinFlushes(parts: readonly Part[], flushes: readonly FlushLog[], most: number): FlushLog {
  const joined = new FlushLog();
  const lists = flushes.map((own): Ordered => ({ count: own.count, timeOf: (i) => own.timeOf(i), rankOf: () => 0 }));
  inOrder(lists, (part, i) => {
    const own = flushes[part]!;
    for (const { tree } of parts[part]!.told[own.treeOf(i)]!)
      if (joined.count < most) joined.add(own.timeOf(i), tree, own.portOf(i));
    return joined.count < most;
  });
  return joined;
}

/** Each part tells of the pairs of its own VLANs. */
export function joinReaches(reaches: readonly Reach[]): Reach {
  const { pairs } = reaches[0]!;
  const atStart = reaches.map((reach) => reach.causesAt(-1));
  const joined = new Reach(
    pairs,
    pairs.map((_, pair) => atStart.map((causes) => causes[pair] ?? null).find((cause) => cause !== null) ?? null),
  );
  const lists = reaches.map((reach): Ordered => ({
    count: reach.count,
    timeOf: (i) => reach.timeOf(i),
    rankOf: () => 0,
  }));
  inOrder(lists, (part, i) => {
    const { pair, cause } = reaches[part]!.change(i);
    joined.add(reaches[part]!.timeOf(i), pair, cause);
    return true;
  });
  return joined;
}

/** In the order in which they end; those that last come last. */
export const joinStorms = (storms: readonly (readonly Storm[])[]): Storm[] =>
  storms.flat().sort((a, b) => (a.end ?? Infinity) - (b.end ?? Infinity) || a.vlan - b.vlan);
