/** Making bundles: of parallel links at both ends in one step, and taking them apart. */
import type { Command } from '../../edit/commands';
import type { LinkId, BridgePortId, SwitchId } from '../../model/ids';
import type { Bundle, BundleMode, Design, Link, Port } from '../../model/document';
import { bundleSchema } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';

/** Links that join the same two switches, in document order; `a` and `b` are the switches of the first one. */
export interface Parallel {
  readonly a: SwitchId;
  readonly b: SwitchId;
  readonly links: readonly Link[];
}

/** Every pair of switches with more than one link between them. */
export function parallelsOf(design: Design): Parallel[] {
  const found = new Map<string, { a: SwitchId; b: SwitchId; links: Link[] }>();
  for (const link of design.links) {
    if (link.a.switch === link.b.switch) continue;
    const key = [link.a.switch, link.b.switch].sort().join('\n');
    const pair = found.get(key) ?? { a: link.a.switch, b: link.b.switch, links: [] };
    pair.links.push(link);
    found.set(key, pair);
  }
  return [...found.values()].filter((pair) => pair.links.length > 1);
}

/** The links that run beside one, itself included. */
export const besides = (design: Design, id: LinkId): readonly Link[] =>
  parallelsOf(design).find((pair) => pair.links.some((link) => link.id === id))?.links ?? [];

/** The bundle that a port is a member of. */
export const bundleAt = (design: Design, sw: SwitchId, port: BridgePortId): Bundle | undefined =>
  design.bundles.find((bundle) => bundle.switch === sw && bundle.ports.some((id) => id === port));

export interface Bundling {
  readonly commands: readonly Command[];
  /** The bundles that the commands add, by end. */
  readonly bundles: readonly [Bundle, Bundle];
}

/**
 * The commands that bundle links at both ends, each named after the far end and carrying what its ports carry. Fails with a
 * sentence where the links do not join the same two switches, or a port is in a bundle already.
 */
export function bundleThese(
  design: Design,
  ids: readonly LinkId[],
  modes: readonly [BundleMode, BundleMode] = ['active', 'active'],
): Result<Bundling, string> {
  const links = ids.flatMap((id) => design.links.filter((link) => link.id === id));
  const [first] = links;
  if (!first) return fail('No link is chosen.');
  const [a, b] = [first.a.switch, first.b.switch];
  const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  if (a === b) return fail('Both ends of the link are on one switch.');
  const ports = (side: SwitchId): BridgePortId[] =>
    links.map((link) => (link.a.switch === side ? link.a.port : link.b.port));
  if (links.some((link) => ![link.a.switch, link.b.switch].includes(a) || ![link.a.switch, link.b.switch].includes(b)))
    return fail(`Links of one bundle join the same two switches; these do not all join ${nameOf(a)} and ${nameOf(b)}.`);
  for (const [side, own] of [
    [a, ports(a)],
    [b, ports(b)],
  ] as const) {
    for (const port of own) {
      const owner = bundleAt(design, side, port);
      if (owner) return fail(`${nameOf(side)} port ${port} is in the bundle ${owner.name ?? owner.id} already.`);
    }
  }
  const taken = new Set<string>([
    ...design.bundles.map((bundle) => bundle.id),
    ...design.switches.flatMap((sw) => sw.ports.map((port) => port.id)),
  ]);
  const make = (side: SwitchId, far: SwitchId, mode: BundleMode): Bundle => {
    const owner = design.switches.find((sw) => sw.id === side)!;
    const own = owner.ports.filter((port) => ports(side).includes(port.id));
    const name = nameToward(nameOf(far));
    const id = freshId(taken, [`to-${far}`, `${side}-to-${far}`]);
    taken.add(id);
    return bundleSchema.parse({
      id,
      name,
      switch: side,
      number: freeNumber(design, side),
      ports: ports(side),
      mode,
      ...commonSettings(own),
    });
  };
  const bundles = [make(a, b, modes[0]), make(b, a, modes[1])] as const;
  return ok({ bundles, commands: bundles.map((bundle): Command => ({ do: 'add-bundle', bundle })) });
}

/** After what is at the other end. */
const nameToward = (far: string): string => `to ${far}`.slice(0, 200);

/** The first of some identifiers that is not taken, else the last of them, numbered. */
function freshId(taken: ReadonlySet<string>, wanted: readonly string[]): string {
  const free = wanted.find((id) => id.length <= 180 && !taken.has(id));
  if (free !== undefined) return free;
  const stem = wanted.at(-1)!.slice(0, 180);
  for (let n = 2; ; n += 1) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** The lowest number that no bundle of a switch has. */
export function freeNumber(design: Design, sw: SwitchId): number {
  const taken = new Set(design.bundles.filter((bundle) => bundle.switch === sw).map((bundle) => bundle.number));
  let number = 1;
  while (taken.has(number)) number += 1;
  return number;
}

/** What the ports carry, from the first; costs and priorities only where all ports have them: a bundle's cost comes from its members. */
function commonSettings(ports: readonly Port[]) {
  const [first] = ports;
  if (!first) return {};
  const all = <K extends 'edge' | 'priority' | 'trees'>(key: K): Partial<Pick<Port, K>> =>
    ports.every((port) => JSON.stringify(port[key]) === JSON.stringify(first[key]))
      ? ({ [key]: first[key] } as Partial<Pick<Port, K>>)
      : {};
  const trees = Object.entries(all('trees').trees ?? {}).flatMap(([tree, set]) =>
    set?.priority === undefined ? [] : [[tree, { priority: set.priority }]],
  );
  return { vlans: first.vlans, ...all('edge'), ...all('priority'), trees: Object.fromEntries(trees) as Port['trees'] };
}
