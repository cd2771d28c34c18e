/**
 * What is set at a switch, in one neutral tree: every default filled in, every name resolved, nothing that a maker would call
 * otherwise. All forms of settings are made of it; docs/settings.md describes it for people's own templates.
 */
import {
  isMultiple,
  isPerVlan,
  runsTrees,
  traitsOf,
  DEFAULT_TIMERS,
  type Bundle,
  type Carriage,
  type CostMethod,
  type Design,
  type Dialect,
  type Port,
  type Switch,
  type Timers,
} from '../../model/document';
import { methodOf } from '../../model/costMethod';
import { hasBpduGuard, hasLoopProbe } from '../../model/guard';
import { LACP_PRIORITY } from '../../model/legal';
import { CIST, CST, instanceTree, treeInstance, treeVlan, vlanTree, type SwitchId, type TreeId } from '../../model/ids';
import { nameOf } from '../../model/names';
import { VlanSet, vlanSet } from '../../model/vlanSet';
import { BUNDLE_PORTS } from '../../topology/aggregated';
import { pathCostOf } from '../../topology/pathCost';
import { portIdentifier, setBridgePriority, setPathCost } from '../../topology/bridgeId';

/** A tree that a switch takes part in. */
export interface TreeSet {
  readonly tree: TreeId;
  readonly kind: 'common' | 'vlan' | 'instance';
  /** The VLAN, or the MSTID; 0 of the common tree. */
  readonly number: number;
  /** The VLANs that go with it, as `15,25-29`; of the common tree of a region those of no other instance. */
  readonly vlans: string;
  /** Without the system ID extension. */
  readonly priority: number;
}

/** What a port or a bundle has in one tree. */
export interface PortInTreeSet {
  readonly tree: TreeId;
  /** Set by hand; null where the speed decides. */
  readonly cost: number | null;
  /** What the speed makes of it by the switch's method; of a bundle that of all its members together. */
  readonly bySpeed: number;
  readonly priority: number;
}

/** What ports and bundles have in common. */
export interface BridgePortSet {
  /** What exports call it: `port3`, `bundle1`. */
  readonly interface: string;
  /** The port number of its identifier. */
  readonly number: number;
  readonly up: boolean;
  readonly vlans: Carriage;
  readonly edge: boolean;
  readonly autoEdge: boolean;
  readonly bpduGuard: boolean;
  readonly loopProbe: boolean;
  readonly rootGuard: boolean;
  readonly loopGuard: boolean;
  readonly restrictedTcn: boolean;
  readonly bpduRx: boolean;
  readonly bpduTx: boolean;
  readonly stormLimit: { readonly most: number; readonly of: 'percent' | 'frames' } | null;
  /** How it speaks otherwise than its switch; null where it does not. */
  readonly speaks: string | null;
  /** What else is set there and no form has a place for, in words. */
  readonly alsoSet: readonly string[];
  readonly trees: readonly PortInTreeSet[];
}

export interface PortSet extends BridgePortSet {
  readonly id: string;
  /** Mbit/s. */
  readonly speed: number;
  /** The interface of the bundle that it is a member of. */
  readonly bundle: string | null;
  readonly lacpPriority: number;
  /** What is plugged in there, in words; null where nothing is. */
  readonly to: string | null;
}

export interface BundleSet extends BridgePortSet {
  readonly id: string;
  readonly name: string | null;
  /** The bundle's own, which is not that of its port. */
  readonly bundleNumber: number;
  /** Interfaces. */
  readonly members: readonly string[];
  readonly mode: Bundle['mode'];
  readonly timeout: Bundle['timeout'];
  readonly key: number;
  readonly minLinks: number;
  readonly maxActive: number;
  readonly hash: Bundle['hash'];
}

