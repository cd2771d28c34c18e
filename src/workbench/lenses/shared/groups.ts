/** Columns of alike trees, shared by the tables of priorities and costs: column `g0` is the first group. */
import { treesName, treeVlan, type TreeId } from '../../../core/model/ids';
import { VlanSet } from '../../../core/model/vlanSet';

/** Some trees that are told in one column. */
interface Group {
  readonly trees: readonly TreeId[];
}

/** The groups that have a tree of these VLANs; all of them for an empty text. The error is a sentence. */
export function groupsOf<T extends Group>(
  groups: readonly T[],
  text: string,
): { readonly groups: readonly T[]; readonly fault: string | null } {
  if (text.trim() === '') return { groups, fault: null };
  const wanted = VlanSet.parse(text);
  if (!wanted.ok)
    return {
      groups,
      fault: `${wanted.error.found} at character ${wanted.error.at + 1}; write ${wanted.error.allowed}.`,
    };
  const has = (tree: TreeId): boolean => wanted.value.has(treeVlan(tree) ?? 0);
  return {
    groups: groups.flatMap((group) => (group.trees.some(has) ? [{ ...group, trees: group.trees.filter(has) }] : [])),
    fault: null,
  };
}

/** The group of a column; null for the columns that tell what a row is. */
export const groupAt = (field: string): number | null => (/^g\d+$/.test(field) ? Number(field.slice(1)) : null);

/** How wide a column must be for its heading. */
export const groupWidth = (trees: readonly TreeId[]): number =>
  Math.min(240, Math.max(130, treesName(trees).length * 8 + 24));
