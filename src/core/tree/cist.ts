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
import { isClassic } from '../model/document';
import type { Network } from '../topology/network';
import { pathCostOf } from '../topology/pathCost';
import { regionsOf, sameRegion, type RegionMap } from '../topology/region';
import { segmentsOf, type Segments } from '../topology/segments';
import type { Settings } from './settings';
import { designatedOn, oldestAges, rolesOf, thrownAway } from './roles';
import type { SettledTree } from './settled';

/** What is the same for every tree of one network. */
export interface MstpContext {
  readonly network: Network;
  /** Of the CIST. */
  readonly segments: Segments;
  readonly settings: Settings;
  readonly regions: readonly (RegionMap | null)[];
  /** Equal where two switches are of one region; -1 of a switch without MSTP. */
  readonly regionOf: Int32Array;
}

export function mstpContext(network: Network, segments: Segments, settings: Settings): MstpContext {
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
  return Uint8Array.from(network.ports, (_, p) => {
    const own = regionOf[network.owner[p]!]!;
    const others = neighboursOf(segments, p);
    return own >= 0 && others.length > 0 && others.every((q) => regionOf[network.owner[q]!] === own) ? 1 : 0;
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

/** How a bridge reaches the root. */
interface Label {
  readonly root: number;
  readonly external: number;
  readonly regional: number;
  readonly internal: number;
  /** Remaining hops and message age, as the bridge sends them: who hears a last hop inside, or outside what is too old, throws it away (13.29 updtRcvdInfoWhile). */
  readonly hops: number;
  readonly age: number;
}

/** The CIST (13.9, 13.10). */
export function solveCist({ network, segments, settings, regionOf }: MstpContext): SettledTree {
  const { switches, owner, firstPort, ports, design } = network;
  const { cost: internalCost, portKey } = settings.portsIn(CIST);
  const externalCost = Int32Array.from(ports, (port, p) => {
    const sw = switches[owner[p]!]!;
    return setExternalCost(port, CIST, sw.dialect) ?? pathCostOf(port.speed, methodOf(design, sw));
  });
  const rank = settings.bridgesIn(CIST).map((place, s) => (segments.parts[s] === 'bridge' ? place : -1));
  const compare = (a: Label, b: Label): number =>
    rank[a.root]! - rank[b.root]! ||
    a.external - b.external ||
    rank[a.regional]! - rank[b.regional]! ||
    a.internal - b.internal;
  const ages = oldestAges(network, segments);
  const ofOne = (s: number, t: number): boolean => regionOf[s]! >= 0 && regionOf[s] === regionOf[t];
  /** What a port hears from another one of its segment, its own cost added. */
  const heard = (from: Label, q: number, by: number): Label | null => {
    const t = owner[q]!;
    if (ofOne(by, t))
      return from.hops > 1 ? { ...from, internal: from.internal + internalCost[q]!, hops: from.hops - 1 } : null;
    if (from.age + 1 > ages[from.root]!) return null;
    return {
      root: from.root,
      external: from.external + externalCost[q]!,
      regional: t,
      internal: 0,
      hops: switches[t]!.timers.maxHops,
      age: from.age + 1,
    };
  };
  const labels: (Label | null)[] = switches.map((_, s) =>
    rank[s]! >= 0
      ? { root: s, external: 0, regional: s, internal: 0, hops: switches[s]!.timers.maxHops, age: 0 }
      : null,
  );
  const comparePorts = (p: number, q: number): number =>
    portKey[p]! - portKey[q]! || network.order[p]! - network.order[q]!;
  /** Who bridge t takes bridge s for: who reads an MST BPDU as an RST one sees the regional root in it (14.4), a classic bridge is sent the sender's own (13.29). */
  const seenRank = (s: number, t: number): number =>
    rank[readsRst(switches[t]!) && regionOf[s]! >= 0 ? labels[s]!.regional : s]!;
  const labelAt = (p: number): Label => labels[owner[p]!]!;
  spread(network, segments, labels, { compare, heard, rank, seenRank });

  // Where a classic bridge is attached, each bridge stands in the place of its regional root (13.10).
  const classic = new Uint8Array(segments.first.length);
  ports.forEach((_, p) => segments.of[p]! >= 0 && isClassic(switches[owner[p]!]!) && (classic[segments.of[p]!] = 1));
  const offerAt = (p: number): Label =>
    classic[segments.of[p]!] ? { ...labelAt(p), regional: owner[p]! } : labelAt(p);
  const offersMore = (p: number, q: number): boolean =>
    (compare(offerAt(p), offerAt(q)) || rank[owner[p]!]! - rank[owner[q]!]! || comparePorts(p, q)) < 0;
  const designated = designatedOn(network, segments, offersMore);
  // A LAN is inside of a region where its designated bridge is of it; ports of other regions there are at their boundary.
  const inside = Uint8Array.from(ports, (_, p) => {
    const best = designated[p]!;
    return best >= 0 &&
      ofOne(owner[p]!, owner[best]!) &&
      neighboursOf(segments, p).some((q) => ofOne(owner[p]!, owner[q]!))
      ? 1
      : 0;
  });
  const disputed = thrownAway(designated, (from, p) => heard(labelAt(from), p, owner[from]!) === null);
  const rootPort = new Int32Array(switches.length).fill(-1);
  switches.forEach((_, s) => {
    const own = labels[s];
    if (!own || own.root === s) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = designated[p]!;
      const way = from < 0 || owner[from] === s ? null : heard(labelAt(from), p, owner[from]!);
      if (!way || compare(way, own) !== 0) continue;
      const now = rootPort[s]!;
      if (
        now < 0 ||
        (seenRank(owner[from]!, s) - seenRank(owner[designated[now]!]!, s) ||
          portKey[from]! - portKey[designated[now]!]! ||
          comparePorts(p, now)) < 0
      )
        rootPort[s] = p;
    }
  });
  return {
    id: CIST,
    rank,
    rootPort,
    designated,
    cost: Int32Array.from(ports, (_, p) => (inside[p] ? internalCost[p]! : externalCost[p]!)),
    root: Int32Array.from(labels, (label) => label?.root ?? -1),
    rootPathCost: Float64Array.from(labels, (label) => label?.external ?? Infinity),
    role: rolesOf(network, segments, rootPort, designated),
    regional: {
      root: Int32Array.from(labels, (label) => label?.regional ?? -1),
      cost: Float64Array.from(labels, (label) => label?.internal ?? Infinity),
      inside,
    },
    disputed,
  };
}

/** How labels are compared, heard, and told apart where they are equal. */
interface Order {
  readonly compare: (a: Label, b: Label) => number;
  readonly heard: (from: Label, q: number, by: number) => Label | null;
  readonly rank: Int32Array;
  /** The place among bridges of whom bridge t takes bridge s for. */
  readonly seenRank: (s: number, t: number) => number;
}

/**
 * Lets the best label spread until every bridge has the best one that it can hear: labels grow with every hop, so the nearest
 * first, of equals the better bridge. Equal labels may have unlike hops and ages: those of the better sender count, as for the root port.
 */
function spread(
  { firstPort, owner }: Network,
  segments: Segments,
  labels: (Label | null)[],
  { compare, heard, rank, seenRank }: Order,
): void {
  const open = new Set(labels.flatMap((label, s) => (label ? [s] : [])));
  const crossed = new Uint8Array(segments.first.length);
  /** The bridge that a bridge has its label from; -1 where it is its own. */
  const from = new Int32Array(labels.length).fill(-1);
  while (open.size > 0) {
    let nearest = -1;
    for (const s of open)
      if (nearest < 0 || (compare(labels[s]!, labels[nearest]!) || rank[s]! - rank[nearest]!) < 0) nearest = s;
    open.delete(nearest);
    for (let p = firstPort[nearest]!; p < firstPort[nearest + 1]!; p += 1) {
      const segment = segments.of[p]!;
      if (segment < 0 || crossed[segment]) continue;
      crossed[segment] = 1;
      for (const q of neighboursOf(segments, p)) {
        const t = owner[q]!;
        const label = open.has(t) ? heard(labels[nearest]!, q, nearest) : null;
        const order = label ? compare(label, labels[t]!) : 1;
        if (!label || order > 0 || (order === 0 && (from[t]! < 0 || seenRank(nearest, t) >= seenRank(from[t]!, t))))
          continue;
        labels[t] = label;
        from[t] = nearest;
      }
    }
  }
}
