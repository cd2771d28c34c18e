/**
 * VLANs to come: a switch that keeps a priority for each VLAN (per-VLAN spanning tree) takes part in a VLAN that is added
 * later with the priority that it has for all trees.
 */
import type { Command } from '../../edit/commands';
import { treeVlan, type SwitchId, type TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { setBridgePriority, settingKey } from '../../topology/bridgeId';
import { explainRoot, islandRoots } from '../../tree/explain/election';
import { switchName } from '../../tree/explain/phrases';
import type { Solution } from '../../tree/settled';
import type { Finding } from '../findings/finding';
import { laterTree } from '../steering/laterVlan';
import { byChance } from './chance';

/** Makes the priorities that switches have in a tree those for all trees; every tree of `trees` stays as it is. */
export function forVlansToCome(
  design: Design,
  trees: readonly TreeId[],
  switches: readonly SwitchId[],
  like: TreeId,
): Command[] {
  return switches.flatMap((id): Command[] => {
    const sw = design.switches.find((each) => each.id === id);
    const priority = sw?.trees[like]?.priority;
    if (!sw || priority === undefined || priority === sw.priority) return [];
    // An instance, or a standard bridge's one tree, says nothing of a VLAN.
    const ofVlan = (tree: TreeId): boolean => treeVlan(settingKey(tree, sw.dialect)) !== null;
    if (!ofVlan(like)) return [];
    const keeps = trees.filter((tree) => ofVlan(tree) && !sw.trees[tree]);
    return [
      ...keeps.map((tree): Command => ({ do: 'set-bridge-priority', switch: id, tree, priority: sw.priority })),
      { do: 'set-bridge-priority', switch: id, tree: null, priority },
    ];
  });
}

/** Where priority chose the roots of the VLANs there are, and chance will choose that of the next one. */
export function laterVlanFindings(solution: Solution): Finding[] {
  const later = laterTree(solution);
  if (!later) return [];
  const { network, trees } = solution;
  const [root] = islandRoots(network, later);
  if (root === undefined) return [];
  const election = explainRoot(network, later, root);
  if (!byChance(election).root) return [];
  // The root that most trees have by priority, and who is next to it there.
  const chosen = new Map<number, TreeId[]>();
  for (const tree of trees) {
    const [own] = islandRoots(network, tree);
    if (treeVlan(tree.id) === null || own === undefined || byChance(explainRoot(network, tree, own)).root) continue;
    chosen.set(own, [...(chosen.get(own) ?? []), tree.id]);
  }
  const [most] = [...chosen].sort(([, a], [, b]) => b.length - a.length);
  if (!most) return [];
  const [s, [like]] = most;
  const tree = trees.find((each) => each.id === like)!;
  const [, next] = explainRoot(network, tree, s)!.ranking;
  const placed = [s, ...(next ? [next.switchIndex] : [])].map((each) => network.switches[each]!.id);
  // It helps where that root would take part with a better priority than the one that chance chose.
  const helps =
    election!.ranking.some((each) => each.switchIndex === s) &&
    setBridgePriority(network.switches[s]!, tree.id) < setBridgePriority(network.switches[root]!, later.id);
  const ids = trees.map((each) => each.id);
  const commands = helps ? forVlansToCome(network.design, ids, placed, tree.id) : [];
  const sw = network.switches[root]!;
  return [
    {
      rule: 'later-vlan-by-mac',
      text: `A VLAN added later has ${switchName(sw)} as its root, only by its MAC address`,
      why: 'Priorities are set for the VLANs there are; a new one goes by the priority for all trees.',
      at: { switch: sw.id },
      remedies:
        commands.length > 0 ? [{ label: `${switchName(network.switches[s]!)} for VLANs to come too`, commands }] : [],
    },
  ];
}
