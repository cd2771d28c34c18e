/** Frames hop by hop, wherever something knows which ports let a VLAN through: a run at an instant, or a settled solution. */
import type { HostId, LinkId, PortId, SwitchId } from '../design/ids';
import type { Network } from '../tree/network';
import { passing } from '../tree/passing';
import type { Solution } from '../tree/settled';

export interface Passage {
  readonly network: Network;
  /** Whether frames of a VLAN pass a port. */
  passes(vid: number, port: number): boolean;
  /** Whether what a port sends reaches the other end of its cable. */
  carries(port: number): boolean;
}

/** The passage of a settled network. */
export function settledPassage(solution: Solution): Passage {
  const known = new Map<number, Uint8Array>();
  const { network } = solution;
  return {
    network,
    passes: (vid, port) => {
      const ports = known.get(vid) ?? passing(solution, vid);
      known.set(vid, ports);
      return ports[port] === 1;
    },
    carries: (port) => network.live[port] === 1,
  };
}

/** One switch on a frame's way. */
export interface FrameHop {
  readonly switch: SwitchId;
  readonly in: PortId;
  readonly out: PortId;
  readonly link: LinkId | null;
}

/** A frame's way from host to host; null hops where none leads there, with the reason. */
export type FrameWay = { readonly arrives: true; readonly hops: readonly FrameHop[] } | { readonly arrives: false; readonly why: string };

/** Follows a frame between two hosts of one VLAN: the way that flooding opens and learning keeps. */
export function followFrame(passage: Passage, from: HostId, to: HostId): FrameWay {
  const { network } = passage;
  const { design, portIndexOf, owner, firstPort, far, link, switches, ports } = network;
  const [a, b] = [from, to].map((id) => design.hosts.find((host) => host.id === id));
  if (!a || !b) return { arrives: false, why: `There is no host ${a ? to : from}.` };
  if (a.vlan !== b.vlan) return { arrives: false, why: `${a.name ?? a.id} is in VLAN ${a.vlan}, ${b.name ?? b.id} in VLAN ${b.vlan}: frames do not leave their VLAN.` };
  const cardOf = (host: typeof a): number => host.attach.map((end) => portIndexOf(end.switch, end.port)).find((p) => passage.passes(host.vlan, p)) ?? -1;
  const [start, goal] = [cardOf(a), cardOf(b)];
  const stuck = start < 0 ? a : goal < 0 ? b : null;
  if (stuck) return { arrives: false, why: `No port that ${stuck.name ?? stuck.id} is plugged into forwards VLAN ${stuck.vlan}.` };
  const cameBy = new Map<number, { readonly ingress: number; readonly out: number }>();
  const open = [start];
  const seen = new Set([owner[start]!]);
  for (const ingress of open) {
    const s = owner[ingress]!;
    for (let out = firstPort[s]!; out < firstPort[s + 1]!; out += 1) {
      if (out === ingress || !passage.passes(a.vlan, out)) continue;
      if (out === goal) return { arrives: true, hops: wayTo(ingress, out) };
      const next = far[out]!;
      if (next < 0 || !passage.carries(out) || !passage.passes(a.vlan, next) || seen.has(owner[next]!)) continue;
      seen.add(owner[next]!);
      cameBy.set(next, { ingress, out });
      open.push(next);
    }
  }
  const reached = seen.size === 1 ? 'no other switch' : `${seen.size - 1} other ${seen.size === 2 ? 'switch' : 'switches'}`;
  return { arrives: false, why: `Frames of VLAN ${a.vlan} from ${a.name ?? a.id} reach ${reached}, but not ${switches[owner[goal]!]!.name ?? switches[owner[goal]!]!.id}: no forwarding ports lead there.` };

  function wayTo(ingress: number, out: number): FrameHop[] {
    const hop: FrameHop = { switch: switches[owner[ingress]!]!.id, in: ports[ingress]!.id, out: ports[out]!.id, link: design.links[link[out]!]?.id ?? null };
    const before = cameBy.get(ingress);
    return before ? [...wayTo(before.ingress, before.out), hop] : [hop];
  }
}

/** Where the first frame to an unknown destination, or a broadcast, gets to: every switch copies it out of all other ports. */
export interface Flood {
  readonly switches: readonly SwitchId[];
  readonly links: readonly LinkId[];
  /** Hosts that get a copy, in the order in which it reaches them. */
  readonly hosts: readonly HostId[];
}

