/** Which groups the map shows as one box: remembered in this browser for each design; at first, all of a large network. */
import { foldableGroups, standIns, type Filled } from '../../core/analysis/groups/groups';
import type { Design } from '../../core/model/document';
import type { GroupId, SwitchId } from '../../core/model/ids';

export type Folded = ReadonlySet<GroupId>;

/** A network with more switches opens with its groups folded; without groups of its own, with its blocks. */
export const LARGE = 60;

/** Whether the map offers to fold: groups that someone made, or the blocks of a large network. */
export const canFold = (design: Design): boolean => design.groups.length > 0 || design.switches.length > LARGE;

/** The groups that can be folded. */
export const groupsOf = (design: Design): readonly Filled[] => (canFold(design) ? foldableGroups(design) : NO_GROUPS);
const NO_GROUPS: readonly Filled[] = [];

/** What folded groups stand for, and the groups that are drawn open, the outer ones first. */
export interface MapGroups {
  readonly stands: ReadonlyMap<SwitchId, Filled>;
  readonly open: readonly Filled[];
}

export function mapGroups(design: Design, folded: Folded): MapGroups {
  const groups = groupsOf(design);
  const stands = standIns(groups, folded);
  const open = groups.filter(({ group, switches }) => !folded.has(group.id) && switches.some((id) => !stands.has(id)));
  return { stands, open };
}

/** In focus, and hung from the root, every switch is drawn itself. */
export const UNGROUPED: MapGroups = { stands: new Map(), open: [] };

/** What is folded where nothing is remembered. */
export const foldedAtFirst = (design: Design): Folded =>
  design.switches.length > LARGE ? outermost(design) : new Set<GroupId>();

/** The groups that lie in no other. */
export const outermost = (design: Design): Folded =>
  new Set(groupsOf(design).flatMap(({ group, depth }) => (depth === 0 ? [group.id] : [])));

/** Without every group that any of these switches is in. */
export function unfoldedFor(design: Design, folded: Folded, switches: readonly SwitchId[]): Folded {
  const wanted = new Set(switches);
  const hiding = groupsOf(design).filter(
    ({ group, switches: inside }) => folded.has(group.id) && inside.some((id) => wanted.has(id)),
  );
  if (hiding.length === 0) return folded;
  return new Set([...folded].filter((id) => !hiding.some(({ group }) => group.id === id)));
}

/** The group that holds these switches and no others. */
export function groupOfAll(design: Design, switches: readonly SwitchId[]): Filled | undefined {
  const chosen = new Set(switches);
  return groupsOf(design).find(
    ({ switches: inside }) => inside.length === chosen.size && inside.every((id) => chosen.has(id)),
  );
}

const keyOf = (design: string): string => `knot-path-folded-${design}`;

/** What was remembered of a design; null where nothing was. */
export function rememberedFolds(design: string): Folded | null {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(keyOf(design)) ?? 'null');
    return Array.isArray(found) ? new Set(found.filter((id) => typeof id === 'string') as GroupId[]) : null;
  } catch {
    return null;
  }
}

export function rememberFolds(design: string, folded: Folded): void {
  try {
    localStorage.setItem(keyOf(design), JSON.stringify([...folded]));
  } catch {
    // A browser that remembers nothing shows the design as at first.
  }
}
