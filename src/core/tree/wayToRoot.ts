import type { Network } from '../topology/network';
import type { SettledTree } from './settled';

/**
 * The root ports from a switch to its root, its own first. Ends after as many as there are switches: a tree passes none
 * twice, and where ends of a bundle lead to different places what designates a segment need not be nearer to the root.
 */
export function wayToRoot({ owner, switches }: Network, tree: SettledTree, s: number): number[] {
  const way: number[] = [];
  for (
    let at = s;
    tree.rootPort[at]! >= 0 && way.length < switches.length;
    at = owner[tree.designated[tree.rootPort[at]!]!]!
  )
    way.push(tree.rootPort[at]!);
  return way;
}
