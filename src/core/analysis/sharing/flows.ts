/** How flows spread over the members of a bundle, and what becomes of them when a member is lost. */
import type { BundleEnd, Bundles } from '../../topology/lag/ends';
import { bucketCount, bucketOwner, memberFor, type Flow } from '../../topology/lag/hash';
import type { HostId } from '../../model/ids';
import type { Host, HashPolicy } from '../../model/document';
import { bridgePortOf } from '../../topology/network';
import { passing } from '../../tree/passing';
import type { Solution } from '../../tree/settled';
import { oncePerNumber } from '../../base/cache';
import { randomFrom } from '../../base/random';

/** A flow with what people call it. */
export interface NamedFlow {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly flow: Flow;
}

export interface FlowRow extends NamedFlow {
  /** The member's id; null where none is active. */
  readonly member: string | null;
  /** With the lost member gone; the same where it does not move. */
  readonly after: string | null;
}

export interface Spread {
  readonly rows: readonly FlowRow[];
  /** Flows and buckets by member, in the order of their numbers. */
  readonly members: readonly {
    readonly id: string;
    readonly flows: number;
    readonly after: number;
    readonly buckets: number;
  }[];
}

/** Hosts' IP addresses as flows need them: the document knows none, so they come from the documentation ranges, in order. */
export const hostAddress = (place: number): string =>
  `${['192.0.2', '198.51.100', '203.0.113'][Math.floor(place / 254) % 3]}.${1 + (place % 254)}`;

/** Flows between hosts, as far as one end of a bundle has to do with them. */
export interface HostFlows {
  /** Those that this end sends, as the trees have settled. */
  readonly sent: readonly NamedFlow[];
  /** How many others there are between hosts of one VLAN: they take other ways, or none. */
  readonly others: number;
}

/** One flow for each ordered pair of hosts in one VLAN. */
export function hostFlows(solution: Solution, end: BundleEnd): HostFlows {
  const { hosts } = solution.network.design;
  const places = new Map(hosts.map((host, i) => [host.id, i]));
  const sends = senderOf(solution, end);
  const sent: NamedFlow[] = [];
  let others = 0;
  for (const from of hosts)
    for (const to of hosts) {
      if (from.id === to.id || from.vlan !== to.vlan) continue;
      if (sends(from, to)) sent.push(named(from, to, places));
      else others += 1;
    }
  return { sent, others };
}

/** Whether an end of a bundle sends the frames of one host to another of its VLAN. */
function senderOf(solution: Solution, end: BundleEnd): (from: Host, to: Host) => boolean {
  const { network } = solution;
  const { ports, far, owner, design } = network;
  /** The bridge port that a host's first live card is at; -1 without one. */
  const portOf = (host: Host): number => {
    const at = host.attach.map((card) => network.portIndexOf(card.switch, card.port)).find((p) => ports[p]?.up);
    return at === undefined ? -1 : bridgePortOf(network, at);
  };
  const passes = oncePerNumber((vid) => passing(solution, vid));
  /** The switches that a VLAN's frames reach from a switch, not by way of `but`. */
  const reached = (vid: number, start: number, but: number): ReadonlySet<number> => {
    const there = new Set([start]);
    for (const s of there)
      for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
        const q = far[p]!;
        if (q >= 0 && p !== but && q !== but && passes(vid)[p] && passes(vid)[q]) there.add(owner[q]!);
      }
    return there;
  };
  if (end.owner.kind === 'host') {
    const { host: id } = end.owner;
    const own = design.hosts.find((host) => host.id === id);
    const from = own ? portOf(own) : -1;
    const beyond = oncePerNumber((vid) =>
      from >= 0 && passes(vid)[from] ? reached(vid, owner[from]!, -1) : new Set<number>(),
    );
    return (a, b) => a.id === id && portOf(b) >= 0 && beyond(a.vlan).has(owner[portOf(b)]!);
  }
  const p = network.portIndexOf(end.owner.switch, end.owner.bundle);
  if (p < 0) return () => false;
  const near = oncePerNumber((vid) => (passes(vid)[p] ? reached(vid, owner[p]!, p) : new Set<number>()));
  const beyond = oncePerNumber((vid) =>
    far[p]! >= 0 && passes(vid)[far[p]!] ? reached(vid, owner[far[p]!]!, p) : new Set<number>(),
  );
  return (a, b) => {
    const [from, to] = [portOf(a), portOf(b)];
    if (from < 0 || to < 0 || from === p || !near(a.vlan).has(owner[from]!)) return false;
    return to === p || beyond(a.vlan).has(owner[to]!);
  };
}

