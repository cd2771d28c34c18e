/** Where a VLAN's frames pass once a network has settled. */
import { isOpen, runsTrees } from '../model/document';
import { forwards, type SettledTree, type Solution } from './settled';
import { portVlanTrees, vlanTrees } from '../topology/vlanTree';

/** The tree that decides where a VLAN's frames go at most of the switches; null where no switch runs spanning tree. */
export function treeForVlan({ network, trees }: Solution, vid: number): SettledTree | null {
  const treeAt = vlanTrees(
    network,
    trees.map((tree) => tree.id),
  );
  const votes = trees.map(() => 0);
  network.switches.forEach((sw, s) => {
    const tree = treeAt(s, vid);
    if (sw.up && runsTrees(sw) && tree >= 0) votes[tree]! += 1;
  });
  const most = Math.max(0, ...votes);
  return most === 0 ? null : trees[votes.indexOf(most)]!;
}

/** 1 for each port through which frames of a VLAN pass once the network has settled. */
export function passing({ network, trees }: Solution, vid: number): Uint8Array {
  const { ports, switches, owner, live, carried } = network;
  const treeAt = portVlanTrees(
    network,
    trees.map((tree) => tree.id),
  );
  return Uint8Array.from(ports, (_, p) => {
    if (!live[p] || !carried[p]!.has(vid)) return 0;
    if (isOpen(switches[owner[p]!]!, ports[p]!)) return 1;
    const tree = trees[treeAt(p, vid)];
    return tree && forwards(tree, p) ? 1 : 0;
  });
}
