/** Making a stack of switches that are there: the first keeps its name, settings and ports, the others become members with theirs. */
import { firstFree } from '../base/firstFree';
import { fail, ok, type Result } from '../base/result';
import { MAX_ID, isIdentifier, traitsOf, type Bundle, type Design, type Port, type Switch } from '../model/document';
import type { BundleId, PortId, SwitchId } from '../model/ids';
import { MAX_STACK_MEMBERS } from '../model/limits';
import { nameOf } from '../model/names';
import { stackField } from '../model/stack';
import type { Command } from './commands';

/**
 * The commands that do it, in one step: cables among them become stack cables, cables to others, hosts and bundles go along with
 * their ports, which are called after their member where a name is taken. The error is a sentence.
 */
export function stackTogether(design: Design, ids: readonly SwitchId[]): Result<Command[], string> {
  const switches = ids.flatMap((id) => design.switches.filter((sw) => sw.id === id));
  const [lead, ...others] = switches;
  if (!lead || others.length === 0) return fail('A stack takes two switches or more.');
  if (switches.length > MAX_STACK_MEMBERS) return fail(`A stack has ${MAX_STACK_MEMBERS} members at the most.`);
  const stacked = switches.find(({ stack }) => stack !== undefined);
  if (stacked) return fail(`${nameOf(stacked)} is a stack already.`);
  const odd = others.find(({ dialect }) => dialect !== lead.dialect);
  if (odd)
    return fail(
      `The members of a stack run one spanning tree mode: ${nameOf(lead)} runs ${traitsOf(lead.dialect).name}, ${nameOf(odd)} ${traitsOf(odd.dialect).name}.`,
    );
  const moved = movedPorts(lead, others);
  if (!moved) return fail('All their ports have no room in one switch.');
  const own = new Set(ids);
  const place = <E extends { readonly switch: SwitchId; readonly port: PortId }>(end: E): E =>
    end.switch !== lead.id && own.has(end.switch)
      ? { ...end, switch: lead.id, port: moved.get(`${end.switch} ${end.port}`)!.id }
      : end;
  const stack = stackField.parse({
    members: switches.map(({ mac, up }, i) => ({ id: i + 1, mac, up, masterPriority: i === 0 ? 2 : 1 })),
  })!;
  return ok([
    ...design.bundles
      .filter((bundle) => own.has(bundle.switch) && bundle.switch !== lead.id)
      .map((bundle): Command => ({ do: 'remove-bundle', bundle: bundle.id })),
    ...[...moved.values()].map((port): Command => ({ do: 'add-port', switch: lead.id, port })),
    ...design.links.flatMap(({ id, a, b }): Command[] => {
      const inside = [a, b].filter((end) => own.has(end.switch)).length;
      if (inside === 0 || (inside === 1 && [a, b].some((end) => end.switch === lead.id))) return [];
      return inside === 2 && a.switch !== b.switch
        ? [{ do: 'remove-link', link: id }]
        : [{ do: 'set-link', link: id, a: place(a), b: place(b) }];
    }),
    ...design.hosts.flatMap(({ id, attach }): Command[] =>
      attach.some((end) => end.switch !== lead.id && own.has(end.switch))
        ? [{ do: 'set-host', host: id, attach: attach.map(place) }]
        : [],
    ),
    ...others.map(({ id }): Command => ({ do: 'remove-switch', switch: id })),
    ...movedBundles(design, lead, others, moved),
    { do: 'set-switch', switch: lead.id, stack },
  ]);
}

/** The ports of the others as ports of the first; null where their numbers have no room. */
function movedPorts(lead: Switch, others: readonly Switch[]): Map<string, Port> | null {
  const ids = new Set<string>(lead.ports.map(({ id }) => id));
  let number = Math.max(0, ...lead.ports.map((port) => port.number));
  const found = new Map<string, Port>();
  for (const [i, sw] of others.entries())
    for (const port of sw.ports) {
      const member = i + 2;
      const id = freeId(ids, `${member}/${port.id}`);
      ids.add(id);
      number += 1;
      found.set(`${sw.id} ${port.id}`, { ...port, id: id as PortId, number, stackMember: member });
    }
  return number > 4095 ? null : found;
}

/** The name, or the first that is free after it. */
function freeId(taken: ReadonlySet<string>, name: string): string {
  const stem = name.slice(0, MAX_ID - 6);
  for (let n = 1; ; n += 1) {
    const id = n === 1 ? name : `${stem}-${n}`;
    if (isIdentifier(id) && !taken.has(id)) return id;
  }
}

/** Bundles of the others, on the ports that theirs have become. */
function movedBundles(
  { bundles }: Design,
  lead: Switch,
  others: readonly Switch[],
  moved: ReadonlyMap<string, Port>,
): Command[] {
  const numbers = new Set(bundles.filter((bundle) => bundle.switch === lead.id).map((bundle) => bundle.number));
  const ids = new Set<string>([...lead.ports, ...moved.values()].map(({ id }) => id));
  return others.flatMap((sw) =>
    bundles
      .filter((bundle) => bundle.switch === sw.id)
      .map((bundle): Command => {
        const number = numbers.has(bundle.number) ? firstFree(numbers) : bundle.number;
        numbers.add(number);
        const id = ids.has(bundle.id)
          ? freeId(new Set([...ids, ...bundles.map((each) => each.id)]), bundle.id)
          : bundle.id;
        const ports: Bundle['ports'] = bundle.ports.map((port) => moved.get(`${sw.id} ${port}`)!.id);
        return { do: 'add-bundle', bundle: { ...bundle, id: id as BundleId, switch: lead.id, number, ports } };
      }),
  );
}
