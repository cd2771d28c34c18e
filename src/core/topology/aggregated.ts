/** Bundles as bridge ports: one port each, which its members serve (802.1Q-2018 6.14 over 802.1AX-2020 6.2.1). */
import type { BundleEnd, BundleMember, Bundles } from './lag/ends';
import type { SettledBundles } from './lag/settled';
import type { BridgePortId, BundleId, PortId, SwitchId } from '../model/ids';
import type { Bundle, Design, Port } from '../model/document';
import { bridgePortFields } from '../model/port';
import type { Bridge, BridgePort } from './bridges';

/** What a member is used for: frames of its bundle, as a port of its own, nothing; `apart` where there is no bundle yet, so that its own settings hold. */
export type MemberUse = 'bundle' | 'own' | 'out' | 'apart';

/** Added to a bundle's number to give its port number. */
export const BUNDLE_PORTS = 2048;

/** What settled bundles use their members for. */
export const usesOf = ({ members }: Bundles, settled: SettledBundles): MemberUse[] =>
  members.map((member): MemberUse => {
    const { state } = settled.members[member.index]!;
    if (state === 'active') return settled.ends[member.end]!.up ? 'bundle' : 'out';
    return state === 'individual' ? 'own' : 'out';
  });

/** Switches with a port for each of their bundles, and members, wherever they are, set as their bundle is. */
export function withBundles(design: Design, bundles: Bundles, used: readonly MemberUse[]): Bridge[] {
  const own = new Map<SwitchId, BridgePort[]>();
  const settings = new Map<SwitchId, Map<PortId, Steering>>();
  const byId = new Map(design.bundles.map((bundle) => [bundle.id, bundle]));
  for (const { owner, members: places } of bundles.ends) {
    const bundle = owner.kind === 'switch' ? byId.get(owner.bundle) : undefined;
    if (!bundle) continue;
    const members = places.map((m) => bundles.members[m]!);
    own.set(bundle.switch, [...(own.get(bundle.switch) ?? []), asPort(bundle, members, used)]);
    for (const { index, at } of members) {
      if (used[index] === 'apart') continue;
      const there = settings.get(at.switch) ?? new Map<PortId, Steering>();
      settings.set(at.switch, there.set(at.port, steeringOf(bundle)));
    }
  }
  return design.switches.map((sw) => {
    const [joined, set] = [own.get(sw.id), settings.get(sw.id)];
    if (!joined && !set) return sw;
    const ports = sw.ports.map((port) => {
      const by = set?.get(port.id);
      return by ? steered(port, by) : port;
    });
    return { ...sw, ports: [...ports, ...(joined ?? [])] };
  });
}

/** As fast as its active members together; as all of them, where none is. */
function asPort(bundle: Bundle, members: readonly BundleMember[], used: readonly MemberUse[]): BridgePort {
  const active = members.filter((member) => used[member.index] === 'bundle');
  const speed = (active.length > 0 ? active : members).reduce((sum, member) => sum + member.speed, 0);
  return { id: bundle.id, number: BUNDLE_PORTS + bundle.number, speed, up: true, ...steeringOf(bundle) };
}

/** What bundles have in common with ports. */
type Steering = Pick<Bundle, keyof typeof bridgePortFields>;
const STEERING = Object.keys(bridgePortFields) as (keyof Steering)[];

const steeringOf = (bundle: Bundle): Steering =>
  Object.fromEntries(
    STEERING.flatMap((key) => (bundle[key] === undefined ? [] : [[key, bundle[key]] as const])),
  ) as Steering;

function steered({ id, number, speed, up, lacp }: Port, by: Steering): Port {
  return { id, number, speed, up, ...(lacp ? { lacp } : {}), ...by };
}

/** A bundle as a bridge port. */
export interface Aggregate {
  readonly id: BundleId;
  readonly end: BundleEnd;
  /** Its members in the order of their numbers. */
  readonly aggregationPorts: readonly number[];
  /** Places among the members of those that carry frames now. */
  readonly active: readonly number[];
}

interface AggregationPorts {
  readonly bundles: Bundles;
  readonly used: readonly MemberUse[];
  readonly portIndexOf: (sw: SwitchId, port: BridgePortId) => number;
  readonly ports: readonly BridgePort[];
  readonly plug: Int32Array;
  readonly cable: Int32Array;
  readonly macOperational: Uint8Array;
  /** The bundle that a bundle is part of: itself, but for a half of a pair bundle. */
  readonly partOf?: (bundle: number) => number;
}

const NOBODY: ReadonlyMap<number, readonly number[]> = new Map();

