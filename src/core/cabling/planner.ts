/** Turns statements into commands, one after the other, each on what the ones before it leave. */
import {
  hostSchema,
  linkSchema,
  portSchema,
  switchSchema,
  type Design,
  type Dialect,
  type Host,
  type LinkEnd,
  type Port,
  type Switch,
} from '../model/document';
import type { Command } from '../edit/commands';
import type { Making } from './making';
import { FreshNames } from '../edit/fresh';
import type { HostId, LinkId, SwitchId } from '../model/ids';
import { vlanSet } from '../model/vlanSet';
import { z } from '../base/zod';
import { PlannedGroups } from './plannedGroups';
import { carriageBy, type End, type PortSettings, type Spot, type Statement } from './statement';
import type { LineFault } from './tokens';

class Stop extends Error {
  readonly fault: LineFault;

  constructor(fault: LineFault) {
    super(fault.message);
    this.fault = fault;
  }
}
const stop = ({ at, length }: Pick<Spot<unknown>, 'at' | 'length'>, message: string): never => {
  throw new Stop({ at, length, message });
};

/** A plug that a line names; the port is null where any free one will do. */
interface Plug {
  readonly sw: Switch;
  readonly label: string | null;
  readonly spot: Spot<string>;
}

/** What is not planned on the whole design. */
type Planned = Exclude<Statement, Making>;

/** The design as the lines so far leave it, kept in maps: hundreds of lines may be planned at each keystroke. */
export class Planner {
  private commands: Command[] = [];
  private readonly fresh: FreshNames;
  private readonly switches = new Map<string, Switch>();
  private readonly ports = new Map<SwitchId, Map<string, Port>>();
  private readonly plugged = new Map<
    string,
    { readonly text: string; readonly link: LinkId | null; readonly host: HostId | null }
  >();
  private readonly hosts = new Map<string, Host>();
  private readonly groups: PlannedGroups;
  private readonly vlans: Map<number, Design['vlans'][0]>;
  private readonly cut = new Map<LinkId, boolean>();

  constructor(design: Design) {
    this.fresh = new FreshNames(design);
    this.vlans = new Map(design.vlans.map((vlan) => [vlan.id, vlan]));
    this.groups = new PlannedGroups(design, this.fresh, (command) => this.commands.push(command));
    for (const sw of design.switches) this.learnSwitch(sw);
    for (const sw of design.switches) if (sw.name !== undefined) this.switches.set(sw.name, sw); // a name goes before an id
    for (const link of design.links) this.learnCable(link.a, link.b, link.id, link.up);
    for (const host of design.hosts) this.hosts.set(host.id, host);
    for (const host of design.hosts) {
      if (host.name !== undefined) this.hosts.set(host.name, host);
      for (const end of host.attach)
        this.plugged.set(keyOf(end), { text: `host ${host.name ?? host.id}`, link: null, host: host.id });
    }
  }

  /** Plans one statement. Where it cannot be done the lines after it are only read for their own faults: no plan with a fault is used. */
  take(statement: Planned): { commands: Command[]; fault: LineFault | null } {
    this.commands = [];
    try {
      this.run(statement);
      return { commands: this.commands, fault: null };
    } catch (error) {
      if (error instanceof Stop) return { commands: [], fault: error.fault };
      if (error instanceof z.ZodError)
        return { commands: [], fault: { at: 0, length: 1, message: error.issues[0]?.message ?? 'not legal' } };
      throw error;
    }
  }

  private run(statement: Planned): void {
    switch (statement.kind) {
      case 'switch': {
        const { mac, position } = statement.settings;
        if (statement.names.length > 1 && (mac !== undefined || position))
          stop(statement.names[1]!, 'a MAC address or a place belongs to one switch');
        const { group, ...settings } = statement.settings;
        const inside = group === undefined ? {} : { group: this.groups.named(group).id };
        for (const name of statement.names) this.setSwitch(name, { ...settings, ...inside });
        return;
      }
      case 'group':
        for (const name of statement.names)
          if (!this.groups.set(name.value, statement.settings)) stop(name, `${name.value} would lie within itself`);
        return;
      case 'vlan':
        return this.setVlans(statement);
      case 'port':
        for (const { sw, label } of this.plugs(statement.end)) this.portOn(sw, label, statement.settings, true);
        return;
      case 'host':
        return this.setHosts(statement);
      case 'cable':
        return this.cable(statement);
    }
  }

