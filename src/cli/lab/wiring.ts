/** A design as namespaces and cables between them: each switch and each host has one of its own, so that `port3` is `port3` there. */
import { fileStems } from '../../core/exchange/settings/forms';
import type { Design, Host, LinkEnd } from '../../core/model/document';
import type { HostId, SwitchId } from '../../core/model/ids';
import { pluggedIn } from '../../core/model/plugs';
import { carried, untaggedOf } from '../../core/exchange/settings/vlanChanges';

export interface Wiring {
  readonly switches: ReadonlyMap<SwitchId, string>;
  readonly hosts: ReadonlyMap<HostId, string>;
  /** Ends of virtual cables: namespace and interface. A port with nothing plugged in has a far end that stays down. */
  readonly cables: readonly (readonly [a: CableEnd, b: CableEnd])[];
}

export interface CableEnd {
  readonly namespace: string;
  readonly interface: string;
}

/** `lab`: what its namespaces begin with. */
export function wiringOf(design: Design, lab: string): Wiring {
  const prefix = `knot-path-${lab}`;
  const stems = fileStems(design);
  const switches = new Map(design.switches.map((sw, s) => [sw.id, `${prefix}-${stems[s]!}`] as const));
  const hosts = new Map(design.hosts.map((host, h) => [host.id, `${prefix}-host${h + 1}`] as const));
  const at = (end: LinkEnd): CableEnd => ({
    namespace: switches.get(end.switch)!,
    interface: portName(design, end),
  });
  const isPlugged = pluggedIn(design);
  return {
    switches,
    hosts,
    cables: [
      ...design.links.map(({ a, b }) => [at(a), at(b)] as const),
      ...design.hosts.flatMap((host) =>
        host.attach.map((end, i) => [at(end), { namespace: hosts.get(host.id)!, interface: `eth${i}` }] as const),
      ),
      ...design.switches.flatMap((sw) =>
        sw.ports
          .filter((port) => !isPlugged(sw.id, port.id))
          .map((port) => {
            const end = at({ switch: sw.id, port: port.id });
            return [end, { namespace: end.namespace, interface: `no${end.interface}` }] as const;
          }),
      ),
    ],
  };
}

export const portName = (design: Design, { switch: sw, port }: LinkEnd): string =>
  `port${design.switches.find(({ id }) => id === sw)!.ports.find(({ id }) => id === port)!.number}`;

/** By `switch port`, whether a cable's end is set up: its port, its cable and its switch are. */
export function signals(design: Design): Map<string, boolean> {
  const found = new Map<string, boolean>();
  const isCut = new Set(
    design.links.filter(({ up }) => !up).flatMap(({ a, b }) => [a, b].map((end) => `${end.switch} ${end.port}`)),
  );
  for (const sw of design.switches)
    for (const port of sw.ports) {
      const key = `${sw.id} ${port.id}`;
      found.set(key, sw.up && port.up && !isCut.has(key));
    }
  return found;
}

/** The VLAN tag that a host's frames have at its port; null where they have none. */
export function hostTag(design: Design, host: Host): number | null {
  const [end] = host.attach;
  const sw = end && design.switches.find(({ id }) => id === end.switch);
  if (!end || !sw) return null;
  const port = sw.ports.find(({ id }) => id === end.port)!;
  const bundle = design.bundles.find((each) => each.switch === sw.id && each.ports.includes(port.id));
  const { vlans } = bundle ?? port;
  return untaggedOf(vlans) === host.vlan || !carried(vlans).has(host.vlan) ? null : host.vlan;
}
