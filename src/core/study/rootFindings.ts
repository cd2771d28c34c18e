/** Findings about roots: accidents of MAC, roots on access switches. Trees that are alike are told together. */
import { treeName, treeVlan, type TreeId } from '../design/ids';
import { VlanSet } from '../design/vlanSet';
import { explainRoot, islandRoots } from '../tree/election';
import { switchName } from '../tree/phrases';
import type { Solution } from '../tree/settled';
import type { Finding } from './finding';

/** What is wrong with the root of each tree's largest island. */
export function rootFindings({ network, trees }: Solution): Finding[] {
  const byMac = new Map<number, TreeId[]>();
  const onAccess = new Map<number, TreeId[]>();
  for (const tree of trees) {
    const [root] = islandRoots(network, tree);
    if (root === undefined) continue;
    const add = (to: Map<number, TreeId[]>) => to.set(root, [...(to.get(root) ?? []), tree.id]);
    if (explainRoot(network, tree, root)?.decidedBy === 'mac') add(byMac);
    if (network.switches[root]!.tier === 'access' && network.switches.some((sw) => sw.tier !== 'access')) add(onAccess);
  }
  const told = (rule: string, groups: Map<number, TreeId[]>, text: (name: string, where: string) => string): Finding[] =>
    [...groups].map(([root, ids]) => {
      const sw = network.switches[root]!;
      return { rule, text: text(switchName(sw), treesText(ids)), at: { switch: sw.id, trees: ids } };
    });
  return [
    ...told('root-by-mac', byMac, (name, where) => `${name} is root of ${where} only by its MAC address: nobody chose it, and a new switch with a lower MAC would take over.`),
    ...told('root-on-access', onAccess, (name, where) => `${name}, an access switch, is root of ${where}: traffic between the strong switches is drawn through it.`),
  ];
}

/** `VLANs 15,25-29`, `the common tree`. */
function treesText(ids: readonly TreeId[]): string {
  const vids = ids.map(treeVlan).filter((vid) => vid !== null);
  if (ids.length === 1 || vids.length < ids.length) return ids.map(treeName).join(', ');
  return `VLANs ${VlanSet.of(vids.map((vid) => [vid, vid])).format()}`;
}
