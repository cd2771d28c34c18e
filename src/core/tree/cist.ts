/**
 * The settled CIST of a network in which some bridges speak MSTP (IEEE 802.1Q-2018 13.9 to 13.12), with costs within a
 * region told apart from those between regions; the trees of instances are in instance.ts.
 * Priority vectors are (root, external root path cost, regional root, internal root path cost, bridge, port).
 */
import { readsRst } from '../model/document';
import { oncePer } from '../base/cache';
import { CIST } from '../model/ids';
import { setExternalCost } from '../topology/bridgeId';
import { methodOf } from '../model/costMethod';
import type { Network } from '../topology/network';
import { pathCostOf } from '../topology/pathCost';
import { regionsOf, sameRegion, type RegionMap } from '../topology/region';
import { segmentsOf, type Segments } from '../topology/segments';
import type { TreeSettings } from './settings';
import { ageing, noticing } from './ageing';
import { boundsBeside, silencedBeside } from './beside';
import { forcedOn, isOld } from './hearing';
import { designatedOn, disputeBeside, disputeUnheard, mayLead, rolesOf, thrownAway } from './roles';
import { markHeld } from './held';
import type { SettledTree } from './settled';
import { walkFromRoots, type Messages } from './shortestPaths';

/** What is the same for every tree of one network. */
export interface MstpContext {
  readonly network: Network;
  /** Of the CIST. */
  readonly segments: Segments;
  readonly settings: TreeSettings;
  readonly regions: readonly (RegionMap | null)[];
  /** Equal where two switches are of one region; -1 of a switch without MSTP. */
  readonly regionOf: Int32Array;
}

export function mstpContext(network: Network, segments: Segments, settings: TreeSettings): MstpContext {
  const regions = network.switches.map(regionsOf(network.design));
  return { network, segments, settings, regions, regionOf: numbered(regions) };
}

/** The place of each switch's region among those that differ. */
function numbered(regions: readonly (RegionMap | null)[]): Int32Array {
  const known = new Map<RegionMap, number>();
  const distinct: RegionMap[] = [];
  const numberOf = (map: RegionMap): number => {
    const at = distinct.findIndex((other) => sameRegion(other, map));
    return at >= 0 ? at : distinct.push(map) - 1;
  };
  return Int32Array.from(regions, (map) => {
    if (!map) return -1;
    const at = known.get(map) ?? numberOf(map);
    known.set(map, at);
    return at;
  });
}

/** 1 for each port that leads to bridges of its own region alone, whoever is designated there. */
export const insidePorts = oncePer((network: Network): Uint8Array => {
  const segments = segmentsOf(network, CIST, () => false);
  const regionOf = numbered(network.switches.map(regionsOf(network.design)));
  const forced = forcedOn(network, segments);
  return Uint8Array.from(network.ports, (_, p) => {
    const own = regionOf[network.owner[p]!]!;
    const others = neighboursOf(segments, p);
    return own >= 0 && !forced(p) && others.length > 0 && others.every((q) => regionOf[network.owner[q]!] === own)
      ? 1
      : 0;
  });
});

/** The other ports on a port's segment: the same for every tree of a network. */
const neighboursOf = (segments: Segments, p: number): readonly number[] => neighbours(segments)[p]!;
const neighbours = oncePer(({ of, first, ports }: Segments): readonly (readonly number[])[] =>
  Array.from(of, (segment, port) =>
    segment < 0 ? NOBODY : Array.from(ports.subarray(first[segment], first[segment + 1])).filter((q) => q !== port),
  ),
);
const NOBODY: readonly number[] = [];

/** How bridges reach the root. */
interface Ways extends Messages {
  readonly external: Float64Array;
  readonly regional: Int32Array;
  readonly internal: Float64Array;
  /** What bridge t makes of a message of bridge s that it hears by port q: null where it throws it away. */
  heard(s: number, q: number, t: number): Heard | null;
  /** Who bridge t takes bridge s for, that it hears by port q: who reads an MST BPDU as an RST one sees the regional root in it (14.4), where version 0 is spoken it is the sender's own (13.29). */
  seenRank(s: number, q: number, t: number): number;
}

interface Heard {
  readonly external: number;
  readonly regional: number;
  readonly internal: number;
}