  private setSwitch(name: Spot<string>, settings: Partial<Switch>): Switch {
    const known = this.switches.get(name.value);
    if (!known) return this.addSwitch(name.value, settings);
    const { position, ...rest } = settings;
    const changed = Object.entries(rest).filter(([key, value]) => known[key as keyof Switch] !== value);
    if (changed.length > 0) this.commands.push({ do: 'set-switch', switch: known.id, ...Object.fromEntries(changed) });
    if (position && !same(known.position, position))
      this.commands.push({ do: 'move-switches', to: [{ switch: known.id, position }] });
    const next = { ...known, ...settings };
    this.learnSwitch(next);
    if (next.name !== undefined) this.switches.set(next.name, next);
    return next;
  }

  private addSwitch(name: string, settings: { readonly dialect?: Dialect } = {}): Switch {
    const id = this.fresh.switchId(name);
    const sw = switchSchema.parse({
      id,
      ...(id === name ? {} : { name }),
      mac: this.fresh.mac(),
      ...this.fresh.mode(settings.dialect),
      ...settings,
      ports: [],
    });
    this.commands.push({ do: 'add-switch', switch: sw });
    this.learnSwitch(sw);
    this.switches.set(name, sw);
    return sw;
  }

  private setVlans({ vlans, name, load }: Extract<Statement, { kind: 'vlan' }>): void {
    const wish = { ...(name === undefined ? {} : { name }), ...(load === undefined ? {} : { load }) };
    for (const [first, last] of vlanSet(vlans).ranges()) {
      for (let id = first; id <= last; id += 1) {
        const known = this.vlans.get(id);
        if (!known) this.commands.push({ do: 'add-vlan', vlan: { id, ...wish } });
        else if ((name ?? known.name) !== known.name || (load ?? known.load) !== known.load)
          this.commands.push({ do: 'set-vlan', vlan: id, ...wish });
        this.vlans.set(id, { ...known, id, ...wish });
      }
    }
  }

  private cable({ from, to, mesh, settings, up }: Extract<Statement, { kind: 'cable' }>): void {
    const [left, right] = [this.plugs(from), this.plugs(to)];
    for (const [a, b] of mesh ? this.each(left, right) : this.pairs(left, right, to)) {
      // Which free port: one that matches what is known of the other end.
      const speed = settings.speed ?? this.portNamed(a)?.speed ?? this.portNamed(b)?.speed;
      const wish = { ...settings, ...(speed === undefined ? {} : { speed }) };
      const known = this.cableBetween(a, b);
      const [portA, portB] = [this.end(a, known?.a, wish, settings), this.end(b, known?.b, wish, settings)];
      if (known) {
        if (up !== undefined && this.cut.get(known.link) !== up)
          this.commands.push({ do: 'set-link', link: known.link, up });
        this.cut.set(known.link, up ?? this.cut.get(known.link) ?? true);
        continue;
      }
      const ends = [
        { switch: a.sw.id, port: portA.id },
        { switch: b.sw.id, port: portB.id },
      ] as const;
      this.mustBeFree(ends[0], a.spot);
      this.mustBeFree(ends[1], b.spot);
      if (keyOf(ends[0]) === keyOf(ends[1])) stop(b.spot, 'a port cannot be joined to itself');
      const link = linkSchema.parse({ id: this.fresh.linkId(), a: ends[0], b: ends[1], up: up ?? true });
      this.commands.push({ do: 'add-link', link });
      this.learnCable(link.a, link.b, link.id, link.up);
    }
  }

  private portNamed({ sw, label }: Plug): Port | undefined {
    return label === null ? undefined : this.ports.get(sw.id)?.get(label);
  }

  /** The cable that already joins two named ports. */
  private cableBetween(a: Plug, b: Plug): { link: LinkId; a: string; b: string } | null {
    if (a.label === null || b.label === null) return null;
    const [one, other] = [
      this.plugged.get(keyOf({ switch: a.sw.id, port: a.label })),
      this.plugged.get(keyOf({ switch: b.sw.id, port: b.label })),
    ];
    return one?.link && one.link === other?.link ? { link: one.link, a: a.label, b: b.label } : null;
  }

