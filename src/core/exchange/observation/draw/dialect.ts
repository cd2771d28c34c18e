/** What a switch speaks, by the trees that it tells of. */
import type { Dialect } from '../../../model/document';
import type { ObservedSwitch } from '../observation';

/** `isTold`: whether it says so itself; else it is what is usual. */
export function dialectOf({ trees, mst }: ObservedSwitch): { readonly dialect: Dialect; readonly isTold: boolean } {
  const common = trees.find(({ tree }) => tree === 'cst');
  if (common) {
    const dialect = mst ? 'mstp' : (common.speaks ?? 'rstp');
    return { dialect, isTold: mst !== null || common.speaks !== null };
  }
  const [first] = trees;
  if (!first) return { dialect: 'off', isTold: false };
  return { dialect: first.speaks === 'stp' ? 'per-vlan-stp' : 'per-vlan-rstp', isTold: first.speaks !== null };
}
