/**
 * A design compiled into indices: what every tree shares, in flat arrays, so that a solve touches no strings.
 * Switch and port indices follow document order; every tie that the standards leave open is settled by identifier,
 * never by that order, so the order of a file does not matter.
 */
import { SHUT_BY } from '../model/guard';
import type { BridgePortId, SwitchId } from '../model/ids';
import { bundlesOf, type Bundles } from './lag/ends';
import { settleBundles } from './lag/settled';
import type { Design } from '../model/document';
import { bridgePorts, usesOf, withBundles, type Aggregate, type MemberUse } from './aggregated';
import { actingFrom, keepalivePorts, named, pairedIn, type PairedBridges } from './acting';
import { placesOf, type Bridge, type BridgePort } from './bridges';
import type { VlanSet } from '../model/vlanSet';
import { guardsActing, probesActing, withShut, type ShutPort } from './shut';
import { downForPairs, type PairDown } from './pairs';
import { asItStands } from './standing';
import { carried } from './trees';

/** Why a port has no signal, or null where it has. */
export type DeadReason =
  | 'no-cable'
  | 'switch-off'
  | 'port-down'
  | 'stack-member-off'
  | PairDown
  | 'shut'
  | 'link-cut'
  | 'far-end-down'
  | 'far-end-shut'
  | 'far-switch-off'
  | 'bundle-down'
  | 'member';

/**
 * Bridge ports, and what is plugged in. A port that carries frames of a bundle is none itself: the bundle is, which stands
 * after the ports of its switch. `far`, `link`, `live` and `carried` are about bridge ports; `plug`, `cable` and `macOperational`
 * about aggregationPorts.
 */
export interface Network {
  readonly design: Design;
  /** The switches, with a port for each bundle after a switch's own ports. */
  readonly switches: readonly Bridge[];
  readonly ports: readonly BridgePort[];
  /** The switch, or the bridge that it is part of. */
  readonly switchIndex: ReadonlyMap<SwitchId, number>;
  /** Length switches + 1: the ports of bridge `s` are `firstPort[s]` up to `firstPort[s + 1]`. */
  readonly firstPort: Int32Array;
  /** The switch of each port; where a pair acts as one, of both switches' ports the primary. */
  readonly owner: Int32Array;
  /** The switch that each port is at. */
  readonly home: Int32Array;
  /** Pairs of switches: the secondary stands behind its primary. */
  readonly pairs: readonly PairedBridges[];
  /** The same as its bridges are, for protocols and frames, with the same places: pairs that act as one are one bridge, in the place of the primary. Itself where there are none. */
  readonly acting?: Network;
  /** The bridge port that a port's BPDUs arrive at, or -1 (nothing, a host, a bundle's member that is kept out). */
  readonly far: Int32Array;
  /** The index of the link that a port's BPDUs take, or -1. */
  readonly link: Int32Array;
  /** 1 where the port is a bridge port that has signal. */
  readonly live: Uint8Array;
  /** The port at the other end of the cable, or -1 (nothing, or a host). */
  readonly plug: Int32Array;
  /** The index of the link in each port, or -1. */
  readonly cable: Int32Array;
  /** By link, the ports at its two ends: 2 x link, 2 x link + 1. */
  readonly linkEnds: Int32Array;
  /** 1 where the aggregationPort has signal. */
  readonly macOperational: Uint8Array;
  /** Of a member the port that its bundle is, else -1. */
  readonly bundleOf: Int32Array;
  /** The bridge port whose frames a aggregationPort carries now: itself, or its bundle; -1 for a member that is kept out. */
  readonly serves: Int32Array;
  /** The aggregationPort by which a bridge port's BPDUs leave; of a bundle one of its members, -1 where none is active. */
  readonly transmitPort: Int32Array;
  /** Of a bundle that is none at its other end: ports that it hears, beside the one that hears it. */
  readonly oneWayPeers: ReadonlyMap<number, readonly number[]>;
  /** By the port that a bundle is. */
  readonly aggregates: ReadonlyMap<number, Aggregate>;
  readonly bundles: Bundles;
  /** What each member is used for. */
  readonly use: readonly MemberUse[];
  /** By bridge port, what shut it: a code of `SHUT_BY`. */
  readonly shut: Uint8Array;
  /** The VLANs that each port carries. */
  readonly carried: readonly VlanSet[];
  /** Rank of each port by (switch id, port id): the last resort where port identifiers collide. */
  readonly order: Int32Array;
  readonly portIndexOf: (sw: SwitchId, port: BridgePortId) => number;
}

