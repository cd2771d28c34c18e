/** What a folded group says of what is in it, and a sheaf of the links that cross its border: sums over its switches and links. */
import type { Link } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { bridgePortOf } from '../../topology/network';
import { blocks, forwards, type SettledTree, type Solution } from '../../tree/settled';
import { takesPart } from '../../tree/explain/election';

/** Of one tree, inside of a group. */
export interface Inside {
  /** The root, where it is in the group. */
  readonly root: SwitchId | null;
  /** Ends on its switches that block. */
  readonly blocked: number;
}

/** Counts one tree inside of a group. */
export function insideOf({ network }: Solution, tree: SettledTree, switches: Iterable<SwitchId>): Inside {
  let root: SwitchId | null = null;
  let blocked = 0;
  for (const id of switches) {
    const s = network.switchIndex.get(id);
    if (s === undefined) continue;
    if (tree.root[s] === s && takesPart(network, tree, s)) root = id;
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) if (blocks(tree, p)) blocked += 1;
  }
  return { root, blocked };
}

/** Of one tree, on the links of a sheaf. */
export interface Crossing {
  /** Links that carry the tree's frames, and links of which an end blocks. */
  readonly carry: number;
  readonly block: number;
}

/** Counts one tree on some links; links without signal, or on which the tree does not run, are neither. */
export function crossingOf({ network }: Solution, tree: SettledTree, links: Iterable<Link>): Crossing {
  let [carry, block] = [0, 0];
  for (const { a, b } of links) {
    const at = network.portIndexOf(a.switch, a.port);
    const [p, q] = [bridgePortOf(network, at), bridgePortOf(network, network.portIndexOf(b.switch, b.port))];
    if (!tree.role[p] || !tree.role[q] || !network.macOperational[at]) continue;
    if (forwards(tree, p) && forwards(tree, q)) carry += 1;
    else block += 1;
  }
  return { carry, block };
}
