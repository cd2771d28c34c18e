/** A plan on the clock: each step as what happens at its time. */
import { ok, type Result } from '../../base/result';
import { touchedPlaces, valueAt, type Place } from '../../model/derive/touched';
import type { Bundle, Design, Link, Port, Switch } from '../../model/document';
import type { Put } from '../../model/put';
import type { Action, Undated } from '../../model/scenario';
import { pauseIn, statesOf, type Plan } from './plan';

export interface PlayedPlan {
  /** The network that it begins with. */
  readonly design: Design;
  readonly actions: readonly Action[];
  /** When each step is done, seconds. */
  readonly times: readonly number[];
  readonly until: number;
}

/** When the first step is done, seconds. */
const FIRST = 1;

/** Every step at its time, with a pause after it in which all comes to rest. */
export function playOf(given: Design, plan: Plan): Result<PlayedPlan, string> {
  const states = statesOf(given, plan);
  if (!states.ok) return states;
  const [design, ...after] = states.value as [Design, ...Design[]];
  const pause = Math.max(pauseIn(design), pauseIn(states.value.at(-1)!));
  const times = after.map((_, i) => FIRST + i * pause);
  const between = turner(design, states.value.at(-1)!);
  const actions = after.flatMap((to, i) =>
    between(states.value[i]!, to, plan.steps[i]!.does.join(' ')).map((each) => ({ ...each, at: times[i]! }) as Action),
  );
  return ok({ design, actions, times, until: FIRST + after.length * pause });
}

/** What happens at one step alone. */
export const actionsBetween = (from: Design, to: Design, text: string): Undated[] => turner(from, to)(from, to, text);

/** Turns steps between states, in the order of time, into what happens; `start` and `goal`: where the whole begins and ends. */
function turner(start: Design, goal: Design): (from: Design, to: Design, text: string) => Undated[] {
  const plugged = plugsOf(start.links);
  const later = plugsOf(goal.links);
  return (from, to, text) => {
    const brings: Put[] = [];
    const cables: Undated[] = [];
    const puts: Put[] = [];
    const [was, is] = [byId(from.links), byId(to.links)];
    for (const id of new Set([...was.keys(), ...is.keys()])) {
      const [a, b] = [was.get(id), is.get(id)];
      if (a === b || (a && b && JSON.stringify(a) === JSON.stringify(b))) continue;
      const [ends, up] = [b ?? a!, b?.up ?? false];
      if (!a && b && endsOf(b).every((end) => !plugged.has(end))) {
        for (const end of endsOf(b)) plugged.set(end, id);
        const { up: _, ...link } = b;
        if (up) cables.push({ do: 'add-link', link });
        else brings.push({ place: ['links', id], value: b });
      } else if (!a || (b && endsOf(a).join() !== endsOf(b).join()) || takenLater(ends, later))
        puts.push({ place: ['links', id], ...(b ? { value: b } : {}) });
      else if (a.up !== up) cables.push(up ? { do: 'link-up', link: id } : { do: 'link-down', link: id, light: true });
    }
    const [before, after] = staged(from, to);
    for (const sw of before.switches) {
      const old = from.switches.find(({ id }) => id === sw.id);
      if (!old) brings.push({ place: ['switches', sw.id], value: sw });
      else
        for (const port of sw.ports)
          if (!old.ports.some(({ id }) => id === port.id))
            brings.push({ place: ['switches', sw.id, 'ports', port.id], value: port });
    }
    for (const place of touchedPlaces(before, after)) puts.push(putOf(after, place));
    // A cable goes before another one comes in its place.
    puts.sort((a, b) => Number('value' in a) - Number('value' in b));
    const changes: Undated[] = brings.length + puts.length > 0 ? [{ do: 'change', text, brings, puts }] : [];
    return [...changes, ...bundleActions(from, to), ...cables];
  };
}

const putOf = (after: unknown, place: Place): Put => {
  const value = valueAt(after, place);
  return { place: [...place], ...(value === undefined ? {} : { value }) };
};

const byId = <T extends { readonly id: string }>(items: readonly T[]): Map<T['id'], T> =>
  new Map(items.map((item) => [item.id, item]));
const endsOf = ({ a, b }: Pick<Link, 'a' | 'b'>): string[] => [a, b].map((end) => `${end.switch} ${end.port}`);
const plugsOf = (links: readonly Link[]): Map<string, string> =>
  new Map(links.flatMap((link) => endsOf(link).map((end) => [end, link.id as string] as const)));
/** Whether another cable comes to one of its ports. */
const takenLater = (link: Link, later: ReadonlyMap<string, string>): boolean =>
  endsOf(link).some((end) => (later.get(end) ?? link.id) !== link.id);

/** Bundles that come, go, or have other ports. */
function bundleActions(from: Design, to: Design): Undated[] {
  const [was, is] = [byId(from.bundles), byId(to.bundles)];
  const ports = ({ ports: all }: Bundle): string => [...all].sort().join();
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((id): Undated[] => {
    const [a, b] = [was.get(id), is.get(id)];
    if (!b) return [{ do: 'remove-bundle', bundle: id }];
    if (!a) return [{ do: 'add-bundle', bundle: b }];
    return ports(a) === ports(b) ? [] : [{ do: 'bundle-ports', bundle: id, ports: [...b.ports] }];
  });
}

/** Both states with the same switches and ports, dead where they are not there; without cables, and with the bundles of both. */
function staged(from: Design, to: Design) {
  const ids = [...new Set([...from.switches, ...to.switches].map(({ id }) => id))];
  const [was, is] = [byId(from.switches), byId(to.switches)];
  const dead = (port: Port): Port => ({ ...port, up: false });
  const side = (design: Design, own: ReadonlyMap<string, Switch>, others: ReadonlyMap<string, Switch>) => {
    const { links: _, intents: __, scenarios: ___, worksheets: ____, ...rest } = design;
    return {
      ...rest,
      hosts: from.hosts.map((host) => {
        const now = design.hosts.find(({ id }) => id === host.id);
        return now ? { ...host, attach: now.attach } : host;
      }),
      switches: ids.map((id): Switch => {
        const [sw, other] = [own.get(id), others.get(id)];
        if (!sw) return { ...other!, up: false };
        const missing = (other?.ports ?? []).filter((port) => !sw.ports.some((each) => each.id === port.id));
        return missing.length === 0 ? sw : { ...sw, ports: [...sw.ports, ...missing.map(dead)] };
      }),
      // What a bundle has of ports is told by itself.
      bundles: design.bundles
        .filter(({ id }) => (design === from ? to : from).bundles.some((bundle) => bundle.id === id))
        .map(({ ports: ____ports, ...bundle }) => bundle),
    };
  };
  return [side(from, was, is), side(to, is, was)] as const;
}
