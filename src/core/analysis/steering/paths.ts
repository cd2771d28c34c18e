/** A switch's candidate ways to the root of a tree, costs added up hop by hop; in the CIST those outside of regions and those inside apart. */
import { CIST, type BridgePortId, type SwitchId } from '../../model/ids';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../../tree/settled';
import { compareVectors, offerOf } from '../../tree/explain/vector';
import { wayToRoot } from '../../tree/wayToRoot';

/** One hop: the port through which the way leaves a switch, and what that port costs. */
export interface PathHop {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly cost: number;
  /** Whether the cost counts inside of a region alone. */
  readonly inside: boolean;
}

export interface CandidatePath {
  /** The first hop is the switch itself. */
  readonly hops: readonly PathHop[];
  /** The neighbour that it leads to, and the root at its end. */
  readonly via: SwitchId;
  readonly root: SwitchId;
  /** In a CIST with regions the external one. */
  readonly total: number;
  /** In a CIST with regions: what leads to the regional root inside of this switch's own region. */
  readonly internal: number | null;
  /** How much more it costs than the way that is taken; 0 for that one, and for ties. */
  readonly over: number;
  readonly chosen: boolean;
  /** False where this switch speaks for the segment: its neighbour stays silent, but would be a way. */
  readonly heard: boolean;
}

/** Every way of switch index `s` that does not come back through it, the one taken first, then by cost; none at a root or outside the tree. */
export function candidatePaths(network: Network, tree: SettledTree, s: number): CandidatePath[] {
  const { firstPort, owner, switches, ports } = network;
  const own = tree.rootPort[s]!;
  if (tree.root[s]! < 0 || own < 0) return [];
  const cist = tree.id === CIST ? tree.regional : undefined;
  const isInside = (p: number): boolean => cist?.inside[p] === 1;
  const hop = (p: number): PathHop => ({
    switch: switches[owner[p]!]!.id,
    port: ports[p]!.id,
    cost: tree.cost[p]!,
    inside: isInside(p),
  });
  /** The root ports from a switch to its root; null where the way passes `s`. */
  const wayFrom = (from: number): number[] | null => {
    const way = wayToRoot(network, tree, from);
    return way.some((p) => owner[p] === s) ? null : way;
  };
  const found: {
    readonly path: CandidatePath;
    readonly sender: number;
    readonly receiver: number;
    readonly regional: number;
  }[] = [];
  for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
    const transmitPort = tree.designated[p]!;
    if (transmitPort < 0 || leadsOut(tree, p)) continue;
    const heard = owner[transmitPort] !== s;
    for (const sender of heard ? [transmitPort] : transmitPort === p ? listenersOn(tree, p) : []) {
      const from = owner[sender]!;
      const way = from === s ? null : wayFrom(from);
      if (!way) continue;
      const total = tree.rootPathCost[from]! + (isInside(p) ? 0 : tree.cost[p]!);
      const internal = !cist ? null : isInside(p) ? cist.cost[from]! + tree.cost[p]! : 0;
      const path = {
        hops: [hop(p), ...way.map(hop)],
        via: switches[from]!.id,
        root: switches[tree.root[from]!]!.id,
        total,
        internal,
        over: total - tree.rootPathCost[s]!,
        chosen: p === own && heard,
        heard,
      };
      found.push({ path, sender, receiver: p, regional: cist ? tree.rank[isInside(p) ? cist.root[from]! : s]! : 0 });
    }
  }
  const order = (a: (typeof found)[0], b: (typeof found)[0]): number =>
    Number(b.path.chosen) - Number(a.path.chosen) ||
    a.path.total - b.path.total ||
    a.regional - b.regional ||
    (a.path.internal ?? 0) - (b.path.internal ?? 0) ||
    compareVectors(offerOf(network, tree, a.sender), offerOf(network, tree, b.sender)) ||
    network.order[a.receiver]! - network.order[b.receiver]!;
  return found.sort(order).map(({ path }) => path);
}

/** Whether a port of an instance leads out of its region: there it does what the CIST does, and is no way to the regional root (802.1Q-2018 13.12). */
export const leadsOut = (tree: SettledTree, p: number): boolean =>
  tree.regional !== undefined && tree.id !== CIST && tree.regional.inside[p] === 0;

/** The ports on a segment that listen to its designated port. */
function listenersOn(tree: SettledTree, designated: number): number[] {
  const found: number[] = [];
  tree.designated.forEach((transmitPort, q) => transmitPort === designated && q !== designated && found.push(q));
  return found;
}
