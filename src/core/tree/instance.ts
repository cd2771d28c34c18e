/** The settled trees of MST instances (IEEE 802.1Q-2018 13.11, 13.12): one in each region that has the instance, whose boundary ports do what the CIST has them do. */
import { treeInstance, type TreeId } from '../model/ids';
import type { MstpContext } from './cist';
import { hasInstance } from '../topology/region';
import { designatedOn, disputeUnheard, mayLead, rolesOf, thrownAway } from './roles';
import type { Network } from '../topology/network';
import type { Wear } from './ageing';
import { CODE, type SettledTree } from './settled';
import { costsFrom, walkFromRoots } from './shortestPaths';

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
  const takes = (s: number, q: number, t: number): boolean =>
    inside[q] === 1 && rank[t]! >= 0 && regionOf[t] === regionOf[s] && mayLead(network, q);
  const wear = hopsFrom(network);
  const ways = costsFrom({ rank, cost, wear, takes });
  walkFromRoots(network, segments, rank, ways, { sends: (_, p) => inside[p] === 1 });
  const isLastHop = (s: number): boolean => !wear.counts(s, ways.root[s]!, s);
  const compareWays = (s: number, t: number): number =>
    rank[ways.root[s]!]! - rank[ways.root[t]!]! || ways.cost[s]! - ways.cost[t]!;
  const offersMore = (p: number, q: number): boolean => (compareWays(owner[p]!, owner[q]!) || compareSenders(p, q)) < 0;
  const within = designatedOn(network, segments, offersMore, (p) => inside[p] === 1 && rank[owner[p]!]! >= 0);
  const disputed = thrownAway(
    within,
    (from) => isLastHop(owner[from]!),
    () => true,
  );
  disputeUnheard(
    network,
    segments,
    disputed,
    { designated: within, isWorse: (p, than) => offersMore(than, p) },
    () => true,
  );

  const rootPort = new Int32Array(switches.length).fill(-1);
  for (let s = 0; s < switches.length; s += 1) {
    if (ways.root[s]! < 0 || ways.root[s] === s) continue;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = within[p]!;
      const t = from < 0 ? s : owner[from]!;
      if (
        t === s ||
        !mayLead(network, p) ||
        ways.root[t] !== ways.root[s] ||
        isLastHop(t) ||
        ways.cost[t]! + cost[p]! !== ways.cost[s]
      )
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

/** Every bridge takes a hop off; who hears a message with none left throws it away (13.29 updtRcvdInfoWhile). */
function hopsFrom({ switches }: Network): Wear {
  const left = new Int32Array(switches.length);
  return {
    begin: (s) => void (left[s] = switches[s]!.timers.maxHops),
    counts: (s) => left[s]! > 1,
    pass: (s, t) => void (left[t] = left[s]! - 1),
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
