/** Which trees are drawn, and trees as they arrive from the solver. */
import type { TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import type { SettledTree, Solution } from '../../core/tree/settled';

/** Trees as the design lists them, whatever the order in which they were picked. */
export function inOrder(shown: readonly TreeId[], solution: Solution | null): TreeId[] {
  const place = new Map(solution?.trees.map((tree, i) => [tree.id, i]));
  return [...shown].sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0));
}

/** `before` with the trees that are newer. */
export function merged(before: readonly SettledTree[], newer: readonly SettledTree[]): readonly SettledTree[] {
  const byId = new Map(newer.map((tree) => [tree.id, tree]));
  return before.map((tree) => byId.get(tree.id) ?? tree);
}

/** The chosen trees that there still are, the first that people named where none is; the list that is shown already, where it says so. */
export function stillShown(
  chosen: readonly TreeId[],
  design: Design,
  ids: readonly TreeId[],
  shown: readonly TreeId[] = chosen,
): readonly TreeId[] {
  const kept = chosen.filter((id) => ids.includes(id));
  const next = kept.length === 0 ? firstShown(design, ids) : kept;
  return [shown, chosen].find((list) => list.length === next.length && list.every((id, i) => id === next[i])) ?? next;
}

/** The first tree that people named: VLAN 1 is rarely what they come for. */
function firstShown(design: Design, ids: readonly TreeId[]): TreeId[] {
  const named = design.vlans[0] && ids.find((id) => id === `vlan:${design.vlans[0]!.id}`);
  const first = named ?? ids[0];
  return first ? [first] : [];
}
