/** Ports out of a region that the root check holds once all has settled. */
import { CIST, treeVlan, type TreeId } from '../model/ids';
import { bridgeId } from '../topology/bridgeId';
import type { Network } from '../topology/network';
import { rootCheckedPorts, rootsAgree } from '../topology/rootCheck';
import { treesOf } from '../topology/trees';
import { ROOTS_DIFFER, roleOf, type SettledTree } from './settled';

/**
 * Marks them in the CIST, which instances follow. Who begins takes himself for the root of every VLAN, so all are held at first; what
 * is held keeps VLANs' BPDUs out, and with them the roots that others would come to, so each is asked again under what is held by
 * then, until nothing changes. `solve` gives VLANs' trees while those are held that are marked.
 */
export function markRootsHeld(
  network: Network,
  cist: SettledTree,
  solve: (trees: readonly TreeId[]) => SettledTree[],
): void {
  const { switches, far, owner, live, carried } = network;
  const checked = [...rootCheckedPorts(network)].filter((p) => live[p] === 1 && cist.disputed[p] === 0);
  const vlans = treesOf(network.design).filter((tree) => (treeVlan(tree) ?? 1) > 1);
  const differs = (p: number, trees: readonly SettledTree[]): boolean => {
    const [q, role] = [far[p]!, roleOf(cist, p)];
    if (role === null) return false;
    const own = bridgeId(switches[cist.root[owner[p]!]!]!, CIST);
    return trees.some((tree) => {
      const root = tree.root[owner[q]!]!;
      if (tree.designated[q] !== q || root < 0 || !carried[q]!.has(treeVlan(tree.id)!)) return false;
      return !rootsAgree(role, own, bridgeId(switches[root]!, tree.id));
    });
  };
  for (const p of checked) if (roleOf(cist, p) !== 'root') cist.disputed[p] = ROOTS_DIFFER;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const trees = solve(vlans);
    const now = checked.map((p) => (differs(p, trees) ? ROOTS_DIFFER : 0));
    if (checked.every((p, i) => cist.disputed[p] === now[i])) return;
    checked.forEach((p, i) => (cist.disputed[p] = now[i]!));
  }
}
/** What has not come to rest by then goes to and fro. */
const MOST_ROUNDS = 20;