/** Follows a frame that no switch knows the destination of; one copy a switch, however many come. */
export function followFlood(passage: Passage, from: HostId): Flood {
  const { network } = passage;
  const { design, portIndexOf, owner, firstPort, far, link, switches } = network;
  const host = design.hosts.find((each) => each.id === from);
  const start = host?.attach.map((end) => portIndexOf(end.switch, end.port)).find((p) => passage.passes(host.vlan, p));
  if (!host || start === undefined) return { switches: [], links: [], hosts: [] };
  const behind = new Map(design.hosts.flatMap(({ id, vlan, attach }) => (vlan === host.vlan && id !== from ? attach.map((end) => [portIndexOf(end.switch, end.port), id] as const) : [])));
  const seen = new Set([owner[start]!]);
  const links = new Set<number>();
  const hosts = new Set<HostId>();
  const open = [start];
  for (const ingress of open) {
    const s = owner[ingress]!;
    for (let out = firstPort[s]!; out < firstPort[s + 1]!; out += 1) {
      if (out === ingress || !passage.passes(host.vlan, out)) continue;
      const reached = behind.get(out);
      if (reached) hosts.add(reached);
      const next = far[out]!;
      if (next < 0 || !passage.carries(out)) continue;
      links.add(link[out]!);
      if (!passage.passes(host.vlan, next) || seen.has(owner[next]!)) continue;
      seen.add(owner[next]!);
      open.push(next);
    }
  }
  return { switches: [...seen].map((s) => switches[s]!.id), links: [...links].map((l) => design.links[l]!.id), hosts: [...hosts] };
}

/** A switch at which one frame comes in by several ports: it learns its sender now here, now there. */
export interface Flapping {
  readonly switch: SwitchId;
  readonly ports: readonly PortId[];
}

/** A broadcast that circles in a VLAN. */
export interface Circling {
  /** The links in it. */
  readonly links: readonly LinkId[];
  /** Frames on those links after each of the first hops of one broadcast; no more than `MOST_COPIES`. */
  readonly copies: readonly number[];
  readonly flapping: readonly Flapping[];
}

/** Where counting stops: the links are full long before. */
export const MOST_COPIES = 1_000_000;
const HOPS = 24;

/** What becomes of one broadcast in a VLAN where forwarding ports close a loop; null where none do. */
export function circling(passage: Passage, vid: number): Circling | null {
  const { network } = passage;
  const { design, portIndexOf, owner, firstPort, far, link } = network;
  const openLinks = new Set(design.links.flatMap((each, l) => {
    const ends = [portIndexOf(each.a.switch, each.a.port), portIndexOf(each.b.switch, each.b.port)];
    return ends.every((p) => passage.passes(vid, p) && passage.carries(p)) ? [l] : [];
  }));
  // Links at switches that have no other one lead nowhere: what is left is in loops, or between them.
  const degree = new Map<number, number>();
  const endsOf = (l: number): [number, number] => [owner[portIndexOf(design.links[l]!.a.switch, design.links[l]!.a.port)]!, owner[portIndexOf(design.links[l]!.b.switch, design.links[l]!.b.port)]!];
  for (const l of openLinks) for (const s of endsOf(l)) degree.set(s, (degree.get(s) ?? 0) + 1);
  for (let cut = true; cut; ) {
    cut = false;
    for (const l of openLinks) {
      const ends = endsOf(l);
      if (ends.every((s) => degree.get(s)! > 1)) continue;
      openLinks.delete(l);
      for (const s of ends) degree.set(s, degree.get(s)! - 1);
      cut = true;
    }
  }
  if (openLinks.size === 0) return null;
  let frames = startOf();
  const copies: number[] = [];
  const heardAt = new Map<number, Set<number>>();
  for (let hop = 0; hop < HOPS; hop += 1) {
    for (const ingress of frames.keys()) heardAt.set(owner[ingress]!, (heardAt.get(owner[ingress]!) ?? new Set()).add(ingress));
    copies.push(Math.min(MOST_COPIES, [...frames.values()].reduce((sum, count) => sum + count, 0)));
    const next = new Map<number, number>();
    for (const [ingress, count] of frames) {
      const s = owner[ingress]!;
      for (let out = firstPort[s]!; out < firstPort[s + 1]!; out += 1) {
        if (out !== ingress && far[out]! >= 0 && openLinks.has(link[out]!)) next.set(far[out]!, Math.min(MOST_COPIES, (next.get(far[out]!) ?? 0) + count));
      }
    }
    frames = next;
  }
  const flapping = [...heardAt].filter(([, ports]) => ports.size > 1).sort(([s], [t]) => s - t);
  return {
    links: [...openLinks].sort((x, y) => x - y).map((l) => design.links[l]!.id), copies,
    flapping: flapping.map(([s, ports]) => ({ switch: network.switches[s]!.id, ports: [...ports].sort((p, q) => p - q).map((p) => network.ports[p]!.id) })),
  };

  /** A switch in a loop floods a host's broadcast over all its links of loops. */
  function startOf(): Map<number, number> {
    const s = Math.min(...[...openLinks].flatMap(endsOf));
    return new Map(Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i).flatMap((out) => (far[out]! >= 0 && openLinks.has(link[out]!) ? [[far[out]!, 1] as const] : [])));
  }
}
