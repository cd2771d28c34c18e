/** Frames hop by hop, wherever something knows which ports let a VLAN through: a run at an instant, or a settled solution. */
import type { HostId, LinkId, BridgePortId, SwitchId } from '../../model/ids';
import { BROADCAST, type Flow } from '../../topology/lag/hash';
import type { Host } from '../../model/document';
import { passing } from '../../tree/passing';
import type { Solution } from '../../tree/settled';
import { bridgeOf, halvesOf, isOne } from '../../topology/acting';
import { asBridges, entryPortOf, farOf, reachesHost, socketFor, type Passage } from './hop';

export type { Passage } from './hop';

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
    arrives: (aggregationPort) => network.macOperational[aggregationPort] === 1,
  };
}

/** One switch on a frame's way. */
export interface FrameHop {
  readonly switch: SwitchId;
  readonly in: BridgePortId;
  readonly out: BridgePortId;
  readonly link: LinkId | null;
}

/** A frame's way from host to host; null hops where none leads there, with the reason. */
export type FrameWay =
  { readonly arrives: true; readonly hops: readonly FrameHop[] } | { readonly arrives: false; readonly why: string };

/** Follows a frame between two hosts of one VLAN: the way that flooding opens and learning keeps. */
export function followFrame(given: Passage, from: HostId, to: HostId): FrameWay {
  const passage = asBridges(given);
  const { network } = passage;
  const { design, owner, home, firstPort, cable, switches, ports } = network;
  const [a, b] = [from, to].map((id) => design.hosts.find((host) => host.id === id));
  if (!a || !b) return { arrives: false, why: `There is no host ${a ? to : from}.` };
  if (a.vlan !== b.vlan)
    return {
      arrives: false,
      why: `${a.name ?? a.id} is in VLAN ${a.vlan}, ${b.name ?? b.id} in VLAN ${b.vlan}: frames do not leave their VLAN.`,
    };
  const flow: Flow = { from: a.mac, to: b.mac };
  const start = entryPortOf(passage, a, flow);
  const stuck = start < 0 ? a : entryPortOf(passage, b, { from: b.mac, to: a.mac }) < 0 ? b : null;
  if (stuck)
    return {
      arrives: false,
      why: `No port that ${stuck.name ?? stuck.id} is plugged into forwards VLAN ${stuck.vlan}.`,
    };
  const cameBy = new Map<number, { readonly ingress: number; readonly out: number }>();
  /** The switch at which it comes in by a port: of a pair's bundle that of the member. */
  const inAt = new Map([[start, entryHome(network, a, start)]]);
  const open = [start];
  const seen = new Set([owner[start]!]);
  for (const ingress of open) {
    const s = owner[ingress]!;
    for (let out = firstPort[s]!; out < firstPort[s + 1]!; out += 1) {
      if (out === ingress || !passage.passes(a.vlan, out)) continue;
      if (reachesHost(passage, b, out, flow)) return { arrives: true, hops: wayTo(ingress, out) };
      const by = socketFor(network, out, flow, inAt.get(ingress));
      const next = farOf(passage, by);
      if (next < 0 || !passage.passes(a.vlan, next) || seen.has(owner[next]!)) continue;
      seen.add(owner[next]!);
      cameBy.set(next, { ingress, out });
      inAt.set(next, home[network.plug[by]!]!);
      open.push(next);
    }
  }
  const reached =
    seen.size === 1 ? 'no other switch' : `${seen.size - 1} other ${seen.size === 2 ? 'switch' : 'switches'}`;
  const goal = b.attach[0]!.switch;
  const end = switches.find((sw) => sw.id === goal)!;
  if (seen.has(network.switchIndex.get(goal)!))
    return {
      arrives: false,
      why: `Frames of VLAN ${a.vlan} from ${a.name ?? a.id} reach ${end.name ?? end.id}, but not over a cable that ${b.name ?? b.id} listens on.`,
    };
  return {
    arrives: false,
    why: `Frames of VLAN ${a.vlan} from ${a.name ?? a.id} reach ${reached}, but not ${end.name ?? end.id}: no forwarding ports lead there.`,
  };

  function wayTo(ingress: number, out: number): FrameHop[] {
    const at = inAt.get(ingress)!;
    const by = socketFor(network, out, flow, at);
    const from = home[by]!;
    const link = design.links[cable[by]!]?.id ?? null;
    const nameAt = (port: number, s: number): BridgePortId =>
      ports[halvesOf(network, port).find((half) => home[half] === s) ?? port]!.id;
    const hop = (s: number, i: BridgePortId, o: BridgePortId, over: LinkId | null): FrameHop => ({
      switch: switches[s]!.id,
      in: i,
      out: o,
      link: over,
    });
    const peer = network.pairs.find((pair) => isOne(pair) && pair.first === bridgeOf(network, at))?.peer;
    const inside =
      peer && from !== at
        ? [
            hop(at, nameAt(ingress, at), ports[peer.find((p) => home[p] === at)!]!.id, peerCable(network, peer)),
            hop(from, ports[peer.find((p) => home[p] === from)!]!.id, nameAt(out, from), link),
          ]
        : [hop(from, nameAt(ingress, at), nameAt(out, from), link)];
    const before = cameBy.get(ingress);
    return before ? [...wayTo(before.ingress, before.out), ...inside] : inside;
  }
}