/** How many hosts made-up flows are between. */
const MADE_UP = 64;

/** So many flows between made-up hosts, from random ports to one of a few services; the same for the same seed. */
export function madeUpFlows(count: number, seed: number): NamedFlow[] {
  const random = randomFrom(seed);
  const pick = (n: number): number => Math.floor(random() * n);
  return Array.from({ length: count }, (_, i) => {
    const from = pick(MADE_UP);
    const to = (from + 1 + pick(MADE_UP - 1)) % MADE_UP;
    const ports = { fromPort: 49_152 + pick(16_384), toPort: [22, 80, 443, 2049, 5000 + pick(100)][pick(5)]! };
    return {
      id: `made up ${i}`,
      from: `${hostAddress(from)} :${ports.fromPort}`,
      to: `${hostAddress(to)} :${ports.toPort}`,
      flow: {
        from: madeUpMac(from),
        to: madeUpMac(to),
        ip: { from: hostAddress(from), to: hostAddress(to), ...ports },
      },
    };
  });
}

const madeUpMac = (place: number): string => `02:00:00:00:fe:${place.toString(16).padStart(2, '0')}`;

const named = (from: Host, to: Host, places: ReadonlyMap<HostId, number>): NamedFlow => ({
  id: `${from.id}\n${to.id}`,
  from: from.name ?? from.id,
  to: to.name ?? to.id,
  flow: {
    from: from.mac,
    to: to.mac,
    ip: { from: hostAddress(places.get(from.id)!), to: hostAddress(places.get(to.id)!) },
  },
});

/** Spreads flows by a policy; `active` and `lost` are members by index. */
export function spreadOf(
  { members }: Bundles,
  end: BundleEnd,
  active: readonly number[],
  flows: readonly NamedFlow[],
  policy: HashPolicy,
  lost: number | null,
): Spread {
  const order = [...end.members].sort((a, b) => members[a]!.number - members[b]!.number);
  const placesOf = (of: readonly number[]): number[] => order.flatMap((m, place) => (of.includes(m) ? [place] : []));
  const now = placesOf(active);
  const then = placesOf(active.filter((m) => m !== lost));
  const idOf = (place: number): string | null => (place < 0 ? null : members[order[place]!]!.id);
  const rows = flows.map((each): FlowRow => ({
    ...each,
    member: idOf(memberFor(policy, each.flow, order.length, now)),
    after: idOf(memberFor(policy, each.flow, order.length, then)),
  }));
  const buckets = Array.from({ length: bucketCount(order.length) }, (_, bucket) =>
    now.length === 0 ? -1 : bucketOwner(bucket, order.length, now),
  );
  return {
    rows,
    members: order.map((m, place) => {
      const { id } = members[m]!;
      return {
        id,
        flows: rows.filter((row) => row.member === id).length,
        after: rows.filter((row) => row.after === id).length,
        buckets: buckets.filter((owner) => owner === place).length,
      };
    }),
  };
}

/** The largest and the smallest number of buckets of so many members: equal where the hash spreads evenly. */
export function bucketShares(count: number): { readonly most: number; readonly least: number; readonly of: number } {
  const of = bucketCount(count);
  return { most: Math.ceil(of / count), least: Math.floor(of / count), of };
}
