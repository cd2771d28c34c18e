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
  /** Where the switches are that stay in the simulator; null where all are real. */
  readonly simulated: string | null;
  /** Cables' ends there over which they speak to what is real. */
  readonly wires: readonly Wire[];
}

export interface Wire {
  readonly end: LinkEnd;
  readonly interface: string;
}

export interface CableEnd {
  readonly namespace: string;
  readonly interface: string;
}

/** `lab`: what its namespaces begin with; `joined`: the switches that stay in the simulator, all in one namespace. */
export function wiringOf(design: Design, lab: string, joined: ReadonlySet<SwitchId> = new Set()): Wiring {
  const prefix = `knot-path-${lab}`;
  const stems = fileStems(design);
  const simulated = joined.size > 0 ? `${prefix}-simulated` : null;
  const switches = new Map(
    design.switches.map((sw, s) => [sw.id, joined.has(sw.id) ? simulated! : `${prefix}-${stems[s]!}`] as const),
  );
  const hosts = new Map(design.hosts.map((host, h) => [host.id, `${prefix}-host${h + 1}`] as const));
  const at = (end: LinkEnd): CableEnd => ({
    namespace: switches.get(end.switch)!,
    interface: joined.has(end.switch) ? `s${indexOf.get(end.switch)!}${portName(design, end)}` : portName(design, end),
  });
  const indexOf = new Map(design.switches.map((sw, s) => [sw.id, s]));
  const real = design.links.filter(({ a, b }) => !joined.has(a.switch) || !joined.has(b.switch));
  const wired = [
    ...real.flatMap(({ a, b }) => [a, b]),
    ...design.hosts.flatMap((host) => (host.bundle ? host.attach : [])),
  ].filter((end) => joined.has(end.switch));
  const isPlugged = pluggedIn(design);
  return {
    switches,
    hosts,
    simulated,
    wires: wired.map((end) => ({ end, interface: at(end).interface })),
    cables: [
      ...real.map(({ a, b }) => [at(a), at(b)] as const),
      ...design.hosts.flatMap((host) =>
        host.attach.map((end, i) => [at(end), { namespace: hosts.get(host.id)!, interface: `eth${i}` }] as const),
      ),
      ...design.switches.flatMap((sw) =>
        sw.ports
          .filter((port) => !joined.has(sw.id) && !isPlugged(sw.id, port.id))
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

/**
 * By `switch port`, whether a cable's end is set up: its port, its cable and its switch are. The end of a simulated switch has no
 * signal to take away: the real end of its cable stands for both.
 */
export function signals(design: Design, joined: ReadonlySet<SwitchId> = new Set()): Map<string, boolean> {
  const found = new Map<string, boolean>();
  const isCut = new Set(
    design.links.filter(({ up }) => !up).flatMap(({ a, b }) => [a, b].map((end) => `${end.switch} ${end.port}`)),
  );
  for (const sw of design.switches)
    for (const port of sw.ports) {
      const key = `${sw.id} ${port.id}`;
      found.set(key, sw.up && port.up && !isCut.has(key));
    }
  for (const { a, b } of design.links)
    for (const [end, far] of [
      [a, b],
      [b, a],
    ] as const)
      if (joined.has(far.switch) && !joined.has(end.switch)) {
        const [key, there] = [`${end.switch} ${end.port}`, `${far.switch} ${far.port}`];
        found.set(key, found.get(key)! && found.get(there)!);
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