/** The CIST (13.9, 13.10). */
/** `held`: ports that discard whatever their role. */
export function solveCist(context: MstpContext, held: Iterable<number> = []): SettledTree {
  const { network, segments, settings, regionOf } = context;
  const { switches, owner, ports, design } = network;
  const { cost: internalCost, portKey } = settings.portsIn(CIST);
  const externalCost = Int32Array.from(ports, (port, p) => {
    const sw = switches[owner[p]!]!;
    return setExternalCost(port, CIST, sw.dialect) ?? pathCostOf(port.speed, methodOf(design, sw));
  });
  const rank = settings.bridgesIn(CIST).map((place, s) => (segments.parts[s] === 'bridge' ? place : -1));
  const forced = forcedOn(network, segments);
  const ofOne = (s: number, p: number, t: number): boolean =>
    regionOf[s]! >= 0 && regionOf[s] === regionOf[t] && !forced(p);
  const ways = waysIn(context, { rank, internalCost, externalCost, ofOne, forced });
  const comparePorts = (p: number, q: number): number =>
    portKey[p]! - portKey[q]! || network.order[p]! - network.order[q]!;
  const offersMore = offersMoreBy(context, ways, rank, comparePorts);
  const nearer = (q: number, p: number): boolean => ways.root[owner[q]!] === ways.root[owner[p]!] && offersMore(q, p);
  walkFromRoots(network, segments, rank, ways, boundsBeside(network, segments, nearer));
  const designated = silencedBeside(network, segments, designatedOn(network, segments, offersMore), offersMore);
  // A LAN is inside of a region where its designated bridge is of it; ports of other regions there are at their boundary.
  const inside = Uint8Array.from(ports, (_, p) => {
    const best = designated[p]!;
    return best >= 0 &&
      ofOne(owner[p]!, p, owner[best]!) &&
      neighboursOf(segments, p).some((q) => ofOne(owner[p]!, p, owner[q]!))
      ? 1
      : 0;
  });
  const noticed = noticing(network, segments);
  const disputed = thrownAway(designated, (from, p) => ways.heard(owner[from]!, p, owner[p]!) === null, noticed);
  const hears = { designated, isWorse: (p: number, than: number) => offersMore(than, p) };
  markHeld(disputed, held); // who learns nothing is no reason to dispute
  disputeBeside(network, disputed, hears, noticed);
  disputeUnheard(network, segments, disputed, hears, noticed);
  markHeld(disputed, held);
  const hearsBetter = (p: number, q: number, s: number): boolean =>
    (ways.seenRank(owner[designated[p]!]!, p, s) - ways.seenRank(owner[designated[q]!]!, q, s) ||
      portKey[designated[p]!]! - portKey[designated[q]!]! ||
      comparePorts(p, q)) < 0;
  const rootPort = rootPortsOf(network, ways, designated, hearsBetter);
  return {
    id: CIST,
    rank,
    rootPort,
    designated,
    cost: Int32Array.from(ports, (_, p) => (inside[p] ? internalCost[p]! : externalCost[p]!)),
    root: ways.root,
    rootPathCost: ways.external,
    role: rolesOf(network, segments, rootPort, designated),
    regional: { root: ways.regional, cost: ways.internal, inside },
    disputed,
  };
}

interface CistRules {
  readonly rank: Int32Array;
  readonly internalCost: Int32Array;
  readonly externalCost: Int32Array;
  /** Whether a bridge hears another at a port as one of its region. */
  readonly ofOne: (s: number, p: number, t: number) => boolean;
  /** Whether everybody speaks version 0 at a port. */
  readonly forced: (p: number) => boolean;
}

/**
 * Outside of a region the external cost grows and messages grow older; inside of it the internal cost grows, and a hop is
 * used up: who hears a last hop inside, or outside what is too old, throws it away (13.29 updtRcvdInfoWhile). Equal messages
 * may have unlike hops and ages: those of the better sender count, as for the root port.
 */
