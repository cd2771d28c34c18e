/**
 * A design compiled into indices: what every tree shares, in flat arrays, so that a solve touches no strings.
 * Switch and port indices follow document order; every tie that the standards leave open is settled by identifier,
 * never by that order, so the order of a file does not matter.
 */
import { SHUT_BY } from '../model/guard';
import type { BridgePortId } from '../model/ids';
import { bundlesOf } from './lag/ends';
import { settleBundles } from './lag/settled';
import type { Design } from '../model/document';
import { bridgePorts, usesOf, withBundles, type MemberUse } from './aggregated';
import { actingFrom, keepalivePorts, named, pairedIn } from './acting';
import type { Network } from './shape';
import { placesOf, type Bridge } from './bridges';
import { guardsActing, probesActing, withShut, type ShutPort } from './shut';
import { downForPairs, type PairDown } from './pairs';
import { asItStands } from './standing';
import { carried } from './trees';

export type { Network } from './shape';

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
