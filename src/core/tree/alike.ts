/** Trees that are alike: the same root, and the same role at every port. */
import type { SettledTree } from './settled';

/** The trees in groups of equal ones, groups and members in the order given. */
export function alikeTrees(trees: readonly SettledTree[]): SettledTree[][] {
  const groups: SettledTree[][] = [];
  const byHash = new Map<number, SettledTree[][]>();
  for (const tree of trees) {
    const hash = hashOf(tree);
    const near = byHash.get(hash) ?? [];
    const group = near.find(([first]) => alike(first!, tree));
    if (group) {
      group.push(tree);
      continue;
    }
    const fresh = [tree];
    groups.push(fresh);
    byHash.set(hash, [...near, fresh]);
  }
  return groups;
}

const LISTS = ['root', 'role', 'disputed'] as const;

/** Whether two trees of one network lead everywhere to the same root by the same ports. */
export const alike = (a: SettledTree, b: SettledTree): boolean =>
  LISTS.every((list) => a[list].length === b[list].length && a[list].every((value, i) => value === b[list][i]));

/** Equal for trees that are alike (FNV-1a over the values). */
function hashOf(tree: SettledTree): number {
  let hash = 0x811c9dc5;
  for (const list of LISTS)
    for (let i = 0; i < tree[list].length; i += 1) hash = Math.imul(hash ^ tree[list][i]!, 0x01000193);
  return hash;
}