function waysIn(
  { network, regionOf }: MstpContext,
  { rank, internalCost, externalCost, ofOne, forced }: CistRules,
): Ways {
  const { switches } = network;
  const count = switches.length;
  const wear = ageing(network);
  const root = new Int32Array(count).fill(-1);
  const external = new Float64Array(count).fill(Infinity);
  const regional = new Int32Array(count).fill(-1);
  const internal = new Float64Array(count).fill(Infinity);
  /** Remaining hops, as a bridge sends them. */
  const hops = new Int32Array(count);
  /** Who a bridge takes the one for that it hears its way from. */
  const fromRank = new Int32Array(count).fill(-1);
  const far = (cost: number, of: number): number => cost * count + rank[of]!; // external cost, then the better regional root
  const heard = (s: number, q: number, t: number): Heard | null => {
    if (ofOne(s, q, t))
      return hops[s]! > 1
        ? { external: external[s]!, regional: regional[s]!, internal: internal[s]! + internalCost[q]! }
        : null;
    return wear.counts(s, root[s]!, t) ? { external: external[s]! + externalCost[q]!, regional: t, internal: 0 } : null;
  };
  const seenRank = (s: number, q: number, t: number): number =>
    rank[readsRst(switches[t]!) && regionOf[s]! >= 0 && !forced(q) ? regional[s]! : s]!;
  return {
    root,
    external,
    regional,
    internal,
    heard,
    seenRank,
    begin(s) {
      root[s] = regional[s] = s;
      external[s] = internal[s] = 0;
      hops[s] = switches[s]!.timers.maxHops;
      wear.begin(s);
    },
    hear(s, q, t) {
      const message = mayLead(network, q) ? heard(s, q, t) : null;
      if (!message) return false;
      const order =
        root[t]! < 0
          ? -1
          : far(message.external, message.regional) - far(external[t]!, regional[t]!) ||
            message.internal - internal[t]!;
      if (order > 0 || (order === 0 && seenRank(s, q, t) >= fromRank[t]!)) return false;
      root[t] = root[s]!;
      external[t] = message.external;
      regional[t] = message.regional;
      internal[t] = message.internal;
      hops[t] = ofOne(s, q, t) ? hops[s]! - 1 : switches[t]!.timers.maxHops;
      if (ofOne(s, q, t)) wear.keep(s, t);
      else wear.pass(s, t);
      fromRank[t] = seenRank(s, q, t);
      return order < 0;
    },
    far: (t) => far(external[t]!, regional[t]!),
    farther: (t) => internal[t]!,
  };
}

/** Who offers more on a LAN; where a classic bridge is attached, each bridge stands in the place of its regional root (13.10). */
function offersMoreBy(
  { network, segments }: MstpContext,
  { root, external, regional, internal }: Ways,
  rank: Int32Array,
  comparePorts: (p: number, q: number) => number,
): (p: number, q: number) => boolean {
  const { owner } = network;
  const classic = new Uint8Array(segments.first.length);
  segments.of.forEach((segment, p) => segment >= 0 && isOld(network, p) && (classic[segment] = 1));
  return (p, q) => {
    const [s, t] = [owner[p]!, owner[q]!];
    const own = classic[segments.of[p]!] === 1;
    return (
      (rank[root[s]!]! - rank[root[t]!]! ||
        external[s]! - external[t]! ||
        rank[own ? s : regional[s]!]! - rank[own ? t : regional[t]!]! ||
        internal[s]! - internal[t]! ||
        rank[s]! - rank[t]! ||
        comparePorts(p, q)) < 0
    );
  };
}

/** The port of each bridge with the best root priority vector; -1 at roots. */
function rootPortsOf(
  network: Network,
  { root, external, regional, internal, heard }: Ways,
  designated: Int32Array,
  hearsBetter: (p: number, q: number, s: number) => boolean,
): Int32Array {
  const { owner, firstPort } = network;
  const rootPort = new Int32Array(root.length).fill(-1);
  for (let s = 0; s < root.length; s += 1) {
    if (root[s]! < 0 || root[s] === s) continue;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = designated[p]!;
      if (from < 0 || owner[from] === s || root[owner[from]!] !== root[s] || !mayLead(network, p)) continue;
      const way = heard(owner[from]!, p, s);
      if (!way || way.external !== external[s] || way.regional !== regional[s] || way.internal !== internal[s])
        continue;
      if (rootPort[s]! < 0 || hearsBetter(p, rootPort[s]!, s)) rootPort[s] = p;
    }
  }
  return rootPort;
}
