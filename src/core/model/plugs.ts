/** Which ports have something plugged in: a cable or a host. */
import type { PortId, SwitchId } from './ids';
import type { Host } from './host';
import type { Link } from './link';
import type { Port } from './port';
import type { Switch } from './switch';

/** What is plugged in somewhere. */
interface Plugged {
  readonly links: readonly Link[];
  readonly hosts: readonly Host[];
}

/** Tells of every port of a design whether something is plugged in. */
export function pluggedIn(design: Plugged): (sw: SwitchId, port: PortId) => boolean {
  const plugged = new Map<SwitchId, Set<PortId>>();
  for (const { switch: sw, port } of [
    ...design.links.flatMap(({ a, b }) => [a, b]),
    ...design.hosts.flatMap((host) => host.attach),
  ]) {
    plugged.set(sw, (plugged.get(sw) ?? new Set()).add(port));
  }
  return (sw, port) => plugged.get(sw)?.has(port) ?? false;
}

/** The ports of a switch with nothing plugged in. */
export function freePortsOf(design: Plugged, sw: Pick<Switch, 'id' | 'ports'>): Port[] {
  const taken = pluggedIn(design);
  return sw.ports.filter((port) => !taken(sw.id, port.id));
}
