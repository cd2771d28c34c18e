/** A running network as its switches would tell it: what stand-ins answer, and what reading them must come to. */
import { isMultiple, runsTrees, traitsOf, type Design } from '../../model/document';
import { CST, treeInstance, vlanTree, type BridgePortId, type SwitchId } from '../../model/ids';
import { namesOf } from '../../model/derive/names';
import { nameOf, type Names } from '../../model/names';
import { VlanSet } from '../../model/vlanSet';
import { SECOND, type Micros, type ProtocolEntity } from '../../modes/entity';
import type { LacpView } from '../../modes/lacp/entity';
import { wireLacpdu } from '../../sim/engine/onWire';
import type { Simulation } from '../../sim/engine/simulation';
import { bridgeOf, wholeOf } from '../../topology/acting';
import { rootPortAt } from '../../tree/spread';
import { bridgeId, portAddress, portIdentifier, portIdentifierValue, systemIdExtension } from '../../topology/bridgeId';
import { regionsOf } from '../../topology/region';
import { settingsOf, type BundleSet, type PortSet, type SwitchSet } from '../settings/settings';
import { carried, untaggedOf } from '../settings/vlanChanges';
import type {
  ObservedBundle,
  ObservedMst,
  ObservedNeighbour,
  ObservedSwitch,
  ObservedTree,
  ObservedTreePort,
} from './observation';

/** How often a bridge has flushed in a tree, and when last. */
export interface Changes {
  readonly count: number;
  readonly at: Micros;
  /** How often a port has begun to forward there, by its place; left out where nobody has counted. */
  readonly forwards?: (port: number) => number;
}
/** By place of the tree and switch. */
export type ChangesOf = (tree: number, s: number) => Changes;

/** Tells a switch as it stands now; null where it has no power. */
export type Observe = (id: SwitchId) => ObservedSwitch | null;

/** Of one design, until it is another; `changes`: topology changes, where they have been counted. */
export function observerOf(
  simulation: Simulation,
  design: Design,
  changes: ChangesOf = () => ({ count: 0, at: 0 }),
): Observe {
  const sets = new Map(settingsOf(design).map((set) => [set.id as SwitchId, set]));
  const known = VlanSet.of([[1, 1], ...design.vlans.map(({ id }) => [id, id] as const)]);
  const up = new Set(design.switches.filter((sw) => sw.up).map(({ id }) => id));
  const names = namesOf(design);
  return (id) =>
    up.has(id) ? new Observer(simulation, { set: sets.get(id)!, known, names, changes, design }).told() : null;
}

/** Every switch that has power, as it stands now. */
export function observeRun(simulation: Simulation, design: Design, changes?: ChangesOf): ObservedSwitch[] {
  const observe = observerOf(simulation, design, changes);
  return design.switches.flatMap(({ id }) => observe(id) ?? []);
}

interface Of {
  readonly set: SwitchSet;
  /** VLANs that the design has: others are told by nobody; VLAN 1 is there by itself. */
  readonly known: VlanSet;
  readonly names: Names;
  readonly changes: ChangesOf;
  readonly design: Design;
}

class Observer {
  private readonly simulation: Simulation;
  private readonly set: SwitchSet;
  private readonly known: VlanSet;
  private readonly names: Names;
  private readonly changes: ChangesOf;
  private readonly design: Design;
  private readonly s: number;

  constructor(simulation: Simulation, { set, known, names, changes, design }: Of) {
    this.simulation = simulation;
    this.set = set;
    this.known = known;
    this.names = names;
    this.changes = changes;
    this.design = design;
    this.s = simulation.physical.switchIndex.get(set.id)!;
  }

  told(): ObservedSwitch {
    const { set, simulation } = this;
    const { network } = simulation;
    return {
      source: set.id,
      name: set.name,
      mac: network.switches[this.s]!.mac,
      chassis: this.macOf(set.id),
      vlans: this.known.format(),
      ports: [...set.ports, ...set.bundles].map((port) => this.port(port)).sort((a, b) => a.number - b.number),
      bundles: set.bundles.map((bundle) => this.bundle(bundle)),
      trees: simulation.trees.flatMap((tree, t) => this.tree(tree, t) ?? []),
      mst: this.mst(),
      neighbours: set.ports.flatMap((port) => this.neighbours(port)),
      tellsNeighbours: true,
      missing: [],
    };
  }