export interface SwitchSet {
  readonly id: SwitchId;
  readonly name: string;
  readonly mac: string;
  readonly mode: Dialect;
  /** As people call it. */
  readonly modeName: string;
  readonly costMethod: CostMethod;
  readonly timers: Timers;
  readonly lacpSystemPriority: number;
  readonly region: { readonly name: string; readonly revision: number } | null;
  readonly vlans: readonly { readonly id: number; readonly name: string | null }[];
  readonly trees: readonly TreeSet[];
  readonly ports: readonly PortSet[];
  readonly bundles: readonly BundleSet[];
  /** What else is set of the whole switch and no form has a place for, in words: checks, a stack, a pair. */
  readonly alsoSet: readonly string[];
  /** Seconds until shut ports open by themselves; null where they do not. */
  readonly recovery: number | null;
}

/** The settings of every switch, in the order of the design. */
export const settingsOf = (design: Design): SwitchSet[] => design.switches.map((sw) => settingsAt(design, sw));

function settingsAt(design: Design, sw: Switch): SwitchSet {
  const region = design.regions.find(({ id }) => id === sw.region) ?? null;
  const bundles = design.bundles.filter((bundle) => bundle.switch === sw.id);
  const trees = treesAt(design, sw);
  const method = methodOf(design, sw);
  const common = (
    port: Port | Bundle,
    speed: number,
  ): Omit<BridgePortSet, 'interface' | 'number' | 'up' | 'edge' | 'autoEdge'> => ({
    vlans: port.vlans,
    bpduGuard: hasBpduGuard(port, sw),
    loopProbe: hasLoopProbe(port, sw),
    rootGuard: port.rootGuard,
    loopGuard: port.loopGuard,
    restrictedTcn: port.restrictedTcn,
    bpduRx: port.bpduRx,
    bpduTx: port.bpduTx,
    stormLimit: port.stormLimit ?? null,
    speaks: port.speaks ?? null,
    alsoSet: alsoAt(port),
    trees: trees.map(({ tree }) => ({
      tree,
      cost: setPathCost(port as never, tree, sw.dialect) ?? null,
      bySpeed: pathCostOf(speed, method),
      priority: portIdentifier(port as never, tree, sw.dialect).priority,
    })),
  });
  const inBundle = (port: Port): Bundle | undefined => bundles.find(({ ports }) => ports.includes(port.id));
  return {
    id: sw.id,
    name: nameOf(sw),
    mac: sw.mac,
    mode: sw.dialect,
    modeName: traitsOf(sw.dialect).name,
    costMethod: method,
    timers: sw.timers,
    lacpSystemPriority: sw.lacp?.systemPriority ?? LACP_PRIORITY.default,
    region: isMultiple(sw) ? { name: region?.name ?? '', revision: region?.revision ?? 0 } : null,
    vlans: vlansAt(design, sw),
    trees,
    ports: sw.ports.map((port) => {
      const bundle = inBundle(port);
      return {
        ...common(port, port.speed),
        interface: portName(port),
        id: port.id,
        number: port.number,
        speed: port.speed,
        up: port.up,
        edge: port.edge,
        autoEdge: port.autoEdge,
        bundle: bundle ? bundleName(bundle) : null,
        lacpPriority: port.lacp?.priority ?? LACP_PRIORITY.default,
        to: pluggedTo(design, sw.id, port.id),
      };
    }),
    bundles: bundles.map((bundle) => ({
      ...common(bundle, speedOf(sw, bundle)),
      interface: bundleName(bundle),
      id: bundle.id,
      name: bundle.name ?? null,
      number: BUNDLE_PORTS + bundle.number,
      bundleNumber: bundle.number,
      up: true,
      edge: bundle.edge,
      autoEdge: bundle.autoEdge,
      members: bundle.ports.map((id) => portName(sw.ports.find((port) => port.id === id)!)),
      mode: bundle.mode,
      timeout: bundle.timeout,
      key: bundle.key ?? bundle.number,
      minLinks: bundle.minLinks,
      maxActive: bundle.maxActive,
      hash: bundle.hash,
    })),
    alsoSet: [
      ...(sw.stack ? [`stack of ${sw.stack.members.length} members`] : []),
      ...(sw.pair ? ['pair of switches'] : []),
      ...(sw.timers.ageIncrement !== DEFAULT_TIMERS.ageIncrement ? ['message age increment'] : []),
      ...(sw.vlanCheck ? ['VLAN check'] : []),
      ...(sw.rootCheck ? ['root check'] : []),
      ...(sw.ownCheck ? ['own BPDU check'] : []),
    ],
    recovery: sw.recovery ?? null,
  };
}

