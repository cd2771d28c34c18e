/** Where a VLAN's frames pass once a network has settled. */
import { oncePer, oncePerNumber } from '../base/cache';
import { isOpen, isPerVlan, runsTrees } from '../model/document';
import { vlanTree, type TreeId } from '../model/ids';
import type { Network } from '../topology/network';
import { forwards, type SettledTree, type Solution } from './settled';
import { portVlanTrees, vlanTrees } from '../topology/vlanTree';

const idsOf = ({ trees }: Solution): TreeId[] => trees.map(({ id }) => id);
const atSwitches = oncePer((solution: Solution) => vlanTrees(solution.network, idsOf(solution)));
const atPorts = oncePer((solution: Solution) => portVlanTrees(solution.network, idsOf(solution)));

/** The tree that decides where a VLAN's frames go at most of the switches; null where no switch runs spanning tree. */
export function treeForVlan(solution: Solution, vid: number): SettledTree | null {
  const { network, trees } = solution;
  const treeAt = atSwitches(solution);
  const votes = trees.map(() => 0);
  network.switches.forEach((sw, s) => {
    const tree = treeAt(s, vid);
    if (sw.up && runsTrees(sw) && tree >= 0) votes[tree]! += 1;
  });
  const most = Math.max(0, ...votes);
  return most === 0 ? null : trees[votes.indexOf(most)]!;
}

/** 1 for each port through which frames of a VLAN pass once the network has settled. Not to be written to. */
export const passing = (solution: Solution, vid: number): Uint8Array => passes(solution)(vid);

const passes = oncePer((solution: Solution) => {
  const { switches, ports, owner, live, carried } = solution.network;
  const treeAt = atPorts(solution);
  const open = Uint8Array.from(ports, (port, p) => (isOpen(switches[owner[p]!]!, port) ? 1 : 0));
  // Where each VLAN has a tree to itself, what passes follows from that and from the wiring.
  const own = switches.every((sw) => isPerVlan(sw) || !runsTrees(sw)) ? byId(solution) : null;
  return oncePerNumber((vid) => {
    const kept = own?.get(vlanTree(vid));
    const slot = kept && slotOf(kept);
    if (slot?.live === live && slot.carried === carried) return slot.found;
    const found = new Uint8Array(ports.length);
    for (let p = 0; p < found.length; p += 1) {
      if (!live[p] || !carried[p]!.has(vid)) continue;
      const tree = open[p] ? undefined : solution.trees[treeAt(p, vid)];
      found[p] = open[p] || (tree && forwards(tree, p)) ? 1 : 0;
    }
    if (slot) Object.assign(slot, { live, carried, found });
    return found;
  });
});

interface Kept {
  live: Network['live'] | null;
  carried: Network['carried'];
  found: Uint8Array;
}
/** By tree: what passes in its VLAN, in the wiring of the network that it was asked for last. */
const slotOf = oncePer((_: SettledTree): Kept => ({ live: null, carried: [], found: new Uint8Array() }));
const byId = ({ trees }: Solution): ReadonlyMap<TreeId, SettledTree> => new Map(trees.map((tree) => [tree.id, tree]));
