/** Broadcasts that circle where forwarding ports close a loop. */
import { BROADCAST, type Flow } from '../../topology/lag/hash';
import type { LinkId, BridgePortId, SwitchId } from '../../model/ids';
import { asBridges, entryPortOf, farOf, socketFor, type Passage } from './hop';

/** A switch at which one frame comes in by several ports: it learns its sender now here, now there. */
export interface Flapping {
  readonly switch: SwitchId;
  readonly ports: readonly BridgePortId[];
}

/** A broadcast that circles in a VLAN, or comes back or comes twice and then ends. */
export interface Circling {
  /** Whether it never ends. */
  readonly endless: boolean;
  /** The links in it; of one that ends, those that the copies too many came over. */
  readonly links: readonly LinkId[];
  /** Frames on those links after each of the first hops of one broadcast; no more than `MOST_COPIES`. */
  readonly copies: readonly number[];
  readonly flapping: readonly Flapping[];
}

/** Where counting stops: the links are full long before. */
export const MOST_COPIES = 1_000_000;
const HOPS = 24;
/** Senders that are tried where bundles choose a member for each. */
const MOST_SENDERS = 64;

/** What becomes of one broadcast in a VLAN where forwarding ports close a loop; null where none do. */
export function forwardingLoops(given: Passage, vid: number): Circling | null {
  const passage = asBridges(given);
  const { design, aggregates } = passage.network;
  const senders =
    aggregates.size === 0
      ? []
      : design.hosts
          .filter((host) => host.vlan === vid)
          .slice(0, MOST_SENDERS)
          .map((host) => host.mac);
  for (const from of senders.length > 0 ? senders : ['02:00:00:00:00:00']) {
    const found = circlingFrom(passage, vid, { from, to: BROADCAST });
    if (found) return found;
  }
  return echo(passage, vid);
}

/** A cable in one direction: the bridge port that it leaves by, the one that it comes to. */
interface Way {
  readonly out: number;
  readonly ingress: number;
  readonly link: number;
}

/** Every cable that a flow's frames get over, in the directions in which they do. */
function waysOf(passage: Passage, vid: number, flow: Flow): Way[] {
  const { network } = passage;
  const { ports, cable, serves } = network;
  const ways: Way[] = [];
  for (let out = 0; out < ports.length; out += 1) {
    if (serves[out] !== out || !passage.passes(vid, out)) continue;
    const aggregationPort = socketFor(network, out, flow);
    const ingress = farOf(passage, aggregationPort);
    if (ingress >= 0 && passage.passes(vid, ingress)) ways.push({ out, ingress, link: cable[aggregationPort]! });
  }
  return ways;
}

/**
 * A host's broadcast that comes to some switch by two ports, or comes back to its own, without going on for ever: a static
 * bundle whose other end is none gets the copies that it sent. Only bundles that check nothing do this.
 */
function echo(passage: Passage, vid: number): Circling | null {
  const { network } = passage;
  const { design, owner, aggregates, ports } = network;
  if (![...aggregates.values()].some(({ end }) => end.mode === 'static')) return null;
  let worst: Circling | null = null;
  for (const host of design.hosts.filter((each) => each.vlan === vid).slice(0, MOST_SENDERS)) {
    const flow: Flow = { from: host.mac, to: BROADCAST };
    const start = entryPortOf(passage, host, flow);
    if (start < 0) continue;
    const ways = waysOf(passage, vid, flow);
    const heardAt = new Map([[owner[start]!, [start]]]);
    const extra = new Set<number>();
    const open = [start];
    for (const ingress of open) {
      for (const way of ways) {
        if (owner[way.out] !== owner[ingress] || way.out === ingress) continue;
        const before = heardAt.get(owner[way.ingress]!) ?? [];
        if (before.length > 0) extra.add(way.link);
        if (before.includes(way.ingress)) continue;
        heardAt.set(owner[way.ingress]!, [...before, way.ingress]);
        open.push(way.ingress);
      }
    }
    const flapping = [...heardAt].filter(([, by]) => by.length > 1);
    if (extra.size === 0 || (worst && worst.copies[0]! >= open.length)) continue;
    worst = {
      endless: false,
      links: [...extra].sort((x, y) => x - y).map((l) => design.links[l]!.id),
      copies: [open.length - 1],
      flapping: flapping.map(([s, by]) => ({ switch: network.switches[s]!.id, ports: by.map((p) => ports[p]!.id) })),
    };
  }
  return worst;
}

