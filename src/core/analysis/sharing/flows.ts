/** How flows spread over the members of a bundle, and what becomes of them when a member is lost. */
import type { BundleEnd, Bundles } from '../../topology/lag/ends';
import { bucketCount, bucketOwner, memberFor, type Flow } from '../../topology/lag/hash';
import type { HostId } from '../../model/ids';
import type { Design, Host, HashPolicy } from '../../model/document';
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

/** One flow for each ordered pair of hosts in one VLAN. */
export function hostFlows({ hosts }: Design): NamedFlow[] {
  const places = new Map(hosts.map((host, i) => [host.id, i]));
  return hosts.flatMap((from) =>
    hosts.flatMap((to) => (from.id === to.id || from.vlan !== to.vlan ? [] : [named(from, to, places, null)])),
  );
}

/** So many flows between random hosts from random ports to one of a few services; the same for the same seed. */
export function randomFlows({ hosts }: Design, count: number, seed: number): NamedFlow[] {
  const random = randomFrom(seed);
  const pick = (n: number): number => Math.floor(random() * n);
  const places = new Map(hosts.map((host, i) => [host.id, i]));
  if (hosts.length < 2) return [];
  return Array.from({ length: count }, (_, i) => {
    const from = pick(hosts.length);
    const to = (from + 1 + pick(hosts.length - 1)) % hosts.length;
    const ports = { fromPort: 49_152 + pick(16_384), toPort: [22, 80, 443, 2049, 5000 + pick(100)][pick(5)]! };
    return { ...named(hosts[from]!, hosts[to]!, places, ports), id: `random ${i}` };
  });
}

function named(
  from: Host,
  to: Host,
  places: ReadonlyMap<HostId, number>,
  ports: { readonly fromPort: number; readonly toPort: number } | null,
): NamedFlow {
  const ip = { from: hostAddress(places.get(from.id)!), to: hostAddress(places.get(to.id)!), ...ports };
  const at = (host: Host, port: number | undefined): string =>
    `${host.name ?? host.id}${port === undefined ? '' : ` :${port}`}`;
  return {
    id: `${from.id}\n${to.id}`,
    from: at(from, ports?.fromPort),
    to: at(to, ports?.toPort),
    flow: { from: from.mac, to: to.mac, ip },
  };
}

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
