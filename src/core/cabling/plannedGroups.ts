/** Groups as the lines so far leave them, by name and by id. */
import type { Command } from '../edit/commands';
import type { FreshNames } from '../edit/fresh';
import { groupSchema, type Design, type Group } from '../model/document';
import type { GroupId } from '../model/ids';
import type { GroupSettings } from './statement';

export class PlannedGroups {
  private readonly known = new Map<string, Group>();

  private readonly fresh: FreshNames;
  private readonly plan: (command: Command) => void;

  constructor({ groups }: Design, fresh: FreshNames, plan: (command: Command) => void) {
    this.fresh = fresh;
    this.plan = plan;

    for (const group of groups) this.known.set(group.id, group);
    for (const group of groups) if (group.name !== undefined) this.known.set(group.name, group);
  }

  /** The group of this name, made where there is none. */
  named(name: string, settings: Omit<Partial<Group>, 'id'> = {}): Group {
    const known = this.known.get(name);
    if (known) return known;
    const id = this.fresh.groupId(name);
    const group = groupSchema.parse({ id, ...(id === name ? {} : { name }), ...settings });
    this.plan({ do: 'add-group', group });
    this.learn(group);
    return group;
  }

  /** Sets a group, made where there is none; false where it would lie within itself. */
  set(name: string, { kind, within }: GroupSettings): boolean {
    if (within === name) return false;
    const around = within === undefined ? undefined : this.named(within).id;
    const wish = { ...(kind ? { kind } : {}), ...(around === undefined ? {} : { within: around }) };
    const known = this.known.get(name);
    if (known && around !== undefined && this.liesWithin(around, known.id)) return false;
    if (!known) {
      this.named(name, wish);
      return true;
    }
    const changed = Object.entries(wish).filter(([key, value]) => known[key as keyof Group] !== value);
    if (changed.length === 0) return true;
    this.plan({ do: 'set-group', group: known.id, ...Object.fromEntries(changed) });
    this.learn({ ...known, ...wish });
    return true;
  }

  /** Whether a group is, or lies within, another. */
  private liesWithin(id: GroupId, other: GroupId): boolean {
    for (let at: GroupId | undefined = id; at !== undefined; at = this.known.get(at)?.within)
      if (at === other) return true;
    return false;
  }

  private learn(group: Group): void {
    this.known.set(group.id, group);
    if (group.name !== undefined) this.known.set(group.name, group);
  }
}
