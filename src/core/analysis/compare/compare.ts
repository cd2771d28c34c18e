/** Two states of a design side by side: settings that differ, and ends whose role differs. */
import { settingDifferences, type Difference } from '../../model/derive/compare';
import type { Design } from '../../model/document';
import type { TreeId } from '../../model/ids';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import type { Solution } from '../../tree/settled';

export interface Comparison {
  readonly settings: readonly Difference[];
  /** In the trees that both have. */
  readonly ends: readonly MovedEnd[];
  /** Trees that only one of the two has. */
  readonly trees: readonly { readonly tree: TreeId; readonly only: 'before' | 'after' }[];
}

/** Compares two designs with their solutions (null where there is none: then ends are not compared). */
export function compareDesigns(
  before: Design,
  after: Design,
  solutions: readonly [Solution | null, Solution | null],
): Comparison {
  const [a, b] = solutions;
  const ids = (solution: Solution) => new Set(solution.trees.map((tree) => tree.id));
  const [ta, tb] = [a ? ids(a) : new Set<TreeId>(), b ? ids(b) : new Set<TreeId>()];
  return {
    settings: settingDifferences(before, after),
    ends: a && b ? movedEnds(a, b) : [],
    trees:
      a && b
        ? [
            ...[...ta].filter((tree) => !tb.has(tree)).map((tree) => ({ tree, only: 'before' as const })),
            ...[...tb].filter((tree) => !ta.has(tree)).map((tree) => ({ tree, only: 'after' as const })),
          ]
        : [],
  };
}