  /** Its own, be it of a pair or not. */
  private macOf(id: string): string {
    return this.design.switches.find((sw) => sw.id === id)!.mac;
  }

  /** Who is plugged in there: switches and hosts tell of themselves by LLDP. */
  private neighbours(port: PortSet): ObservedNeighbour[] {
    // Of a pair, each is itself to its neighbours.
    const { physical } = this.simulation;
    const p = physical.portIndexOf(this.set.id, port.id as BridgePortId);
    if (!physical.macOperational[p]) return [];
    const far = physical.plug[p]!;
    if (far >= 0) {
      const there = physical.switches[physical.owner[far]!]!;
      const [system, portId] = [this.names.switch(there.id as SwitchId), `port${physical.ports[far]!.number}`];
      return [{ port: port.number, system, chassis: this.macOf(there.id), portId, address: null, kind: 'switch' }];
    }
    return this.design.hosts.flatMap((host) =>
      host.attach
        .filter((end) => end.switch === this.set.id && end.port === port.id)
        .map(() => ({
          ...{ port: port.number, system: nameOf(host), chassis: host.mac, portId: host.mac },
          ...{ address: null, kind: 'host' as const },
        })),
    );
  }

  private mst(): ObservedMst | null {
    const { simulation } = this;
    const s = bridgeOf(simulation.physical, this.s);
    const sw = simulation.network.switches[s]!;
    const region = regionsOf(this.design)(sw);
    const t = simulation.trees.findIndex((tree) => treeInstance(tree) === 0);
    const there = t < 0 ? null : simulation.entity(t, s);
    if (!region || !there) return null;
    const { regionalRoot, internalCost } = there.entity.rootVector(there.own);
    const { name, revision, digest } = region.configurationId;
    return {
      ...{ name, revision, digest, internalCost },
      instances: region.instances.map(({ mstid, vlans }) => ({ instance: mstid, vlans: vlans.format() })),
      regionalRoot: simulation.keys.idOf(regionalRoot),
      maxHops: sw.timers.maxHops,
    };
  }

  private indexOf(port: PortSet | BundleSet): number {
    return this.simulation.network.portIndexOf(this.set.id, port.id as BridgePortId);
  }

  private port(port: PortSet | BundleSet): ObservedSwitch['ports'][number] {
    const { network } = this.simulation;
    const p = this.indexOf(port);
    // A member that carries frames of its bundle, or none, is no bridge port.
    const isBridgePort = network.serves[p] === p;
    const { vlans } = network.ports[p]!;
    const own = carried(vlans).intersect(this.known);
    const untagged = untaggedOf(vlans);
    return {
      number: port.number,
      interface: port.interface,
      alias: '',
      speed: 'speed' in port ? port.speed : this.speedOf(port),
      mac: portAddress(this.set.mac, port.number),
      up: port.up,
      edge: isBridgePort && runsTrees(network.switches[this.s]!) ? network.ports[p]!.edge : null,
      signal: ('members' in port ? network.live[p] : network.macOperational[p]) === 1,
      vlans: isBridgePort
        ? { carried: own.format(), untagged: untagged !== null && own.has(untagged) ? untagged : null }
        : null,
    };
  }

  /** Of what carries frames now. */
  private speedOf({ id, members }: BundleSet): number {
    const active = new Set(this.activeIn(id));
    return this.set.ports.reduce((sum, { interface: name, id: port, speed }) => {
      return members.includes(name) && active.has(port) ? sum + speed : sum;
    }, 0);
  }

  private membersOf(id: string): readonly number[] {
    const { bundles } = this.simulation.aggregation;
    return bundles.ends.find(({ owner }) => owner.kind === 'switch' && owner.bundle === id)?.members ?? [];
  }
  private activeIn(id: string): string[] {
    const { aggregation } = this.simulation;
    return this.membersOf(id)
      .filter((m) => aggregation.memberNow(m).state === 'active')
      .map((m) => aggregation.bundles.members[m]!.id);
  }

  private bundle({ id, number, interface: name }: BundleSet): ObservedBundle {
    const { aggregation } = this.simulation;
    return {
      number,
      interface: name,
      members: this.membersOf(id).map((m) => {
        const { state, lacp } = aggregation.memberNow(m);
        const { id } = aggregation.bundles.members[m]!;
        return {
          port: this.set.ports.find((port) => port.id === id)!.number,
          active: state === 'active',
          lacp: lacp && sides(lacp),
        };
      }),
    };
  }