/**
 * Compiles a checked design. `use` says what the members of bundles are used for, by default what they settle to, and `shut`
 * which ports guards have shut, by default those that they will in the end.
 */
export function compileNetwork(
  design: Design,
  use: readonly MemberUse[] | null = null,
  shut: readonly ShutPort[] | null = null,
): Network {
  const network = compileWith(design, shut ?? [], use);
  if (shut) return network;
  const guards = guardsActing(network.acting ?? network);
  const guarded = guards.length === 0 ? network : compileWith(design, guards, use);
  const probes = probesActing(guarded.acting ?? guarded);
  return probes.length === 0 ? guarded : compileWith(design, [...guards, ...probes], use);
}

/**
 * The network of a design of which `dirtyBetween` says that it differs from another one in what single trees read, or in what
 * none does: what was made of cables, bundles and VLANs is shared. Null where bundles, hosts, pairs or guards come into it.
 */
export function withOtherSettings(network: Network, design: Design): Network | null {
  const { design: before, bundles, use, shut } = network;
  if (
    network.acting ||
    design.bundles !== before.bundles ||
    design.hosts !== before.hosts ||
    shut.some((by) => by !== SHUT_BY.nothing)
  )
    return null;
  const standing = asItStands(design);
  const switches = bundles.members.length > 0 ? withBundles(standing, bundles, use) : standing.switches;
  return { ...network, design, switches, ports: switches.flatMap((sw) => sw.ports) };
}

function compileWith(design: Design, shut: readonly ShutPort[], use: readonly MemberUse[] | null): Network {
  const wired = compileWired(withShut(design, shut), use);
  const network = { ...wired, design, live: shut.length === 0 ? wired.live : wired.live.slice() };
  const { live, shut: shutBy } = network;
  for (const { switch: sw, port, by } of shut) {
    const p = network.portIndexOf(sw, port);
    shutBy[p] = by;
    live[p] = 0;
  }
  if (network.pairs.length === 0) return network;
  const paired = { ...network, switches: named(network) };
  return { ...paired, acting: actingFrom(paired) };
}

/** Compiles a design whose ports are set down where they are shut. */
function compileWired(design: Design, use: readonly MemberUse[] | null): Network {
  const bundles = bundlesOf(design);
  const used = use ?? (bundles.members.length > 0 ? usesOf(bundles, settleBundles(bundles)) : []);
  const switches = bundles.members.length > 0 ? withBundles(design, bundles, used) : design.switches;
  const { firstPort, switchIndex, portIndexOf } = placesOf(switches);
  const ports = switches.flatMap((sw) => sw.ports);
  const owner = new Int32Array(ports.length);
  switches.forEach((_, s) => owner.fill(s, firstPort[s], firstPort[s + 1]));

  const ready = (p: number): boolean => ports[p]!.up && switches[owner[p]!]!.up;
  const plug = new Int32Array(ports.length).fill(-1);
  const cable = new Int32Array(ports.length).fill(-1);
  const macOperational = new Uint8Array(ports.length);
  const linkEnds = new Int32Array(2 * design.links.length);
  design.links.forEach((each, l) => {
    const a = portIndexOf(each.a.switch, each.a.port);
    const b = portIndexOf(each.b.switch, each.b.port);
    linkEnds[2 * l] = a;
    linkEnds[2 * l + 1] = b;
    plug[a] = b;
    plug[b] = a;
    cable[a] = cable[b] = l;
    macOperational[a] = macOperational[b] = each.up && ready(a) && ready(b) ? 1 : 0;
  });
  for (const host of design.hosts) {
    for (const at of host.attach) {
      const p = portIndexOf(at.switch, at.port);
      macOperational[p] = ready(p) ? 1 : 0;
    }
  }
  for (const p of keepalivePorts(design, portIndexOf))
    for (const end of [p, plug[p]!]) if (end >= 0) macOperational[end] = 0;
  const aggregationPorts = { plug, cable, macOperational };
  return {
    design,
    switches,
    ports,
    switchIndex,
    firstPort,
    owner,
    home: owner,
    pairs: pairedIn(design, { switchIndex, portIndexOf }),
    ...aggregationPorts,
    linkEnds,
    portIndexOf,
    bundles,
    use: used,
    ...bridgePorts({ bundles, used, portIndexOf, ports, ...aggregationPorts }),
    shut: new Uint8Array(ports.length),
    carried: ports.map((port) => carried(port.vlans)),
    order: portOrder(switches, firstPort),
  };
}

