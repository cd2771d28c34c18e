/** Trying settings in one tree without writing them into the design: a network compiled once, solved many times. */
import { isMultiple } from '../../model/document';
import type { Command } from '../../edit/commands';
import { CIST, type TreeId } from '../../model/ids';
import { settingKey } from '../../topology/bridgeId';
import { insidePorts } from '../../tree/cist';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';

/** One setting of one tree: of a port by its index, or of a switch by its index. */
export type Setting =
  | { readonly of: 'cost' | 'portPriority'; readonly port: number; readonly value: number }
  | { readonly of: 'bridgePriority'; readonly switch: number; readonly value: number };

/** Solves a tree of a network as if some settings were others. */
export const solveWith = (network: Network, tree: TreeId, settings: readonly Setting[]): SettledTree =>
  solveTrees(withSettings(network, tree, settings), [tree])[0]!;

/** The same network with other settings in one tree. */
export function withSettings(network: Network, tree: TreeId, settings: readonly Setting[]): Network {
  const ports = [...network.ports];
  const switches = [...network.switches];
  for (const setting of settings) {
    if (setting.of === 'bridgePriority') {
      const sw = switches[setting.switch]!;
      const key = settingKey(tree, sw.dialect);
      switches[setting.switch] = { ...sw, trees: { ...sw.trees, [key]: { priority: setting.value } } };
    } else {
      const port = ports[setting.port]!;
      const sw = network.switches[network.owner[setting.port]!]!;
      const key = settingKey(tree, sw.dialect);
      const own = { ...port.trees[key], [setting.of === 'cost' ? 'cost' : 'priority']: setting.value };
      // In the CIST a port has one cost toward its region and one toward others, and only one of them counts.
      const outside = setting.of === 'cost' && tree === CIST && isMultiple(sw) ? { externalCost: setting.value } : {};
      ports[setting.port] = { ...port, ...outside, trees: { ...port.trees, [key]: own } };
    }
  }
  return { ...network, ports, switches };
}

/** The commands that write settings into the design for some trees. */
export function settingCommands(network: Network, trees: readonly TreeId[], settings: readonly Setting[]): Command[] {
  return settings.flatMap((setting): Command[] => {
    const s = setting.of === 'bridgePriority' ? setting.switch : network.owner[setting.port]!;
    const sw = network.switches[s]!;
    const keys = new Set(trees.map((tree) => settingKey(tree, sw.dialect)));
    return [...keys].map((tree): Command => {
      if (setting.of === 'bridgePriority')
        return { do: 'set-bridge-priority', switch: sw.id, tree, priority: setting.value };
      if (setting.of === 'cost') return costCommand(network, tree, setting.port, setting.value);
      return {
        do: 'set-port-priority',
        switch: sw.id,
        port: network.ports[setting.port]!.id,
        tree,
        priority: setting.value,
      };
    });
  });
}

/** Sets the cost that counts for a port in a tree: in the CIST its external one where it leads out of its region. */
export function costCommand(network: Network, tree: TreeId, p: number, cost: number | null): Command {
  const sw = network.switches[network.owner[p]!]!;
  const at = { switch: sw.id, port: network.ports[p]!.id };
  if (tree === CIST && isMultiple(sw) && insidePorts(network)[p] === 0) return { do: 'set-external-cost', ...at, cost };
  return { do: 'set-port-cost', ...at, tree: settingKey(tree, sw.dialect), cost };
}