  private tree(tree: Simulation['trees'][number], t: number): ObservedTree | null {
    const { simulation, s, set } = this;
    const { network, keys, physical } = simulation;
    // Of a pair that acts as one, each switch tells of the bridge that both are.
    const bridge = bridgeOf(physical, s);
    const there = simulation.entity(t, bridge);
    if (!there) return null;
    const { entity, own } = there;
    const vector = entity.rootVector(own);
    const sw = network.switches[bridge]!;
    const rootPort = rootPortAt(physical, s, simulation.rootPort(t, bridge) ?? -1);
    const { count, at, forwards } = this.changes(t, bridge);
    // As a reader would call it: by the bridge's own identifier.
    const vid = systemIdExtension(sw, tree);
    // Its timers are those of the CIST, which it has from that one's root.
    const cist = own === 0 ? vector : entity.rootVector(0);
    const root = network.switches[keys.switchOf(cist.root)]!;
    const instance = own > 0;
    return {
      tree: vid === 0 ? CST : (treeInstance(tree) ?? 0) > 0 ? tree : vlanTree(vid),
      speaks: speaks(sw),
      bridge: bridgeId(sw, tree),
      root: keys.idOf(instance ? vector.regionalRoot : vector.root),
      rootPathCost: instance ? vector.internalCost : vector.externalCost,
      rootPort: rootPort < 0 ? null : physical.ports[rootPort]!.number,
      maxAge: root.timers.maxAge,
      hello: root.timers.hello,
      forwardDelay: root.timers.forwardDelay,
      set: {
        ...{ maxAge: sw.timers.maxAge, hello: sw.timers.hello, forwardDelay: sw.timers.forwardDelay },
        txHold: speaks(sw) === 'stp' ? null : sw.timers.txHold,
      },
      topologyChanges: count,
      sinceTopologyChange: Math.round((simulation.now - at) / (SECOND / 100)) / 100,
      ports: [...set.ports, ...set.bundles]
        .flatMap((port) => {
          const p = this.indexOf(port);
          if (!simulation.inTree(t, wholeOf(physical, p))) return [];
          const told = this.treePort(p, tree, t, entity, own);
          return [forwards && !instance ? { ...told, forwards: forwards(p) } : told];
        })
        .sort((a, b) => a.port - b.port),
    };
  }

  private treePort(
    p: number,
    tree: Simulation['trees'][number],
    t: number,
    entity: ProtocolEntity,
    own: number,
  ): ObservedTreePort {
    const { simulation } = this;
    const { physical, keys } = simulation;
    const bridge = bridgeOf(physical, this.s);
    const local = simulation.placeOf(t, wholeOf(physical, p));
    const [state, role] = simulation.shown(t, p);
    const held = own === 0 ? entity.held(local) : null;
    const identifier = portIdentifier(physical.ports[p]!, tree, physical.switches[this.s]!.dialect);
    // Of a pair, the secondary's ports go by other numbers on the wire; to who asks, each is the number that it has.
    const isOwn = role === 'designated';
    const isOn = state !== 'disabled';
    return {
      port: physical.ports[p]!.number,
      state,
      role: role === 'master' ? 'root' : role,
      cost: simulation.costs(t, bridge)[local] ?? 0,
      priority: identifier.priority,
      designatedRoot: held && isOn ? keys.idOf(held.root) : null,
      designatedBridge: held && isOn ? keys.idOf(held.bridge) : null,
      designatedPort: held && isOn ? (isOwn ? portIdentifierValue(identifier) : held.port) : null,
      forwards: null,
    };
  }
}

const speaks = (sw: Parameters<typeof isMultiple>[0]): ObservedTree['speaks'] =>
  isMultiple(sw) ? 'mstp' : traitsOf(sw.dialect).machines === 'rapid' ? 'rstp' : 'stp';

/** As they are on the wire; a partner that was never heard is all zeros. */
function sides({ actor, partner }: LacpView): ObservedBundle['members'][number]['lacp'] {
  const nobody = { ...actor, systemPriority: 0, system: '00:00:00:00:00:00', key: 0, portPriority: 0, port: 0 };
  const told = wireLacpdu({ actor, partner: partner ?? nobody });
  return partner ? told : { ...told, partner: { ...told.partner, state: 0 } };
}