/** Which bridge port each aggregationPort serves, and where the BPDUs of each bridge port go. */
export function bridgePorts({
  bundles,
  used,
  portIndexOf,
  ports,
  plug,
  cable,
  macOperational,
  partOf = (bundle) => bundle,
}: AggregationPorts) {
  const bundleOf = new Int32Array(ports.length).fill(-1);
  const serves = Int32Array.from(ports.keys());
  const transmitPort = Int32Array.from(ports.keys());
  const aggregates = new Map<number, Aggregate>();
  if (bundles.members.length === 0)
    return {
      bundleOf,
      serves,
      far: plug,
      link: cable,
      live: macOperational,
      transmitPort,
      aggregates,
      oneWayPeers: NOBODY,
    };
  const far = plug.slice();
  const link = cable.slice();
  const live = macOperational.slice();
  /** By bundle, its members. */
  const together = new Map<number, { readonly id: BundleId; readonly end: BundleEnd; readonly members: number[] }>();
  for (const end of bundles.ends) {
    if (end.owner.kind === 'host') continue;
    const bundle = partOf(portIndexOf(end.owner.switch, end.owner.bundle));
    const own = together.get(bundle) ?? { id: end.owner.bundle, end, members: [] };
    together.set(bundle, own);
    for (const m of end.members) {
      const { at } = bundles.members[m]!;
      const aggregationPort = portIndexOf(at.switch, at.port);
      const use = used[m]!;
      if (use === 'apart') continue;
      own.members.push(aggregationPort);
      bundleOf[aggregationPort] = bundle;
      serves[aggregationPort] = use === 'own' ? aggregationPort : use === 'bundle' ? bundle : -1;
    }
  }
  const carriers: { readonly bundle: number; readonly aggregationPorts: number[] }[] = [];
  for (const [bundle, { id, end, members }] of together) {
    const inOrder = members.sort((p, q) => ports[p]!.number - ports[q]!.number);
    const isActive = (aggregationPort: number): boolean => serves[aggregationPort] === bundle;
    aggregates.set(bundle, {
      id,
      end,
      aggregationPorts: inOrder,
      active: inOrder.flatMap((aggregationPort, place) => (isActive(aggregationPort) ? [place] : [])),
    });
    carriers.push({ bundle, aggregationPorts: inOrder.filter(isActive) });
  }
  const reached = (aggregationPort: number): number =>
    plug[aggregationPort]! < 0 ? -1 : serves[plug[aggregationPort]!]!;
  for (let p = 0; p < ports.length; p += 1) {
    if (serves[p] === p) {
      far[p] = reached(p);
      if (far[p]! < 0) link[p] = -1;
    } else {
      far[p] = link[p] = -1;
      live[p] = 0;
    }
  }
  const aggregationPortsOf = new Map(carriers.map(({ bundle, aggregationPorts }) => [bundle, aggregationPorts]));
  for (const { bundle, aggregationPorts } of carriers) {
    live[bundle] = aggregationPorts.length > 0 ? 1 : 0;
    const by = (transmitPort[bundle] = transmitPortOf(bundle, aggregationPorts));
    far[bundle] = by < 0 ? -1 : reached(by);
    link[bundle] = far[bundle]! < 0 ? -1 : cable[by]!;
  }
  const oneWayPeers = new Map<number, readonly number[]>();
  for (const { bundle, aggregationPorts } of carriers) {
    const heard = [...new Set(aggregationPorts.map(reached))].filter(
      (port) => port >= 0 && far[port] === bundle && far[bundle] !== port,
    );
    if (heard.length > 0) oneWayPeers.set(bundle, heard);
  }
  return { bundleOf, serves, far, link, live, transmitPort, aggregates, oneWayPeers };

  /** The member that the bundle's BPDUs leave by: where both ends are bundles of the same cables, both use one cable. */
  function transmitPortOf(bundle: number, aggregationPorts: readonly number[]): number {
    const [first] = aggregationPorts;
    if (first === undefined) return -1;
    const other = reached(first);
    const theirs = aggregationPortsOf.get(other);
    const together =
      theirs !== undefined &&
      aggregationPorts.every((aggregationPort) => reached(aggregationPort) === other) &&
      theirs.every((aggregationPort) => reached(aggregationPort) === bundle);
    const rank = (aggregationPort: number): number =>
      together ? cable[aggregationPort]! : ports[aggregationPort]!.number;
    return aggregationPorts.reduce((best, aggregationPort) =>
      rank(aggregationPort) < rank(best) ? aggregationPort : best,
    );
  }
}
