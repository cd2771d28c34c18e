/** What is there and the design does not have: ports, VLANs, bundles. */
import type { Command } from '../../../edit/commands';
import { bundleSchema, isIdentifier, mostOf, portSchema } from '../../../model/document';
import { treesName, vlanTree, type BundleId, type PortId } from '../../../model/ids';
import { portNumber, speed as legalSpeed } from '../../../model/legal';
import { vlanSet } from '../../../model/vlanSet';
import { BUNDLE_PORTS } from '../../../topology/aggregated';
import { carriageOf } from '../draw/carriage';
import { negotiationOf } from '../draw/negotiation';
import type { SwitchMatch } from '../match';
import type { ObservedBundle, ObservedPort } from '../observation';
import type { Held } from './held';

/** VLANs of any switch that the design does not declare. */
export function compareVlans(held: Held): void {
  const there = new Map<number, string[]>();
  for (const { designed, observed } of held.matches.pairs) {
    if (observed.vlans === null) continue;
    const all = vlanSet(observed.vlans);
    for (const [first, last] of all.differenceBothWays(held.known.within(all)).ranges())
      for (let vid = first; vid <= last; vid += 1)
        there.set(vid, [...(there.get(vid) ?? []), held.names.switch(designed.id)]);
  }
  const alike = new Map<string, number[]>();
  for (const [vid, names] of there) {
    const on = names.length > 3 ? `${names.length} switches` : names.join(', ');
    alike.set(on, [...(alike.get(on) ?? []), vid]);
  }
  for (const [on, vids] of alike) {
    const isOne = vids.length === 1;
    held.tell('vlan', treesName(vids.map(vlanTree)), {}, isOne ? 'no such VLAN' : 'no such VLANs', `on ${on}`, {
      takeOver:
        held.design.vlans.length + vids.length > mostOf('vlans')
          ? null
          : () => vids.sort((x, y) => x - y).map((id) => ({ do: 'add-vlan', vlan: { id } })),
    });
  }
}

export function compareUnplanned(held: Held, pair: SwitchMatch): void {
  const { designed, observed } = pair;
  const places = held.places.get(designed.id)!;
  const bundled = new Set(observed.bundles.map(({ number }) => number));
  const members = new Set(observed.bundles.flatMap((bundle) => bundle.members.map(({ port }) => port)));
  for (const port of observed.ports) {
    if (places.has(port.number) || bundled.has(port.number)) continue;
    // What is no port of the bridge is for people who look after the switch.
    if (port.vlans === null && !members.has(port.number)) continue;
    held.tell('setting', `port ${port.interface}`, { switch: designed.id }, 'no such port', 'there', {
      takeOver: () => asPort(pair, port),
    });
  }
  for (const bundle of observed.bundles) {
    const isKnown = held.design.bundles.some(
      (each) =>
        each.switch === designed.id &&
        (places.get(bundle.number)?.of.id === each.id || bundle.number === BUNDLE_PORTS + each.number),
    );
    if (isKnown) continue;
    const commands = asBundle(held, pair, bundle);
    held.tell('bundle', `bundle ${bundle.interface}`, { switch: designed.id }, 'no such bundle', 'there', {
      takeOver: commands.length > 0 ? () => commands : null,
    });
  }
}

function asPort(
  { designed }: SwitchMatch,
  { number, interface: name, speed, up, vlans, edge }: ObservedPort,
): Command[] {
  const numbers = new Set(designed.ports.map((port) => port.number));
  const ids = new Set<string>(designed.ports.map(({ id }) => id));
  let free = number;
  while (numbers.has(free) || !portNumber.safeParse(free).success) free = (free % 4095) + 1;
  let id = isIdentifier(name) ? name : String(free);
  for (let n = 2; ids.has(id); n += 1) id = `${name}-${n}`;
  const port = portSchema.parse({
    ...{ id: id as PortId, number: free, up, edge: edge ?? false },
    ...(legalSpeed.safeParse(speed).success ? { speed } : {}),
    ...(vlans ? { vlans: carriageOf(vlans) } : {}),
  });
  return [{ do: 'add-port', switch: designed.id, port }];
}

/** Nothing where its members are no ports of the design yet, or are in another bundle: those rows come first. */
function asBundle(held: Held, { designed, observed }: SwitchMatch, bundle: ObservedBundle): Command[] {
  const places = held.places.get(designed.id)!;
  const own = held.design.bundles.filter((each) => each.switch === designed.id);
  const ports = bundle.members.map(({ port }) => {
    const place = places.get(port);
    return place?.kind === 'port' && own.every((each) => !each.ports.includes(place.of.id)) ? place.of.id : null;
  });
  if (ports.length === 0 || ports.some((port) => port === null)) return [];
  const wanted = bundle.number - BUNDLE_PORTS;
  const taken = new Set(own.map(({ number }) => number));
  let number = wanted >= 1 && wanted <= 2047 ? wanted : 1;
  while (taken.has(number)) number = (number % 2047) + 1;
  const { mode, timeout, key } = negotiationOf(bundle);
  const said = observed.ports.find((port) => port.number === bundle.number);
  const ids = new Set<string>([...held.design.bundles.map(({ id }) => id), ...designed.ports.map(({ id }) => id)]);
  const name = isIdentifier(bundle.interface) ? bundle.interface : `bundle${number}`;
  let id = `${designed.id}-${name}`;
  for (let n = 2; ids.has(id); n += 1) id = `${designed.id}-${name}-${n}`;
  return [
    {
      do: 'add-bundle',
      bundle: bundleSchema.parse({
        ...{ id: id as BundleId, name, switch: designed.id, number, ports },
        ...{ mode, timeout },
        ...(key !== null && key !== number ? { key } : {}),
        ...(said?.vlans ? { vlans: carriageOf(said.vlans) } : {}),
      }),
    },
  ];
}
