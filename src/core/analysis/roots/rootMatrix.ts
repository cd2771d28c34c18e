/** Who is root of which tree, who would be next and after that, with the priority that each switch has there; alike trees together. */
import type { SwitchId, TreeId } from '../../model/ids';
import { isSetFor, setBridgePriority } from '../../topology/bridgeId';
import { islandRoots } from '../../tree/explain/election';
import type { SettledTree, Solution } from '../../tree/settled';

/** A switch in a group of alike trees. */
export interface RootCell {
  /** The settable part of the bridge priority. */
  readonly priority: number;
  /** Whether it is set for these trees, not taken from what holds in all. */
  readonly own: boolean;
  /** Place in the election of the largest island: 1 the root, 2 its standby; 0 for a bridge outside of it. */
  readonly place: number;
}

/** Trees in which every switch has the same priority and the same place. */
export interface TreeGroup {
  readonly trees: readonly TreeId[];
  /** By switch index; null where the switch takes no part. */
  readonly cells: readonly (RootCell | null)[];
}

export interface RootMatrix {
  readonly switches: readonly SwitchId[];
  readonly groups: readonly TreeGroup[];
}

/** Groups the trees of a solution, in the order of the first tree of each. */
export function rootMatrix({ network, trees }: Solution): RootMatrix {
  const groups = new Map<string, { trees: TreeId[]; cells: (RootCell | null)[] }>();
  for (const tree of trees) {
    const places = placesIn(network.switches.length, tree, islandRoots(network, tree)[0] ?? -1);
    const cells = network.switches.map((sw, s): RootCell | null =>
      tree.root[s]! < 0
        ? null
        : { priority: setBridgePriority(sw, tree.id), own: isSetFor(sw.trees, tree.id, sw.dialect), place: places[s]! },
    );
    const key = cells.map((cell) => (cell ? `${cell.priority}${cell.own ? '!' : '.'}${cell.place}` : '-')).join(' ');
    const group = groups.get(key);
    if (group) group.trees.push(tree.id);
    else groups.set(key, { trees: [tree.id], cells });
  }
  return { switches: network.switches.map((sw) => sw.id), groups: [...groups.values()] };
}

/** Each switch's place in the election of one island, 1 the best; 0 outside of it. */
function placesIn(count: number, tree: SettledTree, root: number): Int32Array {
  const places = new Int32Array(count);
  const island = Array.from({ length: count }, (_, s) => s).filter((s) => root >= 0 && tree.root[s] === root);
  island.sort((a, b) => tree.rank[a]! - tree.rank[b]!).forEach((s, i) => (places[s] = i + 1));
  return places;
}