/** LACP settings of a member, a key other than the bundle's number, and the external cost. */
const alsoAt = (port: Port | Bundle): string[] => [
  ...('lacp' in port && port.lacp && port.lacp.priority !== LACP_PRIORITY.default ? ['LACP priority of a member'] : []),
  ...('lacp' in port && port.lacp?.key !== undefined ? ['LACP key of a member'] : []),
  ...('key' in port && port.key !== undefined && port.key !== port.number ? ['LACP key of a bundle'] : []),
  ...(port.externalCost === undefined ? [] : ['external cost']),
];

const speedOf = (sw: Switch, { ports }: Bundle): number =>
  sw.ports.reduce((sum, { id, speed }) => sum + (ports.includes(id) ? speed : 0), 0);

const portName = ({ number }: Port): string => `port${number}`;
const bundleName = ({ number }: Bundle): string => `bundle${number}`;

/** VLANs that some port of a switch carries: VLAN 1, and those of the design's list. */
function vlansAt(design: Design, sw: Switch): SwitchSet['vlans'] {
  const own = [...sw.ports, ...design.bundles.filter((bundle) => bundle.switch === sw.id)].map(({ vlans }) =>
    vlans.mode === 'access' ? VlanSet.of([[vlans.vlan, vlans.vlan]]) : vlanSet(vlans.allowed),
  );
  const carried = own.reduce((all, each) => all.union(each), VlanSet.of([[1, 1]]));
  const named = new Map(design.vlans.map((vlan) => [vlan.id as number, vlan.name ?? null]));
  const access = [...sw.ports].flatMap(({ vlans }) => (vlans.mode === 'access' ? [vlans.vlan as number] : []));
  return [...new Set([1, ...named.keys(), ...access])]
    .filter((id) => carried.has(id))
    .sort((a, b) => a - b)
    .map((id) => ({ id, name: named.get(id) ?? null }));
}

function treesAt(design: Design, sw: Switch): TreeSet[] {
  if (!runsTrees(sw)) return [];
  const tree = (id: TreeId, vlans: string): TreeSet => ({
    tree: id,
    kind: treeVlan(id) !== null ? 'vlan' : id === CST || id === CIST ? 'common' : 'instance',
    number: treeVlan(id) ?? treeInstance(id) ?? 0,
    vlans,
    priority: setBridgePriority(sw, id),
  });
  if (isPerVlan(sw)) return vlansAt(design, sw).map(({ id }) => tree(vlanTree(id), String(id)));
  if (!isMultiple(sw)) return [tree(CST, '1-4094')];
  const instances = design.regions.find(({ id }) => id === sw.region)?.instances ?? [];
  const mapped = instances.reduce((all, { vlans }) => all.union(vlanSet(vlans)), VlanSet.empty);
  const rest = VlanSet.all.differenceBothWays(mapped);
  return [tree(CIST, rest.format()), ...instances.map(({ id, vlans }) => tree(instanceTree(id), vlans))];
}

/** `ridge-b port3`, `Camera recorder`. */
function pluggedTo(design: Design, sw: SwitchId, port: string): string | null {
  const at = (end: { readonly switch: SwitchId; readonly port: string }): boolean =>
    end.switch === sw && end.port === port;
  for (const { a, b } of design.links) {
    const far = at(a) ? b : at(b) ? a : null;
    const there = far && design.switches.find(({ id }) => id === far.switch);
    if (far && there) return `${nameOf(there)} ${portName(there.ports.find(({ id }) => id === far.port)!)}`;
  }
  const host = design.hosts.find(({ attach }) => attach.some(at));
  return host ? (host.name ?? host.id) : null;
}
