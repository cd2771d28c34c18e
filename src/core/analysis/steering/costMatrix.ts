/** Path costs and port priorities of every cabled port by trees; alike trees together. */
import type { TreeId } from '../../model/ids';
import { portIdentifier, settingKey } from '../../topology/bridgeId';
import type { Solution } from '../../tree/settled';

/** What a steering table is about. */
export type SteerSetting = 'cost' | 'priority';

/** A port in a group of alike trees. */
export interface SteerCell {
  readonly value: number;
  /** Whether it is set for these trees, not taken from the speed or from what holds in all. */
  readonly own: boolean;
}

/** Trees in which every port has the same value. */
export interface SteerGroup {
  readonly trees: readonly TreeId[];
  /** By port index; null where the port is not in the trees. */
  readonly cells: readonly (SteerCell | null)[];
}

/** Groups the trees of a solution by one setting, in the order of the first tree of each. */
export function steerGroups({ network, trees }: Solution, setting: SteerSetting): SteerGroup[] {
  const groups = new Map<string, { trees: TreeId[]; cells: (SteerCell | null)[] }>();
  for (const tree of trees) {
    const cells = network.ports.map((port, p): SteerCell | null => {
      if (tree.role[p] === 0) return null;
      const { dialect } = network.switches[network.owner[p]!]!;
      const value = setting === 'cost' ? tree.cost[p]! : portIdentifier(port, tree.id, dialect).priority;
      return {
        value,
        own:
          port.trees[settingKey(tree.id, dialect)]?.[setting] !== undefined ||
          (setting === 'cost' && tree.regional?.inside[p] === 0 && port.externalCost !== undefined),
      };
    });
    const key = cells.map((cell) => (cell ? `${cell.value}${cell.own ? '!' : ''}` : '-')).join(' ');
    const group = groups.get(key);
    if (group) group.trees.push(tree.id);
    else groups.set(key, { trees: [tree.id], cells });
  }
  return [...groups.values()];
}
