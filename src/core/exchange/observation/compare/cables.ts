/** By neighbour tables: what is at the other end of each cable. */
import { FreshNames } from '../../../edit/fresh';
import type { Command } from '../../../edit/commands';
import { hostSchema, isTitle, type LinkEnd } from '../../../model/document';
import type { PortId } from '../../../model/ids';
import { macAddress } from '../../../model/legal';
import { nameOf } from '../../../model/names';
import { pluggedIn } from '../../../model/plugs';
import { untaggedOf } from '../../settings/vlanChanges';
import type { SwitchMatch } from '../match';
import type { ObservedNeighbour } from '../observation';
import type { Held } from './held';

export function compareCables(held: Held, { designed, observed }: SwitchMatch): void {
  if (!observed.tellsNeighbours) return;
  const { network, names } = held;
  const places = held.places.get(designed.id)!;
  const seen = new Map<string, ObservedNeighbour>();
  for (const each of observed.neighbours) {
    const place = places.get(each.port);
    if (place?.kind === 'port') seen.set(place.of.id, each);
  }
  for (const port of designed.ports) {
    const p = network.portIndexOf(designed.id, port.id);
    const far = network.plug[p]!;
    const there = seen.get(port.id);
    const other = there ? (held.byMac.get(there.chassis) ?? held.switchNamed(there.system)) : undefined;
    const end: LinkEnd | null =
      far < 0 ? null : { switch: network.switches[network.owner[far]!]!.id, port: network.ports[far]!.id as PortId };
    if (!end && !other && there?.kind === 'host') compareHost(held, { switch: designed.id, port: port.id }, there);
    // A host need not tell of itself, and who is not read is not known.
    if (!end && !other) continue;
    if (end && network.macOperational[p] === 0 && !there) continue;
    const cable = held.design.links[network.cable[p] ?? -1];
    const own = { switch: designed.id, port: port.id };
    const endThere = there && other ? endOf(held, other, there.portId) : null;
    held.tell(
      'cable',
      'cable',
      { ...own, link: cable?.id ?? null },
      end ? names.end(end) : 'no switch',
      !there
        ? 'nobody is seen there'
        : endThere
          ? names.end(endThere)
          : other
            ? `${names.switch(other.designed.id)} ${there.portId}`
            : `${there.system ?? there.chassis} ${there.portId}`,
      {
        why: there ? '' : 'the neighbour table has no entry for it',
        takeOver: there && !endThere ? null : () => asCabled(held, own, endThere),
      },
    );
  }
}

/** A host that tells of itself where the design has another one, or nothing. */
function compareHost(held: Held, own: LinkEnd, there: ObservedNeighbour): void {
  const { hosts } = held.design;
  const here = hosts.filter(({ attach }) => attach.some((at) => at.switch === own.switch && at.port === own.port));
  held.compared += 1;
  if (here.some((host) => host.mac === there.chassis || nameOf(host) === there.system)) return;
  const names = here.map(nameOf).join(' and ') || 'nothing';
  held.tell('setting', 'host', own, names, there.system ?? there.chassis, {
    takeOver: () => asPlugged(held, own, there),
  });
}

function asPlugged({ design }: Held, own: LinkEnd, { chassis, system }: ObservedNeighbour): Command[] {
  const isHere = (at: LinkEnd): boolean => at.switch === own.switch && at.port === own.port;
  const gone = design.hosts
    .filter(({ attach }) => attach.some(isHere))
    .map((host): Command => ({ do: 'set-host', host: host.id, attach: host.attach.filter((at) => !isHere(at)) }));
  const known = design.hosts.find(({ mac }) => mac === chassis);
  if (known) return [...gone, { do: 'set-host', host: known.id, attach: [...known.attach, own] }];
  const fresh = new FreshNames(design);
  const mac = macAddress.safeParse(chassis);
  const name = system ?? chassis;
  const port = design.switches.find(({ id }) => id === own.switch)?.ports.find(({ id }) => id === own.port);
  const vlan = port ? untaggedOf(port.vlans) : null;
  const host = hostSchema.parse({
    id: fresh.hostId(name),
    ...(isTitle(name) ? { name } : {}),
    mac: mac.success ? mac.data : fresh.mac(),
    ...(vlan === null ? {} : { vlan }),
    attach: [own],
  });
  return [...gone, { do: 'add-host', host }];
}

/** The port of a switch that calls it so. */
function endOf(held: Held, { designed, observed }: SwitchMatch, portId: string): LinkEnd | null {
  const port = observed.ports.find((each) => each.interface === portId || each.mac === portId || each.alias === portId);
  const place = port && held.places.get(designed.id)!.get(port.number);
  return place?.kind === 'port' ? { switch: designed.id, port: place.of.id } : null;
}

/** What is drawn at either end goes, and the cable that is there comes. */
function asCabled({ design }: Held, own: LinkEnd, there: LinkEnd | null): Command[] {
  const isAt = (end: LinkEnd) => (at: LinkEnd) => at.switch === end.switch && at.port === end.port;
  const ends = there ? [own, there] : [own];
  const gone = design.links.filter(({ a, b }) => ends.some((end) => isAt(end)(a) || isAt(end)(b)));
  const removed = gone.map((link): Command => ({ do: 'remove-link', link: link.id }));
  if (!there) return removed;
  const isPlugged = pluggedIn({ links: [], hosts: design.hosts });
  const unplugged = design.hosts
    .filter(({ attach }) => ends.some((end) => isPlugged(end.switch, end.port) && attach.some(isAt(end))))
    .map((host): Command => ({
      do: 'set-host',
      host: host.id,
      attach: host.attach.filter((at) => !ends.some((end) => isAt(end)(at))),
    }));
  return [
    ...removed,
    ...unplugged,
    { do: 'add-link', link: { id: new FreshNames(design).linkId(), a: own, b: there, up: true } },
  ];
}
