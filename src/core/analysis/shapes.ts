/** Trees that move alike, so that what is found for one of them holds for all. */
import type { SettledTree } from '../tree/settled';

/** Groups of trees in which every port has the same role and cost, and every switch the same root. */
export const alikeTrees = (trees: readonly SettledTree[]): SettledTree[][] =>
  groupedBy(trees, (tree) => [tree.role, tree.cost, tree.root]);

/** Groups of trees that are set alike, whichever links carry their VLANs: one MST instance would do for each. */
export const setAlike = (trees: readonly SettledTree[]): SettledTree[][] =>
  groupedBy(trees, (tree) => [tree.rank, tree.cost]);

function groupedBy(
  trees: readonly SettledTree[],
  partsOf: (tree: SettledTree) => readonly { join(by: string): string }[],
): SettledTree[][] {
  const groups = new Map<string, SettledTree[]>();
  for (const tree of trees) {
    const key = partsOf(tree)
      .map((each) => each.join(','))
      .join(';');
    groups.set(key, [...(groups.get(key) ?? []), tree]);
  }
  return [...groups.values()];
}
