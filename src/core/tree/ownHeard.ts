/** Ports that the own BPDU check holds once all has settled. */
import type { Network } from '../topology/network';
import { ownCheckedPorts } from '../topology/ownCheck';
import { CODE, OWN_HEARD, type SettledTree } from './settled';

/** Marks in all trees the ports that are backup port in any of the first `run`, which a network has: what comes in there is of the bridge's own designated port. */
export function markOwnHeard(network: Network, trees: readonly SettledTree[], run: number): void {
  const those = trees.slice(0, run);
  const checked = ownCheckedPorts(network);
  checked?.forEach((checks, p) => {
    if (!checks || !those.some(({ role }) => role[p] === CODE.backup)) return;
    for (const { role, disputed } of trees)
      if (role[p] !== CODE.absent && role[p] !== CODE.disabled && disputed[p] === 0) disputed[p] = OWN_HEARD;
  });
}
