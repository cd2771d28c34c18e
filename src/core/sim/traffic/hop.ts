/** One hop of a frame: by which aggregationPort it leaves a bridge port or a host, and where it comes in. */
import { halvesOf } from '../../topology/acting';
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
  /** Whether what goes out of a aggregationPort comes out of the cable. */
  arrives(aggregationPort: number): boolean;
}

/** The passage of a network's bridges: where pairs act as one, frames pass from switch to switch inside of them. */
export function asBridges(passage: Passage): Passage {
  const { network } = passage;
  const { acting } = network;
  if (!acting) return passage;
  const some = (port: number, is: (half: number) => boolean): boolean =>
    acting.live[port] === 1 && halvesOf(network, port).some(is);
  return {
    network: acting,
    passes: (vid, port) => some(port, (half) => passage.passes(vid, half)),
    carries: (port) => some(port, (half) => passage.carries(half)),
    arrives: (aggregationPort) => passage.arrives(aggregationPort),
  };
}

/** The aggregationPort by which a frame leaves a bridge port; -1 where none is active. `at`: the switch of a pair that it is at, whose own members it takes. */
export function socketFor(network: Network, port: number, flow: Flow, at = -1): number {
  const bundle = network.aggregates.get(port);
  if (!bundle) return port;
  const { end, aggregationPorts, active } = bundle;
  const own = at < 0 ? [] : aggregationPorts.filter((p) => network.home[p] === at);
  const near = own.flatMap((p, i) => (active.includes(aggregationPorts.indexOf(p)) ? [i] : []));
  const [from, lit] = near.length > 0 ? [own, near] : [aggregationPorts, active];
  const place = memberFor(end.hash, flow, from.length, lit);
  return place < 0 ? -1 : from[place]!;
}

/** The bridge port at which a frame that leaves by a aggregationPort comes in; -1 where it is lost, or comes to a host. */
export function farOf(passage: Passage, aggregationPort: number): number {
  const { plug, serves } = passage.network;
  const there = aggregationPort < 0 ? -1 : plug[aggregationPort]!;
  return there >= 0 && passage.arrives(aggregationPort) ? serves[there]! : -1;
}

/** Every aggregationPort that frames may leave a bridge port by. */
export function socketsOf(network: Network, port: number): readonly number[] {
  const bundle = network.aggregates.get(port);
  return bundle ? bundle.active.map((place) => bundle.aggregationPorts[place]!) : [port];
}

/** The cards that a host takes frames from: those of its bundle, else each. AggregationPorts of the switch ports. */
export function cardsOf(
  { bundles, use, portIndexOf }: Network,
  host: Host,
): { readonly aggregationPorts: readonly number[]; readonly bundled: boolean } {
  const all = host.attach.map((at) => portIndexOf(at.switch, at.port));
  const end = host.bundle && bundles.ends.find(({ owner }) => owner.kind === 'host' && owner.host === host.id);
  if (!end) return { aggregationPorts: all, bundled: false };
  const used = all.filter((_, i) => use[end.members[i]!] === 'bundle');
  return used.length > 0
    ? { aggregationPorts: used, bundled: true }
    : { aggregationPorts: all.filter((_, i) => use[end.members[i]!] === 'own'), bundled: false };
}

/** The bridge port at which a host's frame comes in: of its bundle's cards the one that the flow chooses, else the first that leads anywhere; -1 with none. */
export function entryPortOf(passage: Passage, host: Host, flow: Flow): number {
  const { network } = passage;
  const { aggregationPorts, bundled } = cardsOf(network, host);
  const lets = (aggregationPort: number): boolean =>
    passage.arrives(aggregationPort) &&
    network.serves[aggregationPort]! >= 0 &&
    passage.passes(host.vlan, network.serves[aggregationPort]!);
  if (!bundled || !host.bundle) return bridgePort(aggregationPorts.find(lets));
  const lit = aggregationPorts.flatMap((aggregationPort, place) => (passage.arrives(aggregationPort) ? [place] : []));
  const place = memberFor(host.bundle.hash, flow, aggregationPorts.length, lit);
  return place >= 0 && lets(aggregationPorts[place]!) ? bridgePort(aggregationPorts[place]) : -1;

  function bridgePort(aggregationPort: number | undefined): number {
    return aggregationPort === undefined ? -1 : network.serves[aggregationPort]!;
  }
}

/** Whether a frame that leaves by a bridge port comes to a card of a host. */
export function reachesHost(passage: Passage, host: Host, port: number, flow: Flow): boolean {
  const aggregationPort = socketFor(passage.network, port, flow);
  return (
    aggregationPort >= 0 &&
    passage.arrives(aggregationPort) &&
    cardsOf(passage.network, host).aggregationPorts.includes(aggregationPort)
  );
}
