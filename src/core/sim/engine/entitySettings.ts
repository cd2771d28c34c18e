/** What a design sets for the protocol entities of a switch: identifiers, costs, its place in a region. */
import { methodOf } from '../../model/costMethod';
import { treeInstance, treeVlan, type TreeId } from '../../model/ids';
import { isClassic, isForced, traitsOf } from '../../model/document';
import {
  SECOND,
  type EntitySettings,
  type Micros,
  type PortCost,
  type ProtocolEntity,
  type RegionSettings,
  type Surroundings,
} from '../../modes/entity';
import { rstpEntity } from '../../modes/rstp/entity';
import { stpEntity } from '../../modes/stp/entity';
import type { Bridge } from '../../topology/bridges';
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
    bridge: keys.keyOf(s, sw.mac, setBridgePriority(sw, tree) + systemIdExtension(sw, tree)),
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
        autoEdge: port.autoEdge,
        pointToPoint: true,
        restrictedRole: port.rootGuard,
        restrictedTcn: port.restrictedTcn,
        enableBPDUrx: port.bpduRx,
        enableBPDUtx: port.bpduTx,
        rstpVersion: !isForced(sw, port),
        loopGuard: port.loopGuard,
      };
    }),
  };
}

/** What an MSTP switch is in each instance of its region; null for the others. */
function regionSettings(
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

/** What an entity starts with; `ids` are its trees, with MSTP the CIST first. */
export function entitySettings({
  network,
  keys,
  region,
  ids: [first, ...instances],
  s,
  ports,
  offset,
}: {
  readonly network: Network;
  readonly keys: BridgeKeys;
  readonly region: RegionMap | null;
  readonly ids: readonly TreeId[];
  readonly s: number;
  readonly ports: readonly number[];
  /** Of the hello time, when the first one goes out. */
  readonly offset: number;
}): EntitySettings {
  return {
    ...settingsIn(network, keys, first!, s, ports),
    // A VLAN's tree that an MSTP switch has at some ports is of no region.
    region: regionSettings(network, keys, treeVlan(first!) === null ? region : null, instances, s, ports),
    offset: Math.floor(offset * network.switches[s]!.timers.hello * SECOND),
  };
}

/** The machines that a switch runs. */
export const entityOf = (sw: Bridge, settings: EntitySettings, surroundings: Surroundings): ProtocolEntity =>
  ENTITIES[traitsOf(sw.dialect).machines!](settings, surroundings);
const ENTITIES = { classic: stpEntity, rapid: rstpEntity };

/** What is to be told to an entity of what is set otherwise than before in one of its trees. */
export function settingCalls(entity: ProtocolEntity, own: number, was: TreeSettings, is: TreeSettings): (() => void)[] {
  const calls: (() => void)[] = [];
  if (was.bridge !== is.bridge) calls.push(() => entity.setBridge(is.bridge, own));
  is.ports.forEach(({ cost, id }, local) => {
    const old = was.ports[local]!;
    if (cost.external !== old.cost.external || cost.internal !== old.cost.internal)
      calls.push(() => entity.setPathCost(local, cost, own));
    if (id !== old.id) calls.push(() => entity.setPortId(local, id, own));
  });
  return calls;
}

/** How long what is not repeated can still be alive anywhere (802.1D-1998 8.7.4, 802.1Q-2018 13.29 updtRcvdInfoWhile), and a second. */
export function lifeOfInformation({ switches }: Network): Micros {
  const lives = switches.map((sw) => (isClassic(sw) ? sw.timers.maxAge : 3 * sw.timers.hello));
  return (Math.max(0, ...lives) + 1) * SECOND;
}
