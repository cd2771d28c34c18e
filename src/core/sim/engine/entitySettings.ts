/** What a design sets for the protocol entities of a switch: identifiers, costs, its place in a region. */
import { methodOf } from '../../model/costMethod';
import { treeInstance, type TreeId } from '../../model/ids';
import type { EntitySettings, PortCost, RegionSettings } from '../../modes/entity';
import {
  portIdentifier,
  portIdentifierValue,
  setBridgePriority,
  setExternalCost,
  setPathCost,
  systemIdExtension,
} from '../../topology/bridgeId';
import type { Network } from '../../topology/network';
import { pathCostOf } from '../../topology/pathCost';
import type { RegionMap } from '../../topology/region';
import type { BridgeKeys } from './bridgeKeys';

export type TreeSettings = Omit<EntitySettings, 'offset' | 'region'>;

/** Identifiers and costs of switch index `s` in a tree; `ports` are the port indices of its entity. */
export function settingsIn(
  network: Network,
  keys: BridgeKeys,
  tree: TreeId,
  s: number,
  ports: readonly number[],
): TreeSettings {
  const sw = network.switches[s]!;
  const method = methodOf(network.design, sw);
  return {
    bridge: keys.keyOf(s, setBridgePriority(sw, tree) + systemIdExtension(sw, tree)),
    times: sw.timers,
    ports: ports.map((p) => {
      const port = network.ports[p]!;
      const bySpeed = pathCostOf(port.speed, method);
      const cost: PortCost = {
        external: setExternalCost(port, tree, sw.dialect) ?? bySpeed,
        internal: setPathCost(port, tree, sw.dialect) ?? bySpeed,
      };
      return {
        id: portIdentifierValue(portIdentifier(port, tree, sw.dialect)),
        cost,
        edge: port.edge,
        pointToPoint: true,
      };
    }),
  };
}

/** What an MSTP switch is in each instance of its region; null for the others. */
export function regionSettings(
  network: Network,
  keys: BridgeKeys,
  region: RegionMap | null,
  instances: readonly TreeId[],
  s: number,
  ports: readonly number[],
): RegionSettings | null {
  if (!region) return null;
  return {
    configurationId: region.configurationId,
    instances: instances.map((tree) => ({ mstid: treeInstance(tree)!, ...settingsIn(network, keys, tree, s, ports) })),
  };
}
