/** New switches and cables that collide with nothing that is there, as commands. */
import type { Command } from './commands';
import type { LinkId, PortId, SwitchId } from './ids';
import { portSchema, switchSchema, type Design, type Port } from './schema';

/** The lowest of `stem1`, `stem2`, … that is not taken. */
function freeName(stem: string, taken: ReadonlySet<string>): string {
  let n = 1;
  while (taken.has(`${stem}${n}`)) n += 1;
  return `${stem}${n}`;
}

/** The lowest locally administered MAC address of Knot Path's own block that no switch or host has. */
function freeMac(design: Design): string {
  const taken = new Set([...design.switches, ...design.hosts].map(({ mac }) => mac));
  const mac = (n: number) => `02:4b:01:${[16, 8, 0].map((shift) => ((n >> shift) & 255).toString(16).padStart(2, '0')).join(':')}`;
  let n = 1;
  while (taken.has(mac(n))) n += 1;
  return mac(n);
}

/** A new switch at a place on the map, speaking what most switches here speak. Gives its id and the command that adds it. */
export function freshSwitch(design: Design, position: { readonly x: number; readonly y: number }): { readonly id: SwitchId; readonly command: Command } {
  const id = freeName('switch-', new Set(design.switches.flatMap((sw) => [sw.id, sw.name ?? ''])));
  const sw = switchSchema.parse({ id, mac: freeMac(design), dialect: usualDialect(design), position, ports: [] });
  return { id: sw.id, command: { do: 'add-switch', switch: sw } };
}

function usualDialect(design: Design): string {
  const count = new Map<string, number>();
  for (const { dialect } of design.switches) count.set(dialect, (count.get(dialect) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'rstp';
}

/** Commands that join two switches by a new cable: the first free port at each end with this speed, or a new one. */
export function freshCable(design: Design, from: SwitchId, to: SwitchId, speed: number): { readonly link: LinkId; readonly commands: Command[] } {
  const plugged = new Set([...design.links.flatMap(({ a, b }) => [a, b]), ...design.hosts.flatMap((host) => host.attach)].map((end) => JSON.stringify([end.switch, end.port])));
  const isFree = (sw: SwitchId, port: PortId) => !plugged.has(JSON.stringify([sw, port]));
  const commands: Command[] = [];
  const added: Port[] = [];
  const portOn = (id: SwitchId): PortId => {
    const own = design.switches.find((sw) => sw.id === id)?.ports ?? [];
    const free = own.find((port) => port.speed === speed && port.up && isFree(id, port.id));
    if (free) {
      plugged.add(JSON.stringify([id, free.id]));
      return free.id;
    }
    const all = from === to ? [...own, ...added] : own;
    const numbers = new Set(all.map((port) => port.number));
    const names = new Set<string>(all.map((port) => port.id));
    let number = 1;
    while (numbers.has(number) || names.has(String(number))) number += 1;
    const port = portSchema.parse({ id: String(number), number, speed });
    added.push(port);
    commands.push({ do: 'add-port', switch: id, port });
    return port.id;
  };
  const [a, b] = [{ switch: from, port: portOn(from) }, { switch: to, port: portOn(to) }];
  const id = freeName('l', new Set(design.links.map((link) => link.id))) as LinkId;
  commands.push({ do: 'add-link', link: { id, a, b, up: true } });
  return { link: id, commands };
}
