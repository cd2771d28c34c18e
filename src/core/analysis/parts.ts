/** Which switches hang together over some of the cables, and which cables close a loop. */
import type { Network } from '../topology/network';
import { forwards, type SettledTree } from '../tree/settled';

/** Which switches hang together; `join` gives false for two that do already. */
function islands(count: number) {
  const lead = Int32Array.from({ length: count }, (_, s) => s);
  const find = (s: number): number => {
    while (lead[s] !== s) s = lead[s] = lead[lead[s]!]!;
    return s;
  };
  const join = (s: number, t: number): boolean => {
    const [a, b] = [find(s), find(t)];
    lead[a] = b;
    return a !== b;
  };
  return { find, join };
}

/** The connected part of each switch, as the index of one switch in it, over live cables whose ends are both open. */
export function partsOf({ switches, ports, owner, far, live }: Network, open: (p: number) => boolean): Int32Array {
  const { find, join } = islands(switches.length);
  for (let p = 0; p < ports.length; p += 1)
    if (far[p]! >= 0 && live[p] && open(p) && open(far[p]!)) join(owner[p]!, owner[far[p]!]!);
  return Int32Array.from(switches, (_, s) => find(s));
}

/** A port of each live cable that closes a loop of cables whose ends are both open. */
export function closingPorts({ switches, ports, owner, far, live }: Network, open: (p: number) => boolean): number[] {
  const { join } = islands(switches.length);
  return Array.from(ports.keys()).filter(
    (p) => far[p]! > p && live[p] && open(p) && open(far[p]!) && !join(owner[p]!, owner[far[p]!]!),
  );
}

/** The parts over the cables that carry a tree's frames. */
export const partsIn = (network: Network, tree: SettledTree): Int32Array => partsOf(network, (p) => forwards(tree, p));
