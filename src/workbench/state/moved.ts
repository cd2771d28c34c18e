/** Ends whose role a change moved, or that part two revisions, in a form that the map can look up. */
import type { TreeId } from '../../core/model/ids';
import type { MovedEnd, MovedVlan } from '../../core/tree/moved';
import type { Role } from '../../core/tree/settled';

/** What the last change moved, or what parts two revisions that are compared. */
export interface Moved {
  readonly label: string;
  /** What moved them: an edit, going back a step, or nothing: two states that are compared. */
  readonly by: 'edit' | 'undo' | 'comparison';
  readonly ends: readonly MovedEnd[];
  /** VLANs that go with other trees now, and so another way. */
  readonly vlans: readonly MovedVlan[];
  /** By tree, the role that each moved port had before, by port index. */
  readonly before: ReadonlyMap<TreeId, ReadonlyMap<number, Role | null>>;
}

/** Ends that moved, in a form that the map can look up. */
export function movedOf(
  label: string,
  ends: readonly MovedEnd[],
  by: Moved['by'] = 'edit',
  vlans: readonly MovedVlan[] = [],
): Moved {
  const byTree = new Map<TreeId, Map<number, Role | null>>();
  for (const { tree, index, before: role } of ends) {
    const own = byTree.get(tree) ?? new Map<number, Role | null>();
    byTree.set(tree, own.set(index, role));
  }
  return { label, by, ends, vlans, before: byTree };
}
