/**
 * Groups of switches: who is in which, what stands for them on a map where some are folded, and groups that could be made:
 * of switches that are built as a block, are named alike, or share region settings.
 */
import { oncePer, onceWhile } from '../../base/cache';
import { FreshNames } from '../../edit/fresh';
import type { Command } from '../../edit/commands';
import type { Design, Group, Switch } from '../../model/document';
import type { GroupId, SwitchId } from '../../model/ids';
import { nameOf } from '../../model/names';
import { islandsOf, naturally } from '../structure/blocks';

/** A group with all that is in it, in groups within it too. */
export interface Filled {
  readonly group: Group;
  readonly switches: readonly SwitchId[];
  /** Groups around it. */
  readonly depth: number;
}

/** The groups that a switch is in, the outermost first. */
export function chainsOf(design: Pick<Design, 'groups' | 'switches'>): (sw: Switch) => readonly GroupId[] {
  const byId = new Map(design.groups.map((group) => [group.id, group]));
  const chains = new Map<GroupId, readonly GroupId[]>();
  const chainOf = (id: GroupId): readonly GroupId[] => {
    const known = chains.get(id);
    if (known) return known;
    const within = byId.get(id)?.within;
    const chain = within === undefined ? [id] : [...chainOf(within), id];
    chains.set(id, chain);
    return chain;
  };
  return (sw) => (sw.group === undefined ? NONE : chainOf(sw.group));
}
const NONE: readonly GroupId[] = [];

/** The groups of a design with what is in them, each after the one around it, in natural order of their names. */
export const filledGroups = oncePer((design: Design): readonly Filled[] => {
  const members = new Map<GroupId, SwitchId[]>(design.groups.map(({ id }) => [id, []]));
  const chain = chainsOf(design);
  for (const sw of design.switches) for (const id of chain(sw)) members.get(id)?.push(sw.id);
  const inside = new Map<GroupId | undefined, Group[]>();
  for (const group of design.groups) inside.set(group.within, [...(inside.get(group.within) ?? []), group]);
  const listed = (within: GroupId | undefined, depth: number): Filled[] =>
    [...(inside.get(within) ?? [])]
      .sort((a, b) => naturally(nameOf(a), nameOf(b)))
      .flatMap((group) => [{ group, switches: members.get(group.id)!, depth }, ...listed(group.id, depth + 1)]);
  return listed(undefined, 0);
});

/** The groups that a map folds: the design's own, or, where it has none, the blocks that it is built of. */
export const foldableGroups = oncePer((design: Design): readonly Filled[] =>
  design.groups.length > 0
    ? filledGroups(design)
    : // One box for most of a network would say nothing.
      blocksIn(design).filter(({ switches }) => switches.length * 2 <= design.switches.length),
);

/** By switch, the outermost folded group that stands for it; switches that are drawn themselves are not in it. */
export function standIns(groups: readonly Filled[], folded: ReadonlySet<GroupId>): ReadonlyMap<SwitchId, Filled> {
  const stands = new Map<SwitchId, Filled>();
  // Groups come after those around them.
  for (const filled of groups)
    if (folded.has(filled.group.id)) for (const id of filled.switches) if (!stands.has(id)) stands.set(id, filled);
  return stands;
}

