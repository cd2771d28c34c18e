/** Findings about roots: accidents of MAC, roots on access switches. Trees that are alike are told together. */
import { treesName, type TreeId } from '../design/ids';
import { explainRoot, islandRoots } from '../tree/election';
import { switchName } from '../tree/phrases';
import type { Network } from '../tree/network';
import type { SettledTree, Solution } from '../tree/settled';
import type { Finding } from './finding';

/** What is wrong with the root of each tree's largest island, and which switches are too far from theirs. */
export function rootFindings({ network, trees }: Solution): Finding[] {
  const byMac = new Map<number, TreeId[]>();
  const onAccess = new Map<number, TreeId[]>();
  const far = new Map<number, TreeId[]>();
  for (const tree of trees) {
    const add = (to: Map<number, TreeId[]>, s: number) => to.set(s, [...(to.get(s) ?? []), tree.id]);
    hopsFromRoot(network, tree).forEach((hops, s) => {
      const root = tree.root[s]!;
      if (root >= 0 && hops > network.switches[root]!.timers.maxAge) add(far, s);
    });
    const [root] = islandRoots(network, tree);
    if (root === undefined) continue;
    if (explainRoot(network, tree, root)?.decidedBy === 'mac') add(byMac, root);
    if (network.switches[root]!.tier === 'access' && network.switches.some((sw) => sw.tier !== 'access')) add(onAccess, root);
  }
  const told = (rule: string, groups: Map<number, TreeId[]>, text: (name: string, where: string) => string, why: string): Finding[] =>
    [...groups].map(([s, ids]) => {
      const sw = network.switches[s]!;
      return { rule, text: text(switchName(sw), treesName(ids)), why, at: { switch: sw.id, trees: ids }, remedies: [] };
    });
  return [
    ...told('root-by-mac', byMac, (name, where) => `${name} is root of ${where} only by its MAC address`, 'Nobody chose it, and a new switch with a lower MAC would take over.'),
    ...told('root-on-access', onAccess, (name, where) => `${name}, an access switch, is root of ${where}`, 'Traffic between the strong switches is drawn through it.'),
    ...told('beyond-max-age', far, (name, where) => `${name} is more hops from the root of ${where} than the root's max age in seconds`, 'BPDUs grow too old on the way: it would not hear the root.'),
  ];
}

/** How many hops each switch is from its root; 0 at roots and outside the tree. Message age grows by 1 a hop (802.1Q-2018 13.29). */
function hopsFromRoot(network: Network, tree: SettledTree): Int32Array {
  const hops = new Int32Array(network.switches.length);
  const near = network.switches.map((_, s) => s).sort((a, b) => tree.rootPathCost[a]! - tree.rootPathCost[b]!);
  for (const s of near) {
    const p = tree.rootPort[s]!;
    if (p >= 0) hops[s] = hops[network.owner[tree.designated[p]!]!]! + 1;
  }
  return hops;
}
