/** New switches, ports, cables and hosts that collide with nothing that is there. */
import type { Command } from './commands';
import type { GroupId, HostId, LinkId, PortId, RegionId, SwitchId } from '../model/ids';
import { pluggedIn } from '../model/plugs';
import {
  MAX_ID,
  isIdentifier,
  isMultiple,
  portSchema,
  switchSchema,
  type Design,
  type Dialect,
  type Port,
} from '../model/document';

/** Hands out identifiers and addresses, each once: none that the design has, none twice. */
export class FreshNames {
  private readonly dialect: Dialect;
  private readonly region: RegionId | undefined;
  private readonly switchIds: Set<string>;
  private readonly linkIds: Set<string>;
  private readonly hostIds: Set<string>;
  private readonly groupIds: Set<string>;
  private readonly macs: Set<string>;
  private lastMac = 0;
  private lastLink = 0;

  constructor(design: Design) {
    this.switchIds = new Set(design.switches.flatMap((sw) => [sw.id, sw.name ?? sw.id]));
    this.linkIds = new Set(design.links.map((link) => link.id));
    this.hostIds = new Set(design.hosts.flatMap((host) => [host.id, host.name ?? host.id]));
    this.groupIds = new Set(design.groups.flatMap((group) => [group.id, group.name ?? group.id]));
    const members = design.switches.flatMap(({ stack }) => stack?.members ?? []);
    const halves = design.switches.flatMap(({ pair }) => pair ?? []);
    this.macs = new Set([...design.switches, ...members, ...halves, ...design.hosts].map(({ mac }) => mac));
    this.dialect = design.mode ?? usual(design.switches.map((sw) => sw.dialect)) ?? 'rstp';
    this.region =
      usual(design.switches.flatMap((sw) => (isMultiple(sw) ? (sw.region ?? []) : []))) ?? design.regions[0]?.id;
  }

  /** The mode of a new switch, with MSTP also the region settings that most switches have, or the design's first. */
  mode(dialect = this.dialect): { dialect: Dialect; region?: RegionId } {
    return { dialect, ...(isMultiple({ dialect }) && this.region ? { region: this.region } : {}) };
  }

  /** The name itself where it can be an identifier and nothing has it, else the nearest that is free. */
  switchId(name: string): SwitchId {
    return taken(this.switchIds, name) as SwitchId;
  }

  hostId(name: string): HostId {
    return taken(this.hostIds, name) as HostId;
  }

  groupId(name: string): GroupId {
    return taken(this.groupIds, name) as GroupId;
  }

  /** The lowest of `stem-1`, `stem-2`, … that no switch is called. */
  numbered(stem: string): SwitchId {
    const id = firstFree(this.switchIds, (n) => `${stem.slice(0, MAX_ID - 8)}-${n}`);
    this.switchIds.add(id);
    return id as SwitchId;
  }

  linkId(): LinkId {
    do this.lastLink += 1;
    while (this.linkIds.has(`l${this.lastLink}`));
    return `l${this.lastLink}` as LinkId;
  }

  /** The next locally administered MAC address of Knot Path's own block. */
  mac(): string {
    const mac = (n: number) =>
      `02:4b:01:${[16, 8, 0].map((shift) => ((n >> shift) & 255).toString(16).padStart(2, '0')).join(':')}`;
    do this.lastMac += 1;
    while (this.macs.has(mac(this.lastMac)));
    return mac(this.lastMac);
  }

  /** Label and number of one more port beside `own`; the label's own number where it is one and free. */
  port(own: readonly Port[], label: string | null): { id: PortId; number: number } {
    const numbers = new Set(own.map((port) => port.number));
    const names = new Set<string>(own.map((port) => port.id));
    const wish = label !== null && /^[1-9]\d{0,3}$/.test(label) ? Number(label) : 0;
    if (wish > 0 && wish <= 4095 && !numbers.has(wish)) return { id: label as PortId, number: wish };
    let number = 1;
    while (numbers.has(number) || (label === null && names.has(String(number)))) number += 1;
    return {
      id: (label === null ? String(number) : isIdentifier(label) ? label : taken(names, label)) as PortId,
      number,
    };
  }
}

function firstFree(used: ReadonlySet<string>, nameAt: (n: number) => string): string {
  let n = 1;
  while (used.has(nameAt(n))) n += 1;
  return nameAt(n);
}

function taken(used: Set<string>, name: string): string {
  const stem = name.trim().slice(0, MAX_ID - 8) || 'x';
  const id = isIdentifier(name) && !used.has(name) ? name : firstFree(used, (n) => `${stem}-${n}`);
  used.add(id);
  return id;
}

/** What occurs most often, the first of them. */
function usual<T>(all: readonly T[]): T | undefined {
  const count = new Map<T, number>();
  for (const each of all) count.set(each, (count.get(each) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** A new switch at a place on the map. Gives its id and the command that adds it. */
export function freshSwitch(
  design: Design,
  position: { readonly x: number; readonly y: number },
): { readonly id: SwitchId; readonly command: Command } {
  const fresh = new FreshNames(design);
  const sw = switchSchema.parse({
    id: fresh.numbered('switch'),
    mac: fresh.mac(),
    ...fresh.mode(),
    position,
    ports: [],
  });
  return { id: sw.id, command: { do: 'add-switch', switch: sw } };
}

/** One end of a cable to be: a switch, and a port where it is to be a certain one. */
export interface PlugWish {
  readonly switch: SwitchId;
  readonly port?: PortId | undefined;
}

/** Commands that join two switches by a new cable: the ports named, else the first free one at each end with this speed, or a new one. */
export function freshCable(
  design: Design,
  from: PlugWish,
  to: PlugWish,
  speed: number,
): { readonly link: LinkId; readonly commands: Command[] } {
  const fresh = new FreshNames(design);
  const taken = pluggedIn(design);
  const chosen = new Set<string>();
  const commands: Command[] = [];
  const added: Port[] = [];
  const portOn = ({ switch: id, port: wanted }: PlugWish): PortId => {
    if (wanted !== undefined) return wanted;
    const own = design.switches.find((sw) => sw.id === id)?.ports ?? [];
    const free = own.find(
      (port) =>
        port.speed === speed &&
        port.up &&
        !taken(id, port.id) &&
        !chosen.has(`${id}\n${port.id}`) &&
        port.id !== from.port &&
        port.id !== to.port,
    );
    if (free) {
      chosen.add(`${id}\n${free.id}`);
      return free.id;
    }
    const port = portSchema.parse({ ...fresh.port(from.switch === to.switch ? [...own, ...added] : own, null), speed });
    added.push(port);
    commands.push({ do: 'add-port', switch: id, port });
    return port.id;
  };
  const [a, b] = [
    { switch: from.switch, port: portOn(from) },
    { switch: to.switch, port: portOn(to) },
  ];
  const id = fresh.linkId();
  commands.push({ do: 'add-link', link: { id, a, b, up: true } });
  return { link: id, commands };
}
