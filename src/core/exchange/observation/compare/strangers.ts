/** A switch that answers and that the design does not have, as commands that add it with its bundles and cables. */
import { FreshNames } from '../../../edit/fresh';
import type { Command } from '../../../edit/commands';
import type { Design, LinkEnd } from '../../../model/document';
import type { BundleId, PortId, SwitchId } from '../../../model/ids';
import { pluggedIn } from '../../../model/plugs';
import { drawn } from '../draw/draw';
import type { ObservedSwitch } from '../observation';
import type { Held } from './held';

export function strangerAsThere(held: Held, sw: ObservedSwitch): Command[] {
  const all = drawn(held.observation);
  if (!all.ok) return [];
  const { design: there, at } = all.value;
  const made = there.switches.find(({ id }) => id === at.get(sw));
  if (!made) return [];
  const fresh = new FreshNames(held.design);
  const id = fresh.switchId(made.name ?? made.id);
  const macs = new Set(held.design.switches.map(({ mac }) => mac));
  const { position: _, group: __, region, ...rest } = made;
  const known = region && sameRegion(held.design, there, region);
  const commands: Command[] = [
    {
      do: 'add-switch',
      switch: { ...rest, id, mac: macs.has(made.mac) ? fresh.mac() : made.mac, ...(known ? { region: known } : {}) },
    },
  ];
  const bundleIds = new Set<string>(held.design.bundles.map((bundle) => bundle.id));
  for (const bundle of there.bundles.filter((each) => each.switch === made.id)) {
    let own: string = bundle.id;
    for (let n = 2; bundleIds.has(own); n += 1) own = `${bundle.id}-${n}`;
    bundleIds.add(own);
    commands.push({ do: 'add-bundle', bundle: { ...bundle, id: own as BundleId, switch: id } });
  }
  const isPlugged = pluggedIn(held.design);
  // By the drawing's identifiers, whom the design has for it.
  const ofDrawn = new Map<SwitchId, ObservedSwitch>([...at].map(([observed, drawnId]) => [drawnId, observed]));
  const endIn = (end: LinkEnd): LinkEnd | null => {
    if (end.switch === made.id) return { switch: id, port: end.port };
    const observed = ofDrawn.get(end.switch);
    const pair = held.matches.pairs.find((each) => each.observed === observed);
    const number = there.switches
      .find((each) => each.id === end.switch)
      ?.ports.find((port) => port.id === end.port)?.number;
    const place = pair && number !== undefined ? held.places.get(pair.designed.id)!.get(number) : undefined;
    return pair && place?.kind === 'port' && !isPlugged(pair.designed.id, place.of.id)
      ? { switch: pair.designed.id, port: place.of.id as PortId }
      : null;
  };
  for (const link of there.links.filter(({ a, b }) => a.switch === made.id || b.switch === made.id)) {
    const [a, b] = [endIn(link.a), endIn(link.b)];
    if (a && b) commands.push({ do: 'add-link', link: { id: fresh.linkId(), a, b, up: true } });
  }
  return commands;
}

/** The design's own, where it has the same. */
function sameRegion(design: Design, there: Design, region: string) {
  const of = there.regions.find(({ id }) => id === region)!;
  const text = ({ name, revision, instances }: Design['regions'][number]): string =>
    JSON.stringify([name, revision, instances]);
  return design.regions.find((each) => text(each) === text(of))?.id;
}
