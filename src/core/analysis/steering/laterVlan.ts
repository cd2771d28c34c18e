/** Where a VLAN goes that is added later: with no settings of its own, it goes with the default. */
import { treeVlan, vlanTree, type SwitchId, type TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { vlanSet } from '../../model/vlanSet';
import { islandRoots } from '../../tree/explain/election';
import type { SettledTree, Solution } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';

export interface LaterVlan {
  /** Its root, by what holds in all trees: it has no settings of its own. */
  readonly root: SwitchId;
  /** How many links between switches would carry it as they are set now, of how many. */
  readonly links: readonly [number, number];
}

/** The way of a VLAN that nothing is set for; null where one tree carries all, or every number is taken. */
export function laterVlan({ network, trees }: Solution): LaterVlan | null {
  const tree = laterTree({ network, trees });
  const [root] = tree ? islandRoots(network, tree) : [];
  if (!tree || root === undefined) return null;
  const vid = treeVlan(tree.id)!;
  const carried = network.design.links.filter(({ a, b }) =>
    [a, b].every((end) => network.carried[network.portIndexOf(end.switch, end.port)]?.has(vid)),
  );
  return { root: network.switches[root]!.id, links: [carried.length, network.design.links.length] };
}

/** The tree of a VLAN that nothing is set for, were it carried everywhere; null where there is none. */
export function laterTree({ network, trees }: Solution): SettledTree | null {
  const vid = trees.some((tree) => treeVlan(tree.id) !== null) ? freeVlan(network.design) : null;
  if (vid === null) return null;
  const open = network.carried.map(() => vlanSet('1-4094'));
  return solveTrees({ ...network, carried: open }, [vlanTree(vid)])[0] ?? null;
}

/** The lowest number that neither the list of VLANs nor any setting uses. */
function freeVlan({ vlans, switches }: Design): number | null {
  const taken = new Set([1, ...vlans.map((vlan) => vlan.id)]);
  for (const sw of switches)
    for (const trees of [sw.trees, ...sw.ports.map((port) => port.trees)])
      for (const id of Object.keys(trees)) taken.add(treeVlan(id as TreeId) ?? 1);
  for (let vid = 2; vid <= 4094; vid += 1) if (!taken.has(vid)) return vid;
  return null;
}
