/** How near a tree is to flipping: how far one port's path cost can move before some end takes another role. */
import { editAll } from '../design/edit';
import { methodOf } from '../design/costMethod';
import { CST, type PortId, type SwitchId, type TreeId } from '../design/ids';
import { MAX_COST } from '../design/legal';
import type { Design } from '../design/schema';
import { isPerVlan } from '../tree/bridgeId';
import { movedEnds, type MovedEnd } from '../tree/moved';
import { compileNetwork, type Network } from '../tree/network';
import { roleOf, type Role, type SettledTree } from '../tree/settled';
import { solveTrees } from '../tree/solve';

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

interface Solved {
  readonly network: Network;
  readonly tree: SettledTree;
}

/**
 * Searches the legal costs on both sides of the present one, solving at each. The costs at which a tree stays as it is
 * form one interval (every comparison is linear in a cost), so halving finds its ends. Null where the port is not in the tree.
 */
export function costMargin(design: Design, tree: TreeId, sw: SwitchId, port: PortId): CostMargin | null {
  const target = design.switches.find((each) => each.id === sw);
  const before = solved(design, tree);
  const p = before?.network.portIndexOf(sw, port) ?? -1;
  if (!target || !before || p < 0) return null;
  const role = roleOf(before.tree, p);
  if (role === null) return null;
  const key = isPerVlan(target.dialect) ? tree : CST;
  const at = (cost: number): Solved => {
    const edited = editAll(design, [{ do: 'set-port-cost', switch: sw, port, tree: key, cost }]);
    const there = edited.ok ? solved(edited.value.design, tree) : null;
    if (!there) throw new Error(`cost ${cost} of ${sw} port ${port} is not legal`);
    return there;
  };
  const same = (there: Solved): boolean => there.tree.role.every((code, q) => code === before.tree.role[q]);
  const flipAt = (cost: number): Flip => {
    const there = at(cost);
    return { cost, role: roleOf(there.tree, p)!, ends: movedEnds({ network: before.network, trees: [before.tree] }, { network: there.network, trees: [there.tree] }) };
  };
  const now = before.tree.cost[p]!;
  /** The first cost from `now` toward `end` at which something is another way. */
  const first = (end: number): Flip | null => {
    if (now === end || same(at(end))) return null;
    let [stays, flips] = [now, end];
    while (Math.abs(flips - stays) > 1) {
      const middle = Math.floor((stays + flips) / 2);
      if (same(at(middle))) stays = middle;
      else flips = middle;
    }
    return flipAt(flips);
  };
  return { cost: now, role, below: first(1), above: first(MAX_COST[methodOf(design, target)]) };
}

function solved(design: Design, tree: TreeId): Solved | null {
  const network = compileNetwork(design);
  const [settled] = solveTrees(network, [tree]);
  return settled ? { network, tree: settled } : null;
}