/** What groups can be made of. */
export const GROUPINGS = ['block', 'prefix', 'region'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** Groups that could be made, none with a single switch; by prefix up to the first sign in a name: `north` of `north-12`. */
export function groupsBy(design: Design, by: Grouping): readonly Filled[] {
  switch (by) {
    case 'block':
      return blocksIn(design);
    case 'prefix':
      return alike(design, (sw) => /^[^-_./\s]*[^-_./\s\d](?=[-_./\s\d])/.exec(nameOf(sw))?.[0] ?? null);
    case 'region': {
      const names = new Map(design.regions.map(({ id, name }) => [id, name || id]));
      return alike(design, (sw) => (sw.region === undefined ? null : names.get(sw.region)!));
    }
  }
}

/** Commands that make groups, and put into each the switches that are in none yet. */
export function commandsFor(design: Design, made: readonly Filled[]): Command[] {
  const free = new Set(design.switches.flatMap((sw) => (sw.group === undefined ? [sw.id] : [])));
  return made.flatMap(({ group, switches }): Command[] => {
    const own = switches.filter((id) => free.has(id));
    return own.length === 0
      ? []
      : [
          { do: 'add-group', group },
          { do: 'put-in-group', switches: own, group: group.id },
        ];
  });
}

/** The command that makes one group of some switches, within the group that all of them are in, and its id. */
export function newGroup(
  design: Design,
  switches: readonly SwitchId[],
  name: string,
): { readonly id: GroupId; readonly commands: Command[] } {
  const id = new FreshNames(design).groupId(name);
  const chosen = new Set(switches);
  const around = new Set(design.switches.flatMap((sw) => (chosen.has(sw.id) ? [sw.group] : [])));
  const [within] = around.size === 1 ? around : [];
  const group: Group = { id, ...(id === name ? {} : { name }), ...(within === undefined ? {} : { within }) };
  return {
    id,
    commands: [
      { do: 'add-group', group },
      { do: 'put-in-group', switches: [...switches], group: id },
    ],
  };
}

/** A name for a group of switches: what their names begin with, else the first and the last. */
export function nameForGroup(design: Design, switches: readonly SwitchId[]): string {
  const chosen = new Set(switches);
  const names = design.switches.flatMap((sw) => (chosen.has(sw.id) ? [nameOf(sw)] : [])).sort(naturally);
  return names.length === 0 ? 'group' : (stemOf(names) ?? spanOf(names));
}

function alike(design: Design, keyOf: (sw: Switch) => string | null): Filled[] {
  const byKey = new Map<string, SwitchId[]>();
  for (const sw of design.switches) {
    const key = keyOf(sw);
    if (key !== null) byKey.set(key, [...(byKey.get(key) ?? []), sw.id]);
  }
  const named = [...byKey].sort(([a], [b]) => naturally(a, b));
  return madeOf(design, named);
}

/** Groups of these names; ids that are free in the design, the same each time. */
function madeOf(design: Design, named: readonly (readonly [string, readonly SwitchId[]])[]): Filled[] {
  const fresh = new FreshNames(design);
  return named.flatMap(([name, switches]) => {
    if (switches.length < LEAST) return [];
    const id = fresh.groupId(name);
    return [{ group: { id, ...(id === name ? {} : { name }) }, switches, depth: 0 }];
  });
}

/** A group of fewer says nothing. */
const LEAST = 2;

/** Most edits leave cables and names alone. */
const sameCabling = (a: Design, b: Design): boolean =>
  a.links === b.links &&
  a.groups === b.groups &&
  a.switches.length === b.switches.length &&
  a.switches.every((sw, i) => {
    const other = b.switches[i]!;
    return sw === other || (sw.id === other.id && sw.name === other.name && sw.tier === other.tier);
  });

/** Switches of distribution with what only they serve, chains and rings; the core stays by itself. */
const blocksIn = onceWhile(sameCabling, (design: Design): readonly Filled[] => {
  const names = new Map(design.switches.map((sw) => [sw.id, nameOf(sw)]));
  const blocks = islandsOf(design).flatMap((island) => island.blocks);
  return madeOf(
    design,
    blocks.flatMap(({ heads, limbs }) =>
      heads.length > 0
        ? [[spanOf(heads.map((id) => names.get(id)!)), [...heads, ...limbs.flat()]] as const]
        : limbs.map((limb) => [spanOf([...limb].map((id) => names.get(id)!)), limb] as const),
    ),
  );
});

/** What names begin with, where that says something. */
function stemOf(names: readonly string[]): string | null {
  let stem = names[0]!;
  for (const name of names) while (!name.startsWith(stem)) stem = stem.slice(0, -1);
  stem = stem.replace(/[-_./\s\d]+$/, '');
  return stem.length >= 2 ? stem : null;
}

/** `dist-1, dist-2`; of more than two the first and the last. */
function spanOf(names: readonly string[]): string {
  const [first, last] = [names[0]!.slice(0, 60), names.at(-1)!.slice(0, 60)];
  return names.length === 1 ? first : names.length === 2 ? `${first}, ${last}` : `${first} to ${last}`;
}
