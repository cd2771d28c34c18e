/**
 * The settled trees of a network in which some bridges speak MSTP (IEEE 802.1Q-2018 13.9 to 13.12): the CIST through every
 * bridge, costs within a region told apart from those between regions, and in each region a tree for each instance.
 * Priority vectors are (root, external root path cost, regional root, internal root path cost, bridge, port).
 */
import { CIST, treeInstance, type TreeId } from '../design/ids';
import { setExternalCost } from './bridgeId';
import { methodOf } from '../design/costMethod';
import type { Switch } from '../design/schema';
import type { Network } from './network';
import { pathCostOf } from './pathCost';
import { hasInstance, regionsOf, sameRegion, type RegionMap } from './region';
import { segmentsOf, type Segments } from './segments';
import type { Settings } from './settings';
import { CODE, type SettledTree } from './settled';

/** What is the same for every tree of one network. */
export interface MstpGround {
  readonly network: Network;
  /** Of the CIST. */
  readonly segments: Segments;
  readonly settings: Settings;
  readonly regions: readonly (RegionMap | null)[];
}

export function mstpGround(network: Network, segments: Segments, settings: Settings): MstpGround {
  const regions = network.switches.map(regionsOf(network.design));
  return { network, segments, settings, regions };
}

/** 1 for each port that leads to bridges of its own region alone, whoever is designated there. */
export function insidePorts(network: Network): Uint8Array {
  const known = insides.get(network) ?? insideOf(network, segmentsOf(network, CIST, () => false), network.switches.map(regionsOf(network.design)));
  insides.set(network, known);
  return known;
}
const insides = new WeakMap<Network, Uint8Array>();

const insideOf = (network: Network, segments: Segments, regions: readonly (RegionMap | null)[]): Uint8Array =>
  Uint8Array.from(network.ports, (_, p) => {
    const own = regions[network.owner[p]!] ?? null;
    const others = neighboursOf(segments, p);
    return own && others.length > 0 && others.every((q) => sameRegion(own, regions[network.owner[q]!] ?? null)) ? 1 : 0;
  });

/** The other ports on a port's segment: the same for every tree of a network. */
function neighboursOf(segments: Segments, p: number): readonly number[] {
  const { of, first, ports } = segments;
  const known = neighbours.get(segments) ?? Array.from(of, (segment, port) => (segment < 0 ? NOBODY : Array.from(ports.subarray(first[segment], first[segment + 1])).filter((q) => q !== port)));
  neighbours.set(segments, known);
  return known[p]!;
}
const neighbours = new WeakMap<Segments, readonly (readonly number[])[]>();
const NOBODY: readonly number[] = [];

/** How a bridge reaches the root. */
interface Label {
  readonly root: number;
  readonly external: number;
  readonly regional: number;
  readonly internal: number;
  /** Remaining hops, as the bridge sends them: a bridge that hears a last one throws it away (13.29 updtRcvdInfoWhile). */
  readonly hops: number;
}

