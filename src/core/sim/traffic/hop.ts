/** One hop of a frame: by which socket it leaves a bridge port or a host, and where it comes in. */
import { memberFor, type Flow } from '../../topology/lag/hash';
import type { Host } from '../../model/document';
import type { Network } from '../../topology/network';

/** Which ports let frames through: of a run at an instant, or of a settled solution. */
export interface Passage {
  readonly network: Network;
  /** Whether frames of a VLAN pass a bridge port. */
  passes(vid: number, port: number): boolean;
  /** Whether what a bridge port says to its neighbour gets there. */
  carries(port: number): boolean;
  /** Whether what goes out of a socket comes out of the cable. */
  arrives(socket: number): boolean;
}

/** The socket by which a frame leaves a bridge port; -1 where none is active. */
export function socketFor(network: Network, port: number, flow: Flow): number {
  const bundle = network.aggregates.get(port);
  if (!bundle) return port;
  const { end, sockets } = bundle;
  const place = memberFor(end.hash, flow, sockets.length, bundle.active);
  return place < 0 ? -1 : sockets[place]!;
}

/** The bridge port at which a frame that leaves by a socket comes in; -1 where it is lost, or comes to a host. */
export function farOf(passage: Passage, socket: number): number {
  const { plug, serves } = passage.network;
  const there = socket < 0 ? -1 : plug[socket]!;
  return there >= 0 && passage.arrives(socket) ? serves[there]! : -1;
}

/** Every socket that frames may leave a bridge port by. */
export function socketsOf(network: Network, port: number): readonly number[] {
  const bundle = network.aggregates.get(port);
  return bundle ? bundle.active.map((place) => bundle.sockets[place]!) : [port];
}

/** The cards that a host takes frames from: those of its bundle, else each. Sockets of the switch ports. */
export function cardsOf(
  { bundles, use, portIndexOf }: Network,
  host: Host,
): { readonly sockets: readonly number[]; readonly bundled: boolean } {
  const all = host.attach.map((at) => portIndexOf(at.switch, at.port));
  const end = host.bundle && bundles.ends.find(({ owner }) => owner.kind === 'host' && owner.host === host.id);
  if (!end) return { sockets: all, bundled: false };
  const used = all.filter((_, i) => use[end.members[i]!] === 'bundle');
  return used.length > 0
    ? { sockets: used, bundled: true }
    : { sockets: all.filter((_, i) => use[end.members[i]!] === 'own'), bundled: false };
}

/** The bridge port at which a host's frame comes in: of its bundle's cards the one that the flow chooses, else the first that leads anywhere; -1 with none. */
export function entryOf(passage: Passage, host: Host, flow: Flow): number {
  const { network } = passage;
  const { sockets, bundled } = cardsOf(network, host);
  const lets = (socket: number): boolean =>
    passage.arrives(socket) && network.serves[socket]! >= 0 && passage.passes(host.vlan, network.serves[socket]!);
  if (!bundled || !host.bundle) return bridgePort(sockets.find(lets));
  const lit = sockets.flatMap((socket, place) => (passage.arrives(socket) ? [place] : []));
  const place = memberFor(host.bundle.hash, flow, sockets.length, lit);
  return place >= 0 && lets(sockets[place]!) ? bridgePort(sockets[place]) : -1;

  function bridgePort(socket: number | undefined): number {
    return socket === undefined ? -1 : network.serves[socket]!;
  }
}

/** Whether a frame that leaves by a bridge port comes to a card of a host. */
export function reachesHost(passage: Passage, host: Host, port: number, flow: Flow): boolean {
  const socket = socketFor(passage.network, port, flow);
  return socket >= 0 && passage.arrives(socket) && cardsOf(passage.network, host).sockets.includes(socket);
}
