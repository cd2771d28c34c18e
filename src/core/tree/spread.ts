/** What the trees of bridges are at the switches of pairs that act as one: each switch has its part of the one bridge's answer. */
import { isOne, type PairedBridges } from '../topology/acting';
import type { Network } from '../topology/network';
import { CODE, type SettledTree } from './settled';

/** By which port each switch of a pair reaches the root: its own where the bridge's root port is one of its own, or a bundle of both; else the peer link; -1 at the root itself. */
export function rootPortsOf(
  { home, live }: Pick<Network, 'home' | 'live'>,
  { first, bundles, peer }: PairedBridges,
  rootPort: number,
): readonly [number, number] {
  if (rootPort < 0) return [-1, peer[1]];
  const halves = bundles.find(([a]) => a === rootPort);
  if (halves) return [live[halves[0]] ? halves[0] : peer[0], live[halves[1]] ? halves[1] : peer[1]];
  return home[rootPort] === first ? [rootPort, peer[1]] : [peer[0], rootPort];
}

/** What a port of the peer link is: it leads to the root from where no other port does; it never blocks. */
export const peerRole = (p: number, rootPorts: readonly number[]): 'root' | 'designated' =>
  rootPorts.includes(p) ? 'root' : 'designated';

/** The tree of a network's bridges as that of its switches. */
export function spread(network: Network, tree: SettledTree): SettledTree {
  const ones = network.pairs.filter(isOne);
  if (ones.length === 0) return tree;
  const { regional } = tree;
  const of = {
    ...tree,
    root: tree.root.slice(),
    rootPathCost: tree.rootPathCost.slice(),
    rootPort: tree.rootPort.slice(),
    rank: tree.rank.slice(),
    role: tree.role.slice(),
    cost: tree.cost.slice(),
    designated: tree.designated.slice(),
    disputed: tree.disputed.slice(),
    ...(regional
      ? { regional: { root: regional.root.slice(), cost: regional.cost.slice(), inside: regional.inside.slice() } }
      : {}),
  };
  for (const pair of ones) atPair(network, pair, tree, of);
  return of;
}

function atPair(network: Network, pair: PairedBridges, tree: SettledTree, of: SettledTree): void {
  const { live, switches, far } = network;
  const { first: s, bundles, peer } = pair;
  for (const key of ['root', 'rootPathCost', 'rank'] as const) of[key][s + 1] = tree[key][s]!;
  if (of.regional) {
    of.regional.root[s + 1] = of.regional.root[s]!;
    of.regional.cost[s + 1] = of.regional.cost[s]!;
  }
  // A half is what its bundle is, where it has signal.
  for (const halves of bundles)
    for (const p of halves) {
      const [main] = halves;
      const own = live[p] === 1;
      of.role[p] = own || tree.role[main] === CODE.absent ? tree.role[main]! : CODE.disabled;
      of.designated[p] = !own ? -1 : tree.designated[main] === main ? p : tree.designated[main]!;
      of.cost[p] = tree.cost[main]!;
      of.disputed[p] = own ? tree.disputed[main]! : 0;
      if (of.regional) of.regional.inside[p] = tree.regional!.inside[main]!;
    }
  if (tree.root[s]! < 0) return;
  const reached = rootPortsOf(network, pair, tree.rootPort[s]!);
  reached.forEach((p, i) => {
    const sw = switches[s + i]!;
    of.rootPort[s + i] = sw.up && p >= 0 && live[p] ? p : -1;
    if (!sw.up) of.root[s + i] = -1;
  });
  // What is left of a pair is called by who has power.
  if (!switches[s]!.up) for (const list of [of.root, ...(of.regional ? [of.regional.root] : [])]) renamed(list, s);
  for (const [i, p] of peer.entries()) {
    const joined = live[p] === 1 && far[p]! >= 0;
    const role = joined ? peerRole(p, [of.rootPort[s]!, of.rootPort[s + 1]!]) : null;
    of.role[p] = tree.role[p] === CODE.absent ? CODE.absent : role ? CODE[role] : CODE.disabled;
    of.cost[p] = 0;
    of.designated[p] = role === 'root' ? peer[1 - i]! : p;
  }
}

function renamed(list: Int32Array, from: number): void {
  list.forEach((s, i) => s === from && (list[i] = from + 1));
}
