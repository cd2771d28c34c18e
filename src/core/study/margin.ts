/** How near a tree is to flipping: how far one port's path cost can move before some end takes another role. */
import { methodOf } from '../design/costMethod';
import type { PortId, SwitchId, TreeId } from '../design/ids';
import { MAX_COST } from '../design/legal';
import type { Design } from '../design/schema';
import { movedEnds, type MovedEnd } from '../tree/moved';
import { compileNetwork } from '../tree/network';
import { roleOf, type Role } from '../tree/settled';
import { solveTrees } from '../tree/solve';
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

/**
 * Searches the legal costs on both sides of the present one, solving at each. The costs at which a tree stays as it is
 * form one interval (every comparison is linear in a cost), so halving finds its ends. Null where the port is not in the tree.
 */
export function costMargin(design: Design, tree: TreeId, sw: SwitchId, port: PortId): CostMargin | null {
  const network = compileNetwork(design);
  const [before] = solveTrees(network, [tree]);
  const p = network.portIndexOf(sw, port);
  const role = before && p >= 0 ? roleOf(before, p) : null;
  if (!before || role === null) return null;
  const same = (cost: number): boolean => solveWith(network, tree, [{ of: 'cost', port: p, value: cost }]).role.every((code, q) => code === before.role[q]);
  const flip = (end: number): Flip | null => {
    const cost = firstFlip(before.cost[p]!, end, same);
    if (cost === null) return null;
    const there = solveWith(network, tree, [{ of: 'cost', port: p, value: cost }]);
    return { cost, role: roleOf(there, p)!, ends: movedEnds({ network, trees: [before] }, { network, trees: [there] }) };
  };
  return { cost: before.cost[p]!, role, below: flip(1), above: flip(MAX_COST[methodOf(design, network.switches[network.owner[p]!]!)]) };
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
