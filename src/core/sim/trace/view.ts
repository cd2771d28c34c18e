/** A tree as the protocols have it at this moment, in the form in which the solver's answer is told. */
import { isMultiple } from '../../model/document';
import { treeVlan, type BridgePortId, type SwitchId } from '../../model/ids';
import {
  entryOf,
  guardAt,
  type MemberView,
  type PortState,
  type PortView,
  type SwitchView,
  type TreeView,
} from '../../tree/settled';
import type { RunState } from '../../modes/entity';
import { bridgeOf } from '../../topology/acting';
import { calledBy, costOfPair, rootPortAt } from '../../tree/spread';
import type { Simulation } from '../engine/simulation';

/** Blocking and listening ports discard; a learning one forwards nothing yet. */
const plain = (state: RunState): PortState => (state === 'forwarding' ? 'forwarding' : 'discarding');

export function viewNow(sim: Simulation, tree: number): TreeView {
  const id = sim.trees[tree]!;
  const { physical: network, keys } = sim;
  const switches: Record<SwitchId, SwitchView> = {};
  const nameOf = (key: number): SwitchId => network.switches[calledBy(network, keys.switchOf(key))]!.id;
  network.switches.forEach((sw, s) => {
    const bridge = bridgeOf(network, s);
    const runs = sw.up ? sim.entity(tree, bridge) : null;
    if (!runs) return;
    const { entity, own: at } = runs;
    const ports: Record<BridgePortId, PortView | MemberView> = {};
    const costs = sim.costs(tree, bridge);
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
      if (!sim.inTree(tree, p)) continue;
      const [state, role, held] = sim.shown(tree, p);
      ports[network.ports[p]!.id] = entryOf(network, p, {
        role,
        state: plain(state),
        cost: costOfPair(network, p, (whole) => costs[sim.placeOf(tree, whole)]!),
        ...guardAt(network, p, role, held),
      })!;
    }
    const rootPort = rootPortAt(network, s, sim.rootPort(tree, bridge)!);
    const { root, externalCost, regionalRoot, internalCost } = entity.rootVector(at);
    const instance = at > 0;
    switches[sw.id] = {
      root: nameOf(instance ? regionalRoot : root),
      rootPathCost: instance ? internalCost : externalCost,
      rootPort: rootPort < 0 ? null : network.ports[rootPort]!.id,
      ports,
      ...(isMultiple(sw) && treeVlan(id) === null
        ? {
            regionalRoot: nameOf(regionalRoot),
            externalRootPathCost: externalCost,
            internalRootPathCost: internalCost,
          }
        : {}),
    };
  });
  return { id, switches };
}