/** The switch that a host's frame comes in at. */
function entryHome({ serves, home, portIndexOf }: Passage['network'], host: Host, entry: number): number {
  const card = host.attach.map((at) => portIndexOf(at.switch, at.port)).find((p) => serves[p] === entry);
  return home[card ?? entry]!;
}

/** A cable of a peer link that carries; which one a frame takes is not told. */
function peerCable(
  { design, bundleOf, cable, macOperational }: Passage['network'],
  peer: readonly number[],
): LinkId | null {
  const p = bundleOf.findIndex((bundle, port) => peer.includes(bundle) && macOperational[port] === 1);
  return design.links[cable[p]!]?.id ?? null;
}

/** Where the first frame to an unknown destination, or a broadcast, gets to: every switch copies it out of all other ports. */
export interface Flood {
  readonly switches: readonly SwitchId[];
  readonly links: readonly LinkId[];
  /** Hosts that get a copy, in the order in which it reaches them. */
  readonly hosts: readonly HostId[];
}

/** Follows a frame that no switch knows the destination of; one copy a switch, however many come. */
export function followFlood(given: Passage, from: HostId): Flood {
  const passage = asBridges(given);
  const { network } = passage;
  const { design, owner, firstPort, cable, switches } = network;
  const host = design.hosts.find((each) => each.id === from);
  const flow: Flow = { from: host?.mac ?? BROADCAST, to: BROADCAST };
  const start = host ? entryPortOf(passage, host, flow) : -1;
  if (!host || start < 0) return { switches: [], links: [], hosts: [] };
  const others = design.hosts.filter(({ id, vlan }) => vlan === host.vlan && id !== from);
  const behind = othersAt(network.portIndexOf, network.serves, others);
  const seen = new Set([owner[start]!]);
  const links = new Set<number>();
  const hosts = new Set<HostId>();
  const open = [start];
  for (const ingress of open) {
    const s = owner[ingress]!;
    for (let out = firstPort[s]!; out < firstPort[s + 1]!; out += 1) {
      if (out === ingress || !passage.passes(host.vlan, out)) continue;
      for (const other of behind.get(out) ?? []) if (reachesHost(passage, other, out, flow)) hosts.add(other.id);
      const aggregationPort = socketFor(network, out, flow);
      if (aggregationPort < 0 || network.plug[aggregationPort]! < 0 || !passage.arrives(aggregationPort)) continue;
      links.add(cable[aggregationPort]!);
      const next = farOf(passage, aggregationPort);
      if (next < 0 || !passage.passes(host.vlan, next) || seen.has(owner[next]!)) continue;
      seen.add(owner[next]!);
      open.push(next);
    }
  }
  const both = [...seen].flatMap((s) =>
    network.pairs.some(({ first, state }) => first === s && state === 'together') ? [s, s + 1] : [s],
  );
  return {
    switches: both.map((s) => switches[s]!.id),
    links: [...links].map((l) => design.links[l]!.id),
    hosts: [...hosts],
  };
}

/** Hosts by the bridge ports that they are plugged into. */
function othersAt(
  portIndexOf: Passage['network']['portIndexOf'],
  serves: Int32Array,
  hosts: readonly Host[],
): Map<number, Host[]> {
  const found = new Map<number, Host[]>();
  for (const host of hosts) {
    for (const at of host.attach) {
      const port = serves[portIndexOf(at.switch, at.port)]!;
      if (port >= 0) found.set(port, [...(found.get(port) ?? []), host]);
    }
  }
  return found;
}
