/** How near a tree is to flipping: how far one port's path cost can move before some end takes another role. */
import { methodOf } from '../../model/costMethod';
import type { BridgePortId, SwitchId, TreeId } from '../../model/ids';
import { MAX_COST } from '../../model/legal';
import type { Design } from '../../model/document';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import { compileNetwork, type Network } from '../../topology/network';
import { CODE, roleOf, type Role, type SettledTree } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';
import { candidatePaths } from './paths';
import { solveWith } from './whatIf';

/** The first cost at which roles change, and what then changes. */
export interface Flip {
  readonly cost: number;
  /** What the port becomes. */
  readonly role: Role;
  /** Every end that has another role then. */
  readonly ends: readonly MovedEnd[];
}

export interface CostMargin {
  readonly cost: number;
  readonly role: Role;
  /** Null where no legal cost below, or above, moves anything. */
  readonly below: Flip | null;
  readonly above: Flip | null;
}

/** A margin with the port whose cost it is about. */
export interface RivalMargin extends CostMargin {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
}

/** How far a port's own cost can move, and its rival's, before something flips. */
export interface PortMargins {
  readonly own: CostMargin;
  /** Null where no other cost decides what the port is; its `role`s are still those of the port that was asked for. */
  readonly rival: RivalMargin | null;
}

/** The margin of a port's cost in a tree; null where the port is not in it. */
export const costMargin = (design: Design, tree: TreeId, sw: SwitchId, port: BridgePortId): CostMargin | null =>
  portMargins(design, tree, sw, port, false)?.own ?? null;

/** The margins of a port's cost and, unless it is left out, of its rival's; null where the port is not in the tree. */
export function portMargins(
  design: Design,
  id: TreeId,
  sw: SwitchId,
  port: BridgePortId,
  withRival = true,
): PortMargins | null {
  const network = compileNetwork(design);
  const [tree] = solveTrees(network, [id]);
  const p = network.portIndexOf(sw, port);
  if (!tree || p < 0 || roleOf(tree, p) === null) return null;
  const q = withRival ? rivalOf(network, tree, p) : -1;
  const rival =
    q < 0
      ? null
      : {
          switch: network.switches[network.owner[q]!]!.id,
          port: network.ports[q]!.id,
          ...marginOf(network, tree, q, p),
        };
  return { own: marginOf(network, tree, p, p), rival };
}

/**
 * Searches the legal costs of port `p` on both sides of the present one, solving at each. The costs at which a tree stays
 * as it is form one interval (every comparison is linear in a cost), so halving finds its ends. Roles are those of `seen`.
 */
function marginOf(network: Network, before: SettledTree, p: number, seen: number): CostMargin {
  const at = (cost: number): SettledTree => solveWith(network, before.id, [{ of: 'cost', port: p, value: cost }]);
  const flip = (end: number): Flip | null => {
    const cost = firstFlip(before.cost[p]!, end, (value) => at(value).role.every((code, q) => code === before.role[q]));
    if (cost === null) return null;
    const there = at(cost);
    return {
      cost,
      role: roleOf(there, seen)!,
      ends: movedEnds({ network, trees: [before] }, { network, trees: [there] }),
    };
  };
  return {
    cost: before.cost[p]!,
    role: roleOf(before, seen)!,
    below: flip(1),
    above: flip(MAX_COST[methodOf(network.design, network.switches[network.owner[p]!]!)]),
  };
}

/**
 * The port whose cost decides against, or for, another: of a root port the next best way of its switch; of a port that
 * blocks the root port of its switch; of a designated port the way to the root of whoever would speak instead. -1 without one.
 */
export function rivalOf(network: Network, tree: SettledTree, p: number): number {
  const s = network.owner[p]!;
  if (tree.role[p] === CODE.root) {
    const next = candidatePaths(network, tree, s).find((way) => !way.chosen);
    return next ? network.portIndexOf(next.hops[0]!.switch, next.hops[0]!.port) : -1;
  }
  if (tree.role[p] === CODE.alternate) return tree.rootPort[s]!;
  const listener =
    tree.role[p] === CODE.designated
      ? tree.designated.findIndex((transmitPort, q) => transmitPort === p && q !== p && network.owner[q] !== s)
      : -1;
  if (listener < 0) return -1;
  // Where the listener's root port is the one that listens here, its own cost does not decide who speaks.
  const way = tree.rootPort[network.owner[listener]!]!;
  return way === listener ? -1 : way;
}

/** The first value from `now` toward `end` at which something is another way, by halving; null where nothing is up to `end`. */
export function firstFlip(now: number, end: number, same: (value: number) => boolean): number | null {
  if (now === end || same(end)) return null;
  let [stays, flips] = [now, end];
  while (Math.abs(flips - stays) > 1) {
    const middle = Math.floor((stays + flips) / 2);
    if (same(middle)) stays = middle;
    else flips = middle;
  }
  return flips;
}

/** A cost that people would rather type, a little farther the same way: 25 000 for 22 001. */
export function rounded(value: number, end: number, most: number): number[] {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(value)) - 1) * 5;
  const round = end > value ? Math.ceil(value / unit) * unit : Math.floor(value / unit) * unit;
  return round >= 1 && round <= most && round !== value ? [round] : [];
}