/** The bridge port at an end of a cable: the bundle that its aggregationPort is a member of, or the port itself. */
export const bridgePortOf = (network: Network, p: number): number =>
  p >= 0 && network.serves[p]! >= 0 ? network.serves[p]! : p;

function portOrder(switches: readonly Bridge[], firstPort: Int32Array): Int32Array {
  const byId = <T extends { readonly id: string }>(items: readonly T[]): number[] =>
    Array.from(items.keys()).sort((i, j) => (items[i]!.id < items[j]!.id ? -1 : 1));
  const order = new Int32Array(firstPort[switches.length]!);
  let rank = 0;
  for (const s of byId(switches)) for (const i of byId(switches[s]!.ports)) order[firstPort[s]! + i] = rank++;
  return order;
}

/** Whether a port is a bundle. */
export const isBundle = ({ aggregates }: Network, p: number): boolean => aggregates.has(p);

/** Why a port is without signal; null where it has signal. */
export function deadReason(network: Network, p: number): DeadReason | null {
  if (network.live[p]) return null;
  if (!network.switches[network.owner[p]!]!.up) return 'switch-off';
  if (isShut(network, p)) return 'shut';
  if (!network.ports[p]!.up) return downForOthers(network, p) ?? 'port-down';
  if (isKeepalivePort(network, p)) return 'keepalive';
  if (isBundle(network, p)) return 'bundle-down';
  if (network.bundleOf[p]! >= 0 && network.macOperational[p]) return 'member';
  const l = network.cable[p]!;
  if (l < 0) return 'no-cable';
  if (!network.design.links[l]!.up) return 'link-cut';
  const there = network.plug[p]!;
  if (!network.switches[network.owner[there]!]!.up) return 'far-switch-off';
  return isShut(network, there) ? 'far-end-shut' : 'far-end-down';
}

/** Why a port that is set up is down all the same: for its stack or its pair; null where it is set down. */
function downForOthers({ design, switches, ports, home }: Network, p: number): DeadReason | null {
  const { id } = switches[home[p]!]!;
  const port = design.switches
    .find((sw) => sw.id === id)
    ?.ports.find((each) => (each.id as BridgePortId) === ports[p]!.id);
  if (!port?.up) return null;
  return downForPairs(design).get(id)?.get(port.id) ?? 'stack-member-off';
}

const isKeepalivePort = ({ switches, ports, home }: Network, p: number): boolean =>
  switches[home[p]!]!.pair?.keepalivePort === (ports[p]!.id as string);

/** What shut a port, or the bundle that it is a member of: a code of `SHUT_BY`. */
export const shutCode = ({ shut, bundleOf }: Network, p: number): number =>
  shut[p]! || (bundleOf[p]! >= 0 ? shut[bundleOf[p]!]! : 0);
/** Whether a guard has shut a port, or the bundle that it is a member of. */
export const isShut = (network: Network, p: number): boolean => shutCode(network, p) !== 0;
