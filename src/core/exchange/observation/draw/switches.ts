/** One observed switch as a switch of a design: its ports, bundles, mode, priorities and costs. */
import { isIdentifier, isTitle, traitsOf, type CostMethod, type Dialect } from '../../../model/document';
import type { BundleId, PortId, RegionId } from '../../../model/ids';
import {
  BRIDGE_PRIORITY,
  TIMER_RANGES,
  bridgePriority,
  macAddress,
  nearestLegal,
  pathCost as legalCost,
  portNumber,
  portPriority,
} from '../../../model/legal';
import { regionName } from '../../../model/region';
import { BUNDLE_PORTS } from '../../../topology/aggregated';
import { pathCostOf } from '../../../topology/pathCost';
import type { ObservedBundle, ObservedPort, ObservedSwitch, ObservedTree, ObservedTreePort } from '../observation';
import { carriageOf } from './carriage';
import { dialectOf } from './dialect';
import { mostFrequent } from './mostFrequent';
import { negotiationOf } from './negotiation';
import { methodOf, speedsOf } from './costs';
import type { Drawing, DrawnPort } from './drawing';

const LARGEST_BUNDLE = 2047;

/** Draws it; `usual`: the method by which most of the network takes costs from speed. */
export function switchOf(drawing: Drawing, sw: ObservedSwitch, usual: CostMethod): void {
  new SwitchDrawer(drawing, sw, usual).draw();
}

class SwitchDrawer {
  private readonly drawing: Drawing;
  private readonly sw: ObservedSwitch;
  private readonly called: string;
  private readonly usual: CostMethod;
  private readonly method: CostMethod;
  private readonly dialect: Dialect;
  private readonly speeds: ReadonlyMap<number, number>;
  /** Numbers of bundles, and of their members. */
  private readonly bundled: ReadonlyMap<number, ObservedBundle>;
  private readonly memberOf: ReadonlyMap<number, ObservedBundle>;

  constructor(drawing: Drawing, sw: ObservedSwitch, usual: CostMethod) {
    this.drawing = drawing;
    this.sw = sw;
    this.called = sw.name || sw.source;
    this.usual = usual;
    this.method = methodOf(sw, usual);
    this.speeds = speedsOf(sw);
    this.bundled = new Map(sw.bundles.map((each) => [each.number, each]));
    this.memberOf = new Map(sw.bundles.flatMap((each) => each.members.map(({ port }) => [port, each] as const)));
    this.dialect = this.spoken();
  }

  draw(): void {
    const { drawing, sw } = this;
    const id = drawing.fresh.switchId(this.called);
    const ports: DrawnPort[] = [];
    const places = new Map<number, DrawnPort>();
    const names = new Set<string>();
    const numbers = new Set<number>();
    for (const port of sw.ports.filter((each) => this.isDrawn(each))) {
      const name = portName(port, names);
      const number =
        portNumber.safeParse(port.number).success && !numbers.has(port.number) ? port.number : lowest(numbers);
      if (number !== port.number)
        this.doubt(`port ${name} has the number ${port.number} there, which a port cannot have`);
      names.add(name);
      numbers.add(number);
      const made: DrawnPort = {
        id: name as PortId,
        number,
        speed: this.speeds.get(port.number)!,
        up: port.up,
        ...(this.memberOf.has(port.number) ? {} : this.asBridgePort(port)),
        ...this.asMember(port.number),
      };
      ports.push(made);
      places.set(port.number, made);
    }
    const mac = this.address();
    const made = {
      id,
      name: isTitle(this.called) ? this.called : id,
      mac,
      dialect: this.dialect,
      ...(this.method === this.usual ? {} : { pathCost: this.method }),
      ...this.region(),
      ...this.priorities(),
      timers: this.timers(),
      ...this.lacp(),
      ports,
    };
    drawing.switches.push(made);
    drawing.at.set(sw, { sw: made, ports: places });
    for (const bundle of sw.bundles) this.bundle(id, bundle, places);
  }

  /** That of its bridge; where another has that, too, as both of a pair do, as it is to its neighbours. */
  private address(): string {
    const { drawing, sw } = this;
    const isShared = drawing.observation.switches.some((each) => each !== sw && each.mac === sw.mac);
    const all = isShared ? [sw.chassis, sw.mac] : [sw.mac, sw.chassis];
    const legal = all.filter((each) => each !== null && macAddress.safeParse(each).success);
    const free = legal.find((each) => drawing.switches.every(({ mac }) => mac !== each));
    if (free === undefined && !isShared) this.doubt('its address is not known; it was given one');
    return free ?? drawing.freshMac();
  }

