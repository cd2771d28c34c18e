/** Making bundles: of parallel links at both ends in one step, and taking them apart. */
import type { Command } from '../../edit/commands';
import { newBundle, takenIds } from '../../edit/newBundle';
import type { BridgePortId, HostId, LinkId, SwitchId } from '../../model/ids';
import type { Bundle, BundleMode, Design, Link } from '../../model/document';
import { hostBundleSchema } from '../../model/document';
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

export interface Bundling<Added extends readonly Bundle[] = readonly Bundle[]> {
  readonly commands: readonly Command[];
  /** The bundles that the commands add to switches, by end. */
  readonly bundles: Added;
}

/**
 * The commands that bundle links at both ends, each named after the far end and carrying what its ports carry. Fails with a
 * sentence where the links do not join the same two switches, or a port is in a bundle already.
 */
export function bundleThese(
  design: Design,
  ids: readonly LinkId[],
  modes: readonly [BundleMode, BundleMode] = ['active', 'active'],
): Result<Bundling<readonly [Bundle, Bundle]>, string> {
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
  const taken = takenIds(design);
  const make = (side: SwitchId, far: SwitchId, mode: BundleMode): Bundle =>
    newBundle(design, taken, { switch: side, ports: ports(side), mode, far, farName: nameOf(far) });
  const bundles = [make(a, b, modes[0]), make(b, a, modes[1])] as const;
  return ok({ bundles, commands: bundles.map((bundle): Command => ({ do: 'add-bundle', bundle })) });
}

/**
 * The commands that bundle a host's cards and the ports that they are plugged into, in one step; an end that is there is
 * left as it is. Fails with a sentence where the cards lead to several switches, or a port is in another bundle.
 */
export function bundleCards(design: Design, id: HostId): Result<Bundling, string> {
  const host = design.hosts.find((each) => each.id === id);
  if (!host || host.attach.length < 2) return fail('A bundle of cards needs two of them.');
  const nameOf = (sw: SwitchId): string => design.switches.find((each) => each.id === sw)?.name ?? sw;
  const [side, ...others] = new Set(host.attach.map((card) => card.switch));
  if (others.length > 0)
    return fail(
      `Its cards are plugged into ${[side!, ...others].map(nameOf).join(' and ')}; the members of one bundle lead to one switch.`,
    );
  const ports = host.attach.map((card): BridgePortId => card.port);
  const owners = new Set(ports.map((port) => bundleAt(design, side!, port)));
  const [there] = owners;
  const whole = owners.size === 1 && there !== undefined && there.ports.length === ports.length;
  const other = [...owners].find((owner) => owner !== undefined);
  if (other && !whole)
    return fail(`${nameOf(side!)}: a port of these is in the bundle ${other.name ?? other.id} already.`);
  if (there && host.bundle) return fail('Cards and ports are bundled already.');
  const bundles = there
    ? []
    : [
        newBundle(design, takenIds(design), {
          switch: side!,
          ports,
          mode: host.bundle ? modeOpposite(host.bundle.mode) : 'active',
          far: host.id,
          farName: host.name ?? host.id,
        }),
      ];
  const cards: Command[] = host.bundle
    ? []
    : [
        {
          do: 'set-host',
          host: id,
          bundle: hostBundleSchema.parse({ mode: there ? modeOpposite(there.mode) : 'active' }),
        },
      ];
  return ok({ bundles, commands: [...cards, ...bundles.map((bundle): Command => ({ do: 'add-bundle', bundle }))] });
}

/** A mode that comes up against another. */
export const modeOpposite = (mode: BundleMode): BundleMode =>
  mode === 'static' ? 'static' : mode === 'initiate' || mode === 'answer' ? 'initiate' : 'active';
