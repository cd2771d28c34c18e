/** Two switches as root and standby of the trees, in turn, so that both carry their part. */
import { ok, type Result } from '../../base/result';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { treeVlan, type SwitchId, type TreeId } from '../../model/ids';
import type { DesignProblem } from '../../model/problem';
import { compileNetwork } from '../../topology/network';
import { dealVlans, type DealRule } from '../regions/grouping';
import { placeAll, type Placing } from './placing';

export interface Pair {
  /** One step. */
  readonly commands: readonly Command[];
  /** How each switch gets its place; those that cannot say why. */
  readonly placings: readonly Placing[];
}

/** The trees that each of the two is root of: VLANs by a rule, trees of another kind in turn. */
export function sharedOut(
  design: Design,
  trees: readonly TreeId[],
  rule: DealRule,
): readonly [readonly TreeId[], readonly TreeId[]] {
  const vids = trees.flatMap((tree) => treeVlan(tree) ?? []);
  const [first = []] = dealVlans(design, vids, 2, rule);
  const others = trees.filter((tree) => treeVlan(tree) === null);
  const isFirst = (tree: TreeId): boolean => {
    const vid = treeVlan(tree);
    return vid === null ? others.indexOf(tree) % 2 === 0 : first.includes(vid);
  };
  return [trees.filter(isFirst), trees.filter((tree) => !isFirst(tree))];
}

/** Makes `a` root and `b` standby of the first trees, and the other way round for the rest. */
export function pairOfRoots(
  design: Design,
  trees: readonly [readonly TreeId[], readonly TreeId[]],
  [a, b]: readonly [SwitchId, SwitchId],
): Result<Pair, DesignProblem> {
  let now = design;
  const placings: Placing[] = [];
  const commands: Command[] = [];
  // The standby is placed behind the root: one after the other.
  for (const as of ['root', 'standby'] as const) {
    const network = compileNetwork(now);
    const [first, second] = as === 'root' ? [a, b] : [b, a];
    const placed = [...placeAll(network, trees[0], [first], as), ...placeAll(network, trees[1], [second], as)];
    const own = placed.flatMap((placing) => (placing.done ? placing.commands : []));
    const edited = editAll(now, own);
    if (!edited.ok) return edited;
    now = edited.value.design;
    placings.push(...placed);
    commands.push(...own);
  }
  return ok({ commands, placings });
}
