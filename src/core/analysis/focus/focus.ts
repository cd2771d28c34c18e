/** Parts of a network to look at by themselves: what lies around switches, their ways to the root, what blocks, what moved. */
import type { SwitchId, TreeId } from '../../model/ids';
import { bridgePortOf } from '../../topology/network';
import { blocks, treeOf, type Solution } from '../../tree/settled';
import { wayToRoot } from '../../tree/wayToRoot';
import type { Cabled } from '../structure/blocks';

export type Focus =
  /** Switches, and what is at most so many links away from one of them. */
  | { readonly kind: 'around'; readonly switches: readonly SwitchId[]; readonly hops: number }
  /** The ways of switches to their roots in the trees shown. */
  | { readonly kind: 'ways'; readonly switches: readonly SwitchId[] }
  /** Both ends of every link on which a tree shown blocks. */
  | { readonly kind: 'blocks' }
  /** Switches that the last change moved an end of. */
  | { readonly kind: 'moved'; readonly switches: readonly SwitchId[] };

/** The switches in focus, in the design's order; trees without a solution have none. */
export function focused(design: Cabled, focus: Focus, solution: Solution | null, trees: readonly TreeId[]): SwitchId[] {
  const found = new Set(inFocus(design, focus, solution, trees));
  return design.switches.map((sw) => sw.id).filter((id) => found.has(id));
}

function inFocus(
  design: Cabled,
  focus: Focus,
  solution: Solution | null,
  trees: readonly TreeId[],
): Iterable<SwitchId> {
  switch (focus.kind) {
    case 'around':
      return around(design, focus.switches, focus.hops);
    case 'moved':
      return focus.switches;
    case 'ways':
      return [...focus.switches, ...(solution ? waysOf(solution, focus.switches, trees) : [])];
    case 'blocks':
      return solution ? blocking(solution, trees) : [];
  }
}

function around({ links }: Cabled, from: readonly SwitchId[], hops: number): Set<SwitchId> {
  const near = new Map<SwitchId, SwitchId[]>();
  for (const { a, b } of links)
    for (const [one, other] of [
      [a.switch, b.switch],
      [b.switch, a.switch],
    ] as const) {
      const known = near.get(one);
      if (known) known.push(other);
      else near.set(one, [other]);
    }
  const found = new Set(from);
  let edge = [...found];
  for (let hop = 0; hop < hops; hop += 1) {
    edge = edge.flatMap((id) => near.get(id) ?? []).filter((id) => !found.has(id));
    for (const id of edge) found.add(id);
  }
  return found;
}

function waysOf({ network, trees }: Solution, from: readonly SwitchId[], shown: readonly TreeId[]): SwitchId[] {
  return from.flatMap((id) => {
    const s = network.switchIndex.get(id);
    if (s === undefined) return [];
    return shown.flatMap((treeId) => {
      const tree = treeOf({ network, trees }, treeId);
      return tree
        ? wayToRoot(network, tree, s).map((p) => network.switches[network.owner[tree.designated[p]!]!]!.id)
        : [];
    });
  });
}

function blocking(solution: Solution, shown: readonly TreeId[]): SwitchId[] {
  const { network } = solution;
  return shown.flatMap((treeId) => {
    const tree = treeOf(solution, treeId);
    if (!tree) return [];
    return network.design.links.flatMap(({ a, b }) => {
      // Of a bundle it is the bundle that blocks, not its members.
      const blocked = [a, b].some((end) => {
        const p = bridgePortOf(network, network.portIndexOf(end.switch, end.port));
        return p >= 0 && blocks(tree, p);
      });
      return blocked ? [a.switch, b.switch] : [];
    });
  });
}