/** Whether the cables that a flow's frames get over, whichever way, close a ring of switches: without one nothing circles. */
function closesRing({ network }: Passage, ways: Iterable<Way>): boolean {
  const { owner, switches, design } = network;
  const seen = new Uint8Array(design.links.length);
  const parent = Int32Array.from(switches.keys());
  const lead = (s: number): number => {
    let at = s;
    while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!;
    return at;
  };
  for (const { out, ingress, link } of ways) {
    if (seen[link]) continue;
    seen[link] = 1;
    const [a, b] = [lead(owner[out]!), lead(owner[ingress]!)];
    if (a === b) return true;
    parent[a] = b;
  }
  return false;
}

function circlingFrom(passage: Passage, vid: number, flow: Flow): Circling | null {
  const { network } = passage;
  const { design, owner, ports } = network;
  let ways = waysOf(passage, vid, flow);
  if (!closesRing(passage, ways)) return null;
  // A way that nothing leads to, or that leads nowhere on, is in no loop: what is left is in loops, or between them.
  for (let before = Infinity; ways.length < before;) {
    before = ways.length;
    const [leaving, coming] = [
      countBy(ways, ({ out }) => owner[out]!),
      countBy(ways, ({ ingress }) => owner[ingress]!),
    ];
    const [outs, ins] = [countBy(ways, ({ out }) => out), countBy(ways, ({ ingress }) => ingress)];
    ways = ways.filter(
      ({ out, ingress }) =>
        (leaving.get(owner[ingress]!) ?? 0) > (outs.get(ingress) ?? 0) &&
        (coming.get(owner[out]!) ?? 0) > (ins.get(out) ?? 0),
    );
  }
  if (ways.length === 0) return null;
  const from = new Map<number, Way[]>();
  for (const way of ways) from.set(owner[way.out]!, [...(from.get(owner[way.out]!) ?? []), way]);
  // A switch in a loop floods a host's broadcast over all its links of loops.
  let frames = new Map((from.get(Math.min(...from.keys())) ?? []).map(({ ingress }) => [ingress, 1]));
  const copies: number[] = [];
  const heardAt = new Map<number, Set<number>>();
  for (let hop = 0; hop < HOPS; hop += 1) {
    for (const ingress of frames.keys())
      heardAt.set(owner[ingress]!, (heardAt.get(owner[ingress]!) ?? new Set()).add(ingress));
    copies.push(
      Math.min(
        MOST_COPIES,
        [...frames.values()].reduce((sum, count) => sum + count, 0),
      ),
    );
    const next = new Map<number, number>();
    for (const [ingress, count] of frames) {
      for (const way of from.get(owner[ingress]!) ?? [])
        if (way.out !== ingress) next.set(way.ingress, Math.min(MOST_COPIES, (next.get(way.ingress) ?? 0) + count));
    }
    frames = next;
  }
  const flapping = [...heardAt].filter(([, by]) => by.size > 1).sort(([s], [t]) => s - t);
  return {
    endless: true,
    links: [...new Set(ways.map(({ link }) => link))].sort((x, y) => x - y).map((l) => design.links[l]!.id),
    copies,
    flapping: flapping.map(([s, by]) => ({
      switch: network.switches[s]!.id,
      ports: [...by].sort((p, q) => p - q).map((p) => ports[p]!.id),
    })),
  };
}

function countBy<T>(items: readonly T[], of: (item: T) => number): Map<number, number> {
  const counts = new Map<number, number>();
  for (const item of items) counts.set(of(item), (counts.get(of(item)) ?? 0) + 1);
  return counts;
}