  private doubt(text: string): void {
    this.drawing.doubt(`${this.called}: ${text}.`);
  }

  /** What is no port of the bridge, has no cable, and belongs to no bundle is for people who look after the switch. */
  private isDrawn({ number, vlans }: ObservedPort): boolean {
    const { sw } = this;
    if (this.bundled.has(number)) return false;
    return (
      vlans !== null ||
      this.memberOf.has(number) ||
      sw.neighbours.some(({ port }) => port === number) ||
      sw.trees.some(({ ports }) => ports.some(({ port }) => port === number)) ||
      sw.ports.every((each) => each.vlans === null)
    );
  }

  private spoken(): Dialect {
    const { dialect, isTold } = dialectOf(this.sw);
    if (!isTold && this.sw.trees.length > 0)
      this.doubt(`it does not say what it speaks; ${traitsOf(dialect).name} was taken for it`);
    else if (!isTold) this.doubt('it tells of no spanning tree, and was drawn without one');
    return dialect;
  }

  /** As its tree is called in a design. */
  private keyOf(tree: string): string {
    return tree === 'cst' && this.dialect === 'mstp' ? 'mst:0' : tree;
  }

  private priorities(): object {
    const own = this.sw.trees.map((tree) => ({ key: this.keyOf(tree.tree), priority: this.setPriority(tree) }));
    const usual = mostFrequent(own.map(({ priority }) => priority)) ?? BRIDGE_PRIORITY.default;
    const others = own.filter(({ priority }) => priority !== usual);
    // One tree for all has the plain setting.
    return { priority: usual, trees: Object.fromEntries(others.map(({ key, priority }) => [key, { priority }])) };
  }

  private setPriority({ bridge, tree }: ObservedTree): number {
    const set = tree === 'cst' ? bridge.priority : bridge.priority & 0xf000;
    if (bridgePriority.safeParse(set).success) return set;
    const [nearest] = nearestLegal(set, BRIDGE_PRIORITY);
    this.doubt(`its priority ${set} is none that can be set; ${nearest!} was taken for it`);
    return nearest!;
  }

  /** Each is told; what is out of its range is as usual. */
  private timers(): object {
    const set = this.sw.trees[0]?.set;
    const all = { ...set, maxHops: this.sw.mst?.maxHops ?? null };
    return Object.fromEntries(
      Object.entries(TIMER_RANGES).flatMap(([key, { min, max }]) => {
        const value = (all as Readonly<Record<string, number | null | undefined>>)[key];
        if (value === null || value === undefined) return [];
        if (Number.isInteger(value) && value >= min && value <= max) return [[key, value]];
        this.doubt(`a timer of ${value} is none that can be set`);
        return [];
      }),
    );
  }

  private region(): object {
    const { mst, mac } = this.sw;
    if (!mst && this.dialect === 'mstp')
      this.doubt('it runs MSTP and tells of no region; it was drawn in one of its own');
    if (!mst || this.dialect !== 'mstp') return {};
    // A bridge that was given no region is one of its own, named by its address (802.1Q-2018 12.12.3.3).
    if (mst.name === mac && mst.revision === 0 && mst.instances.length === 0) return {};
    const { regions } = this.drawing;
    const instances = mst.instances.map(({ instance, vlans }) => ({ id: instance, vlans }));
    const settings = {
      name: regionName.safeParse(mst.name).success ? mst.name : '',
      revision: mst.revision,
      instances,
    };
    const text = JSON.stringify(settings);
    const known = regions.find(({ id: _, ...rest }) => JSON.stringify(rest) === text);
    if (known) return { region: known.id };
    const stem = isIdentifier(settings.name) ? settings.name.toLowerCase() : 'region';
    let id = stem;
    for (let n = 2; regions.some((each) => each.id === id); n += 1) id = `${stem}-${n}`;
    regions.push({ id: id as RegionId, ...settings });
    return { region: id };
  }

  private lacp(): object {
    const actor = this.sw.bundles.flatMap(({ members }) => members.flatMap(({ lacp }) => lacp?.actor ?? []))[0];
    return actor ? { lacp: { systemPriority: actor.systemPriority } } : {};
  }