  private end({ sw, label, spot }: Plug, there: string | undefined, wish: PortSettings, said: PortSettings): Port {
    const known = label === null ? undefined : this.ports.get(sw.id)?.get(label);
    if (there === undefined && known) this.mustBeFree({ switch: sw.id, port: known.id }, spot);
    return this.portOn(sw, label, known ? said : wish, known !== undefined);
  }

  /** One to one; a lone switch without a port takes as many cables as the other side has. */
  private pairs(left: readonly Plug[], right: readonly Plug[], to: End): (readonly [Plug, Plug])[] {
    const lone = (plugs: readonly Plug[]) => plugs.length === 1 && plugs[0]!.label === null;
    if (left.length !== right.length && !lone(left) && !lone(right)) {
      const spots = to.flatMap((part) => [...part.names, ...(part.ports ?? [])]);
      const [first, last] = [spots[0]!, spots.at(-1)!];
      stop(
        { at: first.at, length: last.at + last.length - first.at },
        `${left.length} ends on the left, ${right.length} on the right: "=" joins one to one ("*" joins each with each)`,
      );
    }
    const count = Math.max(left.length, right.length);
    return Array.from({ length: count }, (_, i) => [left[lone(left) ? 0 : i]!, right[lone(right) ? 0 : i]!] as const);
  }

  private each(left: readonly Plug[], right: readonly Plug[]): (readonly [Plug, Plug])[] {
    const named = [...(right.length > 1 ? left : []), ...(left.length > 1 ? right : [])].find(
      (plug) => plug.label !== null,
    );
    if (named) stop(named.spot, 'with "*" a port would need several cables: name the switches alone');
    const pairs = new Map<string, readonly [Plug, Plug]>();
    for (const a of left)
      for (const b of right) if (a.sw.id !== b.sw.id) pairs.set([a.sw.id, b.sw.id].sort().join('\n'), [a, b]);
    return [...pairs.values()];
  }

  private setHosts({ names, end, vlan, mac, speed }: Extract<Statement, { kind: 'host' }>): void {
    const plugs = this.plugs(end);
    if (names.length > 1 && mac !== undefined) stop(names[1]!, 'a MAC address belongs to one host');
    const shared = plugs.length === 1 && plugs[0]!.label === null;
    if (names.length > 1 && plugs.length > 0 && plugs.length !== names.length && !shared)
      stop(plugs[0]!.spot, `${names.length} hosts, ${plugs.length} ports: as many ports as hosts, or a switch alone`);
    names.forEach((name, i) => {
      const own = names.length === 1 ? plugs : plugs.length === 0 ? [] : [plugs[shared ? 0 : i]!];
      this.setHost(name, own, { vlan, mac, speed });
    });
  }

  private setHost(
    name: Spot<string>,
    plugs: readonly Plug[],
    { vlan, mac, speed }: { vlan: number | undefined; mac: string | undefined; speed: number | undefined },
  ): void {
    const known = this.hosts.get(name.value);
    const id = known?.id ?? this.fresh.hostId(name.value);
    const inVlan = vlan ?? known?.vlan ?? 1;
    const kept =
      known &&
      plugs.length > 0 &&
      plugs.every((plug) => plug.label === null) &&
      known.attach.length === plugs.length &&
      plugs.every((plug, i) => known.attach[i]!.switch === plug.sw.id);
    const taken = new Set<string>();
    const attach = kept
      ? known.attach
      : plugs.map((plug): LinkEnd => {
          const there = plug.label === null ? undefined : this.ports.get(plug.sw.id)?.get(plug.label);
          const settings: PortSettings = there ? {} : { vlans: { mode: 'access', vlan: inVlan }, edge: true };
          const port = this.portOn(
            plug.sw,
            plug.label,
            { ...settings, ...(speed === undefined ? {} : { speed }) },
            there !== undefined,
          );
          const end = { switch: plug.sw.id, port: port.id };
          this.mustBeFree(end, plug.spot, id);
          if (taken.has(keyOf(end))) stop(plug.spot, `port ${end.port} of ${this.nameOf(end.switch)} is named twice`);
          taken.add(keyOf(end));
          this.plugged.set(keyOf(end), { text: `host ${name.value}`, link: null, host: id });
          return end;
        });
    if (!known) {
      const host = hostSchema.parse({
        id,
        ...(id === name.value ? {} : { name: name.value }),
        mac: mac ?? this.fresh.mac(),
        vlan: inVlan,
        attach,
      });
      this.commands.push({ do: 'add-host', host });
      this.hosts.set(name.value, host);
      return;
    }
    const changed = {
      ...(mac !== undefined && mac !== known.mac ? { mac } : {}),
      ...(inVlan !== known.vlan ? { vlan: inVlan } : {}),
      ...(plugs.length > 0 && !same(attach, known.attach) ? { attach } : {}),
    };
    if (Object.keys(changed).length > 0) this.commands.push({ do: 'set-host', host: id, ...changed });
    if (changed.attach)
      for (const end of known.attach)
        if (!attach.some((now) => keyOf(now) === keyOf(end))) this.plugged.delete(keyOf(end));
    this.hosts.set(name.value, { ...known, ...changed });
  }