/** The CIST (13.9, 13.10). */
export function solveCist({ network, segments, settings, regions }: MstpGround): SettledTree {
  const { switches, owner, firstPort, ports, design } = network;
  const { cost: internalCost, portKey } = settings.portsIn(CIST);
  const externalCost = Int32Array.from(ports, (port, p) => {
    const sw = switches[owner[p]!]!;
    return setExternalCost(port, CIST, sw.dialect) ?? pathCostOf(port.speed, methodOf(design, sw));
  });
  const rank = settings.bridgesIn(CIST).map((place, s) => (segments.parts[s] === 'bridge' ? place : -1));
  const compare = (a: Label, b: Label): number => rank[a.root]! - rank[b.root]! || a.external - b.external || rank[a.regional]! - rank[b.regional]! || a.internal - b.internal;
  /** What a port hears from another one of its segment, its own cost added. */
  const heard = (from: Label, q: number, by: number): Label | null => {
    const t = owner[q]!;
    if (sameRegion(regions[by]!, regions[t]!)) return from.hops > 1 ? { ...from, internal: from.internal + internalCost[q]!, hops: from.hops - 1 } : null;
    return { root: from.root, external: from.external + externalCost[q]!, regional: t, internal: 0, hops: switches[t]!.timers.maxHops };
  };
  const labels: (Label | null)[] = switches.map((_, s) => (rank[s]! >= 0 ? { root: s, external: 0, regional: s, internal: 0, hops: switches[s]!.timers.maxHops } : null));
  spread(network, segments, labels, compare, heard);

  const comparePorts = (p: number, q: number): number => portKey[p]! - portKey[q]! || network.order[p]! - network.order[q]!;
  const labelAt = (p: number): Label => labels[owner[p]!]!;
  // Where a classic bridge is attached, each bridge stands in the place of its regional root (13.10).
  const classic = new Uint8Array(segments.first.length);
  ports.forEach((_, p) => segments.of[p]! >= 0 && isClassic(switches[owner[p]!]!) && (classic[segments.of[p]!] = 1));
  const offerAt = (p: number): Label => (classic[segments.of[p]!] ? { ...labelAt(p), regional: owner[p]! } : labelAt(p));
  const offersMore = (p: number, q: number): boolean => (compare(offerAt(p), offerAt(q)) || rank[owner[p]!]! - rank[owner[q]!]! || comparePorts(p, q)) < 0;
  const designated = designatedOn(network, segments, offersMore);
  // A LAN is inside of a region where its designated bridge is of it; ports of other regions there are at their boundary.
  const inside = Uint8Array.from(ports, (_, p) => {
    const own = regions[owner[p]!] ?? null;
    const best = designated[p]!;
    return best >= 0 && sameRegion(own, regions[owner[best]!] ?? null) && neighboursOf(segments, p).some((q) => sameRegion(own, regions[owner[q]!] ?? null)) ? 1 : 0;
  });
  const disputed = outOfHops(designated, inside, (p) => labelAt(p).hops);
  /** Who a bridge takes the sender of a BPDU for: who reads an MST BPDU as an RST one sees the regional root in it (14.4), a classic bridge is sent the sender's own (13.29). */
  const senderRank = (p: number): number => {
    const from = designated[p]!;
    const toOutside = readsRst(switches[owner[p]!]!) && regions[owner[from]!] !== null;
    return rank[toOutside ? labelAt(from).regional : owner[from]!]!;
  };
  const rootPort = new Int32Array(switches.length).fill(-1);
  switches.forEach((_, s) => {
    const own = labels[s];
    if (!own || own.root === s) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = designated[p]!;
      const way = from < 0 || owner[from] === s ? null : heard(labelAt(from), p, owner[from]!);
      if (!way || compare(way, own) !== 0) continue;
      const now = rootPort[s]!;
      if (now < 0 || (senderRank(p) - senderRank(now) || portKey[from]! - portKey[designated[now]!]! || comparePorts(p, now)) < 0) rootPort[s] = p;
    }
  });
  return {
    id: CIST, rank, rootPort, designated, cost: Int32Array.from(ports, (_, p) => (inside[p] ? internalCost[p]! : externalCost[p]!)),
    root: Int32Array.from(labels, (label) => label?.root ?? -1), rootPathCost: Float64Array.from(labels, (label) => label?.external ?? Infinity),
    role: rolesOf(network, segments, rootPort, designated),
    regional: { root: Int32Array.from(labels, (label) => label?.regional ?? -1), cost: Float64Array.from(labels, (label) => label?.internal ?? Infinity), inside, disputed },
  };
}

export const isClassic = ({ dialect }: Switch): boolean => dialect === 'stp' || dialect === 'per-vlan-stp';

/** Whether a bridge reads MST BPDUs as RST BPDUs. */
export const readsRst = ({ dialect }: Switch): boolean => dialect === 'rstp' || dialect === 'per-vlan-rstp';

/** The tree of an instance in every region that has it; ports that lead out of a region do what the CIST has them do (13.12). */
export function solveInstance(ground: MstpGround, cist: SettledTree, id: TreeId): SettledTree {
  const { network, segments, settings, regions } = ground;
  const { inside } = cist.regional!;
  const { switches, owner, firstPort, ports } = network;
  const mstid = treeInstance(id)!;
  const { cost, portKey } = settings.portsIn(id);
  const has = regions.map((region) => region !== null && hasInstance(region, mstid));
  const rank = settings.bridgesIn(id).map((place, s) => (has[s] && segments.parts[s] === 'bridge' ? place : -1));
  const compare = (a: Label, b: Label): number => rank[a.root]! - rank[b.root]! || a.internal - b.internal;
  const heard = (from: Label, q: number, by: number): Label | null => (inside[q] && sameRegion(regions[by]!, regions[owner[q]!]!) && from.hops > 1 ? { ...from, internal: from.internal + cost[q]!, hops: from.hops - 1 } : null);
  const labels: (Label | null)[] = switches.map((_, s) => (rank[s]! >= 0 ? { root: s, external: 0, regional: s, internal: 0, hops: switches[s]!.timers.maxHops } : null));
  spread(network, segments, labels, compare, heard, (p) => inside[p] === 1);

  const comparePorts = (p: number, q: number): number => portKey[p]! - portKey[q]! || network.order[p]! - network.order[q]!;
  const labelAt = (p: number): Label => labels[owner[p]!]!;
  const compareSenders = (p: number, q: number): number => rank[owner[p]!]! - rank[owner[q]!]! || comparePorts(p, q);
  const offersMore = (p: number, q: number): boolean => (compare(labelAt(p), labelAt(q)) || compareSenders(p, q)) < 0;
  const within = designatedOn(network, segments, offersMore, (p) => inside[p] === 1 && labels[owner[p]!] !== null);
  const disputed = outOfHops(within, inside, (p) => labelAt(p).hops);
  const rootPort = new Int32Array(switches.length).fill(-1);
  switches.forEach((_, s) => {
    const own = labels[s];
    if (!own || own.root === s) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const from = within[p]!;
      const way = from < 0 || owner[from] === s ? null : heard(labelAt(from), p, owner[from]!);
      if (!way || compare(way, own) !== 0) continue;
      const now = rootPort[s]!;
      if (now < 0 || (compareSenders(from, within[now]!) || comparePorts(p, now)) < 0) rootPort[s] = p;
    }
  });
  const inner = rolesOf(network, segments, rootPort, within);
  const role = new Uint8Array(ports.length);
  const designated = new Int32Array(ports.length).fill(-1);
  for (let p = 0; p < ports.length; p += 1) {
    if (!labels[owner[p]!] || !segments.member[p]) continue;
    const led = inside[p] === 1 || cist.role[p] === CODE.disabled;
    role[p] = led ? inner[p]! : OUTSIDE[cist.role[p]!]!;
    designated[p] = led ? within[p]! : cist.designated[p]!;
  }
  return {
    id, rank, rootPort, designated, cost, role, root: Int32Array.from(labels, (label) => label?.root ?? -1), rootPathCost: Float64Array.from(labels, (label) => label?.internal ?? Infinity),
    regional: { root: Int32Array.from(labels, (label) => label?.root ?? -1), cost: Float64Array.from(labels, (label) => label?.internal ?? Infinity), inside, disputed },
  };
}

