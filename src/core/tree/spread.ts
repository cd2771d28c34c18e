/** What the trees of bridges are at the switches of pairs that act as one: each switch has its part of the one bridge's answer. */
import { isOne } from '../topology/acting';
import type { PairedBridges } from '../topology/shape';
import type { Network } from '../topology/network';
import { CODE, type SettledTree, type Solution } from './settled';

type Shown = Pick<Network, 'home' | 'live' | 'switches'>;

/** By which port each switch of a pair reaches the root: its own where the bridge's root port is one of its own, or a bundle of both; else the peer link; -1 at the root itself. */
export function rootPortsOf(
  { home, live, switches }: Shown,
  { first, bundles, peer }: PairedBridges,
  rootPort: number,
): readonly [number, number] {
  const halves = bundles.find(([a]) => a === rootPort);
  const reached = (i: 0 | 1): number => {
    if (!switches[first + i]!.up) return -1;
    if (halves && live[halves[i]]) return halves[i];
    if (rootPort < 0 ? i === 0 || !switches[first]!.up : !halves && home[rootPort] === first + i) return rootPort;
    return live[peer[i]] ? peer[i] : -1;
  };
  return [reached(0), reached(1)];
}

/** The root port of a switch whose bridge has this one. */
export function rootPortAt(network: Network, s: number, rootPort: number): number {
  const pair = network.pairs.find((each) => isOne(each) && (each.first === s || each.first + 1 === s));
  return pair ? rootPortsOf(network, pair, rootPort)[s === pair.first ? 0 : 1] : rootPort;
}

/** Who a bridge is called by: the one of a pair that has power. */
export const calledBy = ({ pairs, switches }: Pick<Network, 'pairs' | 'switches'>, s: number): number =>
  !switches[s]!.up && pairs.some((pair) => isOne(pair) && pair.first === s) ? s + 1 : s;

/** The cost of a port: none of a peer link, and a half's is that of its bundle. */
export function costOfPair({ pairs }: Pick<Network, 'pairs'>, p: number, costOf: (p: number) => number): number {
  const pair = pairs.find(
    (each) => isOne(each) && (each.peer.includes(p) || each.bundles.some(([, half]) => half === p)),
  );
  if (!pair) return costOf(p);
  return pair.peer.includes(p) ? 0 : costOf(pair.bundles.find(([, half]) => half === p)![0]);
}

/** What a port of the peer link is: it leads to the root from where no other port does; it never blocks. */
export const peerRole = (p: number, rootPorts: readonly number[]): 'root' | 'designated' =>
  rootPorts.includes(p) ? 'root' : 'designated';

/** By tree of switches, that of bridges which it was. */
const before = new WeakMap<SettledTree, SettledTree>();

/** A solution as its bridges have it, from one as its switches show it; itself where no pair acts as one. */
export function bridgesSolution({ network, trees }: Solution): Solution {
  return network.acting
    ? { network: network.acting, trees: trees.map((tree) => before.get(tree) ?? tree) }
    : { network, trees };
}

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
  before.set(of, tree);
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
  rootPortsOf(network, pair, tree.rootPort[s]!).forEach((p, i) => {
    of.rootPort[s + i] = p;
    if (!switches[s + i]!.up) of.root[s + i] = -1;
  });
  const caller = calledBy(network, s);
  if (caller !== s) for (const list of [of.root, ...(of.regional ? [of.regional.root] : [])]) renamed(list, s, caller);
  for (const [i, p] of peer.entries()) {
    const joined = live[p] === 1 && far[p]! >= 0;
    const role = joined ? peerRole(p, [of.rootPort[s]!, of.rootPort[s + 1]!]) : null;
    of.role[p] = tree.role[p] === CODE.absent ? CODE.absent : role ? CODE[role] : CODE.disabled;
    of.cost[p] = 0;
    of.designated[p] = role === 'root' ? peer[1 - i]! : p;
  }
}

function renamed(list: Int32Array, from: number, to: number): void {
  list.forEach((s, i) => s === from && (list[i] = to));
}