  /** Every plug that an end stands for: each switch with each port. New switches are added as they are named. */
  private plugs(end: End): Plug[] {
    return end.flatMap(({ names, ports }) =>
      names.flatMap((name): Plug[] => {
        const sw = this.switches.get(name.value) ?? this.addSwitch(name.value);
        return ports === null
          ? [{ sw, label: null, spot: name }]
          : ports.map((port) => ({ sw, label: port.value, spot: port }));
      }),
    );
  }

  /** The port of this label, set as said; or a free one; or a new one. */
  private portOn(sw: Switch, label: string | null, settings: PortSettings, exists: boolean): Port {
    const own = this.ports.get(sw.id)!;
    const speed = settings.speed ?? 1000;
    const free = (port: Port) =>
      port.up &&
      port.speed === speed &&
      same(settings.vlans ? carriageBy(settings.vlans, port.vlans) : port.vlans, port.vlans) &&
      !this.plugged.has(keyOf({ switch: sw.id, port: port.id }));
    const known = label === null ? [...own.values()].find(free) : own.get(label);
    if (!known) return this.addPort(sw, label, settings);
    if (!exists) return known;
    const { vlans, ...rest } = settings;
    const wish = { ...rest, ...(vlans ? { vlans: carriageBy(vlans, known.vlans) } : {}) };
    const changed = Object.entries(wish).filter(([key, value]) => !same(known[key as keyof Port], value));
    if (changed.length === 0) return known;
    this.commands.push({ do: 'set-port', switch: sw.id, port: known.id, ...Object.fromEntries(changed) });
    const next = { ...known, ...wish };
    own.set(known.id, next);
    return next;
  }

  private addPort(sw: Switch, label: string | null, settings: PortSettings): Port {
    const own = this.ports.get(sw.id)!;
    const { vlans, ...rest } = settings;
    const port = portSchema.parse({
      ...this.fresh.port([...own.values()], label),
      ...rest,
      ...(vlans ? { vlans: carriageBy(vlans, null) } : {}),
    });
    this.commands.push({ do: 'add-port', switch: sw.id, port });
    own.set(port.id, port);
    return port;
  }

  private mustBeFree(end: LinkEnd, spot: Spot<string>, host: HostId | null = null): void {
    const there = this.plugged.get(keyOf(end));
    if (there && (host === null || there.host !== host))
      stop(spot, `port ${end.port} of ${this.nameOf(end.switch)} is taken: ${there.text} is plugged in there`);
  }

  private nameOf(id: SwitchId): string {
    const sw = this.switches.get(id);
    return sw?.name ?? id;
  }

  private learnSwitch(sw: Switch): void {
    this.switches.set(sw.id, sw);
    if (!this.ports.has(sw.id)) this.ports.set(sw.id, new Map(sw.ports.map((port) => [port.id, port])));
  }

  private learnCable(a: LinkEnd, b: LinkEnd, link: LinkId, up: boolean): void {
    this.plugged.set(keyOf(a), { text: `${this.nameOf(b.switch)} port ${b.port}`, link, host: null });
    this.plugged.set(keyOf(b), { text: `${this.nameOf(a.switch)} port ${a.port}`, link, host: null });
    this.cut.set(link, up);
  }
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const keyOf = (end: { readonly switch: string; readonly port: string }): string => `${end.switch}\n${end.port}`;