/**
 * Ports that hear a last hop speak for their segments themselves; those that they hear see a worse bridge do so, and
 * discard (13.29 recordDispute): 1 for each of these.
 */
function outOfHops(designated: Int32Array, inside: Uint8Array, hopsAt: (p: number) => number): Uint8Array {
  const disputed = new Uint8Array(designated.length);
  designated.forEach((from, p) => {
    if (from < 0 || from === p || !inside[p] || hopsAt(from) > 1) return;
    disputed[from] = 1;
    designated[p] = p;
  });
  return disputed;
}

/** What a port at a region's boundary is in an instance, by its role in the CIST. */
const OUTSIDE: Readonly<Record<number, number>> = { [CODE.absent]: CODE.absent, [CODE.root]: CODE.master, [CODE.designated]: CODE.designated, [CODE.alternate]: CODE.alternate, [CODE.backup]: CODE.alternate, [CODE.disabled]: CODE.disabled, [CODE.master]: CODE.master };

/** Lets the best label spread until every bridge has the best one that it can hear: labels grow with every hop, so the nearest first. */
function spread(network: Network, segments: Segments, labels: (Label | null)[], compare: (a: Label, b: Label) => number, heard: (from: Label, q: number, by: number) => Label | null, speaks: (p: number) => boolean = () => true): void {
  const { firstPort, owner } = network;
  const open = new Set(labels.flatMap((label, s) => (label ? [s] : [])));
  const crossed = new Uint8Array(segments.first.length);
  while (open.size > 0) {
    let nearest = -1;
    for (const s of open) if (nearest < 0 || compare(labels[s]!, labels[nearest]!) < 0) nearest = s;
    open.delete(nearest);
    for (let p = firstPort[nearest]!; p < firstPort[nearest + 1]!; p += 1) {
      const segment = segments.of[p]!;
      if (segment < 0 || crossed[segment] || !speaks(p)) continue;
      crossed[segment] = 1;
      for (const q of neighboursOf(segments, p)) {
        const t = owner[q]!;
        const label = open.has(t) ? heard(labels[nearest]!, q, nearest) : null;
        if (label && compare(label, labels[t]!) < 0) labels[t] = label;
      }
    }
  }
}

/** The designated port of each port's segment among those that `counts` lets in; -1 without one. */
function designatedOn({ ports }: Network, { of, first, ports: grouped }: Segments, offersMore: (p: number, q: number) => boolean, counts: (p: number) => boolean = () => true): Int32Array {
  const designated = new Int32Array(ports.length).fill(-1);
  for (let segment = 0; segment + 1 < first.length; segment += 1) {
    let best = -1;
    for (let i = first[segment]!; i < first[segment + 1]!; i += 1) if (counts(grouped[i]!) && (best < 0 || offersMore(grouped[i]!, best))) best = grouped[i]!;
    for (let i = first[segment]!; best >= 0 && i < first[segment + 1]!; i += 1) if (counts(grouped[i]!)) designated[grouped[i]!] = best;
  }
  for (let p = 0; p < ports.length; p += 1) if (of[p]! >= 0 && designated[p]! < 0 && counts(p)) designated[p] = p;
  return designated;
}

/** 13.12: disabled without signal; else root, designated, backup where the own bridge is designated, alternate. */
export function rolesOf(network: Network, segments: Segments, rootPort: Int32Array, designated: Int32Array): Uint8Array {
  const role = new Uint8Array(network.ports.length);
  for (let p = 0; p < role.length; p += 1) {
    if (!segments.member[p]) continue;
    const best = designated[p]!;
    const s = network.owner[p]!;
    if (segments.of[p]! < 0) role[p] = CODE.disabled;
    else if (best === p || best < 0) role[p] = CODE.designated;
    else if (rootPort[s] === p) role[p] = CODE.root;
    else role[p] = network.owner[best] === s ? CODE.backup : CODE.alternate;
  }
  return role;
}
