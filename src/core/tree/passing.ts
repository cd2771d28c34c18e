/** Where a VLAN's frames pass once a network has settled. */
import { CIST, CST, vlanTree } from '../design/ids';
import { isPerVlan } from './bridgeId';
import { CODE, treeOf, type SettledTree, type Solution } from './settled';

/** The trees that decide where a VLAN's frames go: at switches that run one for each VLAN, and at those with one for all. */
export const treesFor = (solution: Solution, vid: number): { readonly own: SettledTree | undefined; readonly common: SettledTree | undefined } => ({
  own: treeOf(solution, vlanTree(vid)),
  common: treeOf(solution, CST) ?? treeOf(solution, CIST) ?? treeOf(solution, vlanTree(1)),
});

/** 1 for each port through which frames of a VLAN pass once the network has settled. */
export function passing(solution: Solution, vid: number): Uint8Array {
  const { ports, switches, owner, live, carried } = solution.network;
  const { own, common } = treesFor(solution, vid);
  return Uint8Array.from(ports, (_, p) => {
    const { dialect } = switches[owner[p]!]!;
    if (!live[p] || !carried[p]!.has(vid)) return 0;
    const role = dialect === 'off' ? CODE.designated : (isPerVlan(dialect) ? own : common)?.role[p];
    return role === CODE.root || role === CODE.designated || role === CODE.master ? 1 : 0;
  });
}
