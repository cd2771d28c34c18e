/** Trying settings in one tree without writing them into the design: a network compiled once, solved many times. */
import type { Command } from '../design/commands';
import { CST, type TreeId } from '../design/ids';
import { isPerVlan } from '../tree/bridgeId';
import type { Network } from '../tree/network';
import type { SettledTree } from '../tree/settled';
import { solveTrees } from '../tree/solve';

/** One setting of one tree: of a port by its index, or of a switch by its index. */
export type Setting =
  | { readonly of: 'cost' | 'portPriority'; readonly port: number; readonly value: number }
  | { readonly of: 'bridgePriority'; readonly switch: number; readonly value: number };

/** Solves a tree of a network as if some settings were others. */
export const solveWith = (network: Network, tree: TreeId, settings: readonly Setting[]): SettledTree => solveTrees(withSettings(network, tree, settings), [tree])[0]!;

/** The same network with other settings in one tree. */
export function withSettings(network: Network, tree: TreeId, settings: readonly Setting[]): Network {
  const ports = [...network.ports];
  const switches = [...network.switches];
  for (const setting of settings) {
    if (setting.of === 'bridgePriority') {
      const sw = switches[setting.switch]!;
      const key = isPerVlan(sw.dialect) ? tree : CST;
      switches[setting.switch] = { ...sw, trees: { ...sw.trees, [key]: { priority: setting.value } } };
    } else {
      const port = ports[setting.port]!;
      const key = isPerVlan(network.switches[network.owner[setting.port]!]!.dialect) ? tree : CST;
      const own = { ...port.trees[key], [setting.of === 'cost' ? 'cost' : 'priority']: setting.value };
      ports[setting.port] = { ...port, trees: { ...port.trees, [key]: own } };
    }
  }
  return { ...network, ports, switches };
}

/** The commands that write settings into the design for some trees. */
export function settingCommands(network: Network, trees: readonly TreeId[], settings: readonly Setting[]): Command[] {
  return settings.flatMap((setting): Command[] => {
    const s = setting.of === 'bridgePriority' ? setting.switch : network.owner[setting.port]!;
    const sw = network.switches[s]!;
    const keys = isPerVlan(sw.dialect) ? trees : [CST];
    return keys.map((tree): Command => {
      if (setting.of === 'bridgePriority') return { do: 'set-bridge-priority', switch: sw.id, tree, priority: setting.value };
      const at = { switch: sw.id, port: network.ports[setting.port]!.id, tree };
      return setting.of === 'cost' ? { do: 'set-port-cost', ...at, cost: setting.value } : { do: 'set-port-priority', ...at, priority: setting.value };
    });
  });
}
