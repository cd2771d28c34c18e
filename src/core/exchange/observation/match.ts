/** Who of a design an observed switch is, and which of its ports. */
import type { Design, Port, Switch } from '../../model/document';
import { nameOf } from '../../model/names';
import type { Bundle } from '../../model/document';
import { BUNDLE_PORTS } from '../../topology/aggregated';
import type { Observation, ObservedSwitch } from './observation';

/** By what two were taken for one. */
export type MatchedBy = 'hand' | 'address' | 'name';

export interface SwitchMatch {
  readonly observed: ObservedSwitch;
  readonly designed: Switch;
  readonly by: MatchedBy;
}
export interface Matches {
  readonly pairs: readonly SwitchMatch[];
  /** Switches of the design that nobody was taken for, and observed ones that are none of them. */
  readonly unseen: readonly Switch[];
  readonly unknown: readonly ObservedSwitch[];
}

const folded = (text: string): string => text.trim().toLowerCase();

/** As it was settled by hand, then by MAC address, then by name; each at most once. */
export function matchSwitches(design: Design, { switches }: Observation): Matches {
  const pairs: SwitchMatch[] = [];
  const left = new Set(design.switches);
  const open = new Set(switches);
  const take = (by: MatchedBy, key: (sw: Switch) => readonly string[], seen: (sw: ObservedSwitch) => string): void => {
    const known = new Map<string, Switch[]>();
    for (const sw of left) for (const each of key(sw)) known.set(each, [...(known.get(each) ?? []), sw]);
    for (const observed of [...open]) {
      const [designed, another] = known.get(seen(observed)) ?? [];
      // What two are called is nobody's name.
      if (!designed || another || !left.has(designed)) continue;
      pairs.push({ observed, designed, by });
      left.delete(designed);
      open.delete(observed);
    }
  };
  // What was settled by hand comes before all else, and is believed.
  const byHand = new Map(
    design.switches.flatMap((sw) => (sw.knownAs === undefined ? [] : [[sw.knownAs, sw] as const])),
  );
  for (const observed of switches) {
    const designed = [observed.chassis, observed.mac, observed.name]
      .map((each) => (each === null ? undefined : byHand.get(each)))
      .find((sw) => sw && left.has(sw));
    if (!designed) continue;
    pairs.push({ observed, designed, by: 'hand' });
    left.delete(designed);
    open.delete(observed);
  }
  // As its neighbours see it is told apart even where two act as one.
  take(
    'address',
    ({ mac }) => [mac],
    ({ chassis }) => chassis ?? '',
  );
  take(
    'address',
    (sw) => [sw.mac, ...(sw.stack?.members.map(({ mac }) => mac) ?? [])],
    ({ mac }) => mac ?? '',
  );
  take(
    'name',
    (sw) => [...new Set([folded(nameOf(sw)), folded(sw.id)])],
    ({ name }) => folded(name),
  );
  return { pairs, unseen: [...left], unknown: [...open] };
}

export type Place = { readonly kind: 'port'; readonly of: Port } | { readonly kind: 'bundle'; readonly of: Bundle };

/** By the number of an observed port, which port or bundle of the design it is. */
export function matchPorts(design: Design, { designed, observed }: SwitchMatch): Map<number, Place> {
  const bundles = design.bundles.filter((each) => each.switch === designed.id);
  const found = new Map<number, Place>();
  const taken = new Set<string>();
  const take = (number: number, place: Place): void => {
    found.set(number, place);
    taken.add(`${place.kind} ${place.of.id}`);
  };
  // What an interface is called says more than its number, where it is called as a port of the design is.
  const byHand = new Map(
    designed.ports.flatMap((port) => (port.knownAs === undefined ? [] : [[port.knownAs, port] as const])),
  );
  for (const { number, interface: name } of observed.ports) {
    const port = byHand.get(name);
    if (port && !taken.has(`port ${port.id}`)) take(number, { kind: 'port', of: port });
  }
  for (const { number, interface: name, alias } of observed.ports) {
    if (found.has(number)) continue;
    const byName = (of: { readonly id: string }): boolean => [folded(name), folded(alias)].includes(folded(of.id));
    const port = designed.ports.find((each) => byName(each) || `port${each.number}` === name);
    const bundle = bundles.find((each) => byName(each) || `bundle${each.number}` === name);
    if (port && !taken.has(`port ${port.id}`)) take(number, { kind: 'port', of: port });
    else if (bundle && !taken.has(`bundle ${bundle.id}`)) take(number, { kind: 'bundle', of: bundle });
  }
  for (const { number } of observed.ports) {
    if (found.has(number)) continue;
    const port = designed.ports.find((each) => each.number === number);
    const bundle = bundles.find((each) => BUNDLE_PORTS + each.number === number);
    if (port && !taken.has(`port ${port.id}`)) take(number, { kind: 'port', of: port });
    else if (bundle && !taken.has(`bundle ${bundle.id}`)) take(number, { kind: 'bundle', of: bundle });
  }
  return found;
}
