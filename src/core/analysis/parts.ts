/** Which switches hang together over some of the cables. */
import type { Network } from '../topology/network';
import { forwards, type SettledTree } from '../tree/settled';

/** The connected part of each switch, as the index of one switch in it, over live cables whose ends are both open. */
export function partsOf({ switches, ports, owner, far, live }: Network, open: (p: number) => boolean): Int32Array {
  const lead = Int32Array.from(switches.keys());
  const find = (s: number): number => {
    while (lead[s] !== s) s = lead[s] = lead[lead[s]!]!;
    return s;
  };
  for (let p = 0; p < ports.length; p += 1) {
    if (far[p]! >= 0 && live[p] && open(p) && open(far[p]!)) lead[find(owner[p]!)] = find(owner[far[p]!]!);
  }
  return lead.map((_, s) => find(s));
}

/** The same over the cables that carry a tree's frames. */
export const partsIn = (network: Network, tree: SettledTree): Int32Array => partsOf(network, (p) => forwards(tree, p));
