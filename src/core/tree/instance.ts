/** The settled trees of MST instances (IEEE 802.1Q-2018 13.11, 13.12): one in each region that has the instance, whose boundary ports do what the CIST has them do. */
import { treeInstance, type TreeId } from '../model/ids';
import { MinHeap } from '../base/minHeap';
import type { MstpContext } from './cist';
import type { Network } from '../topology/network';
import { hasInstance } from '../topology/region';
import { designatedOn, rolesOf, thrownAway } from './roles';
import type { Segments } from '../topology/segments';
import { CODE, type SettledTree } from './settled';

/** How bridges reach the root of their region in one instance. */
interface Ways {
  readonly root: Int32Array;
  readonly cost: Float64Array;
  /** Remaining hops, as a bridge sends them. */
  readonly hops: Int32Array;
}

/** The tree of an instance in every region that has it. */
export function solveInstance(
  { network, segments, settings, regions, regionOf }: MstpContext,
  cist: SettledTree,
  id: TreeId,
): SettledTree {
  const { inside } = cist.regional!;
  const { switches, owner, order, firstPort, ports } = network;
  const mstid = treeInstance(id)!;
  const { cost, portKey } = settings.portsIn(id);
  const rank = settings
    .bridgesIn(id)
    .map((place, s) => (segments.parts[s] === 'bridge' && regions[s] && hasInstance(regions[s], mstid) ? place : -1));
  const comparePorts = (p: number, q: number): number => portKey[p]! - portKey[q]! || order[p]! - order[q]!;
  const compareSenders = (p: number, q: number): number => rank[owner[p]!]! - rank[owner[q]!]! || comparePorts(p, q);
  const ways = waysInside(network, segments, { inside, regionOf, rank, cost });
  const compareWays = (s: number, t: number): number =>
    rank[ways.root[s]!]! - rank[ways.root[t]!]! || ways.cost[s]! - ways.cost[t]!;
  const offersMore = (p: number, q: number): boolean => (compareWays(owner[p]!, owner[q]!) || compareSenders(p, q)) < 0;
  const within = designatedOn(network, segments, offersMore, (p) => inside[p] === 1 && rank[owner[p]!]! >= 0);
  const disputed = thrownAway(within, (from) => ways.hops[owner[from]!]! <= 1);

  const rootPort = new Int32Array(switches.length).fill(-1);
  for (let s = 0; s < switches.length; s += 1) {
    if (ways.root[s]! < 0 || ways.root[s] === s) continue;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = within[p]!;
      const t = from < 0 ? s : owner[from]!;
      if (t === s || ways.root[t] !== ways.root[s] || ways.hops[t]! <= 1 || ways.cost[t]! + cost[p]! !== ways.cost[s])
        continue;
      const now = rootPort[s]!;
      if (now < 0 || (compareSenders(from, within[now]!) || comparePorts(p, now)) < 0) rootPort[s] = p;
    }
  }
  const inner = rolesOf(network, segments, rootPort, within);
  const role = new Uint8Array(ports.length);
  const designated = new Int32Array(ports.length).fill(-1);
  for (let p = 0; p < ports.length; p += 1) {
    if (rank[owner[p]!]! < 0 || !segments.member[p]) continue;
    const led = inside[p] === 1 || cist.role[p] === CODE.disabled;
    role[p] = led ? inner[p]! : OUTSIDE[cist.role[p]!]!;
    designated[p] = led ? within[p]! : cist.designated[p]!;
    if (!led) disputed[p] = cist.disputed[p]!;
  }
  return {
    id,
    rank,
    rootPort,
    designated,
    cost,
    role,
    root: ways.root,
    rootPathCost: ways.cost,
    regional: { root: ways.root, cost: ways.cost, inside },
    disputed,
  };
}

/** What a port at a region's boundary is in an instance, by its role in the CIST. */
const OUTSIDE: Readonly<Record<number, number>> = {
  [CODE.absent]: CODE.absent,
  [CODE.root]: CODE.master,
  [CODE.designated]: CODE.designated,
  [CODE.alternate]: CODE.alternate,
  [CODE.backup]: CODE.alternate,
  [CODE.disabled]: CODE.disabled,
  [CODE.master]: CODE.master,
};

interface Inside {
  readonly inside: Uint8Array;
  readonly regionOf: Int32Array;
  readonly rank: Int32Array;
  readonly cost: Int32Array;
}

/**
 * The best bridge that hops are left to is the root of each, and costs add up away from it; of ways of one cost the hops of
 * the better sender's count, as for the root port. A segment is crossed once, by its designated bridge.
 */
function waysInside(
  { switches, owner, firstPort }: Network,
  { of, first, ports }: Segments,
  { inside, regionOf, rank, cost }: Inside,
): Ways {
  const count = switches.length;
  const ways: Ways = {
    root: new Int32Array(count).fill(-1),
    cost: new Float64Array(count).fill(Infinity),
    hops: new Int32Array(count),
  };
  const settled = new Uint8Array(count);
  const crossed = new Uint8Array(first.length);
  /** The bridge that a bridge hears its way from. */
  const from = new Int32Array(count).fill(-1);
  const byRank = new Int32Array(count).fill(-1);
  rank.forEach((place, s) => place >= 0 && (byRank[place] = s));
  const heap = new MinHeap();
  for (const best of byRank) {
    if (best < 0 || settled[best]) continue;
    ways.root[best] = best;
    ways.cost[best] = 0;
    ways.hops[best] = switches[best]!.timers.maxHops;
    heap.push(rank[best]!, best);
    while (heap.size > 0) {
      const s = heap.pop();
      if (settled[s]) continue;
      settled[s] = 1;
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
        if (of[p]! >= 0 && inside[p] && !crossed[of[p]!]) cross(s, of[p]!);
    }
  }
  return ways;

  function cross(s: number, segment: number): void {
    crossed[segment] = 1;
    if (ways.hops[s]! <= 1) return; // whoever hears it throws it away
    for (let i = first[segment]!; i < first[segment + 1]!; i += 1) {
      const q = ports[i]!;
      const t = owner[q]!;
      if (settled[t] || !inside[q] || rank[t]! < 0 || regionOf[t] !== regionOf[s]) continue;
      const total = ways.cost[s]! + cost[q]!;
      if (total > ways.cost[t]! || (total === ways.cost[t] && rank[s]! >= rank[from[t]!]!)) continue;
      if (total < ways.cost[t]!) heap.push(total * count + rank[t]!, t); // of equals the better bridge first
      ways.root[t] = ways.root[s]!;
      ways.cost[t] = total;
      ways.hops[t] = ways.hops[s]! - 1;
      from[t] = s;
    }
  }
}