  private asMember(number: number): object {
    const bundle = this.memberOf.get(number);
    const actor = bundle?.members.find(({ port }) => port === number)?.lacp?.actor;
    return actor ? { lacp: { priority: actor.portPriority } } : {};
  }

  /** What ports and bundles have alike: VLANs, and what they are set to in each tree. */
  private asBridgePort({ number, vlans, edge }: ObservedPort): object {
    return {
      vlans: vlans ? carriageOf(vlans) : undefined,
      ...(edge ? { edge: true } : {}),
      ...this.steering(number),
    };
  }

  private steering(number: number): object {
    const own = this.sw.trees.flatMap((tree) => {
      const port = tree.ports.find((each) => each.port === number);
      return port ? [{ tree, port }] : [];
    });
    if (own.length === 0) return {};
    const fromSpeed = pathCostOf(this.speeds.get(number)!, this.method);
    const isSingle = this.dialect === 'rstp' || this.dialect === 'stp';
    const interop = isSingle || this.dialect === 'mstp' ? own.filter(({ tree }) => tree.tree.startsWith('vlan:')) : [];
    const costs = own.map(({ tree, port }) => ({ key: this.keyOf(tree.tree), value: costOf(port, fromSpeed) }));
    const priorities = own.map(({ tree, port }) => ({ key: this.keyOf(tree.tree), value: priorityOf(port) }));
    const cost = mostFrequent(costs.map(({ value }) => value)) ?? null;
    const priority = mostFrequent(priorities.map(({ value }) => value))!;
    const trees: Record<string, { cost?: number; priority?: number }> = {};
    for (const { key, value } of costs) if (value !== cost) trees[key] = { ...trees[key], cost: value ?? fromSpeed };
    for (const { key, value } of priorities) if (value !== priority) trees[key] = { ...trees[key], priority: value };
    return {
      ...(cost === null ? {} : { cost }),
      priority,
      trees,
      ...(interop.length > 0
        ? {
            speaks: interop[0]!.tree.speaks === 'stp' ? 'per-vlan-stp' : 'per-vlan-rstp',
            speaksFor: interop.map(({ tree }) => tree.tree.slice('vlan:'.length)).join(','),
          }
        : {}),
    };
  }

  private bundle(id: DrawnSwitchId, bundle: ObservedBundle, places: ReadonlyMap<number, DrawnPort>): void {
    const { drawing, sw } = this;
    const ports = bundle.members.flatMap(({ port }) => places.get(port)?.id ?? []);
    if (ports.length === 0) return;
    const own = drawing.bundles.filter((each) => each.switch === id);
    const wanted = bundle.number - BUNDLE_PORTS;
    const taken = new Set(own.map(({ number }) => Number(number)));
    const number = wanted >= 1 && wanted <= LARGEST_BUNDLE && !taken.has(wanted) ? wanted : lowest(taken);
    const said = sw.ports.find((port) => port.number === bundle.number);
    const { mode, timeout, key } = negotiationOf(bundle);
    const name = said?.interface ?? bundle.interface;
    drawing.bundles.push({
      id: freshName(
        isIdentifier(name) ? name : `bundle${number}`,
        new Set(drawing.bundles.map((each) => each.id)),
      ) as BundleId,
      switch: id,
      number,
      ports,
      ...{ mode, timeout },
      ...(key !== null && key !== number ? { key } : {}),
      ...(said ? this.asBridgePort(said) : {}),
    });
  }
}

type DrawnSwitchId = Drawing['switches'][number]['id'];

/** Null: what its speed gives. */
const costOf = ({ cost, state }: ObservedTreePort, fromSpeed: number): number | null =>
  cost === fromSpeed || state === 'disabled' || !legalCost.safeParse(cost).success ? null : cost;

const priorityOf = ({ priority }: ObservedTreePort): number =>
  portPriority.safeParse(priority).success
    ? priority
    : (nearestLegal(priority, { min: 0, max: 240, step: 16 })[0] ?? 128);

/** `port7` is what a port of a design is called that is plainly 7. */
function portName({ interface: name, number }: ObservedPort, taken: ReadonlySet<string>): string {
  const plain = name === `port${number}` ? String(number) : name;
  return freshName(isIdentifier(plain) ? plain : String(number), taken);
}

function freshName(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(name)) return name;
  for (let n = 2; ; n += 1) if (!taken.has(`${name}-${n}`)) return `${name}-${n}`;
}

function lowest(taken: ReadonlySet<number>): number {
  for (let n = 1; ; n += 1) if (!taken.has(n)) return n;
}
