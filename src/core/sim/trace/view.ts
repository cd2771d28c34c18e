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
import type { Simulation } from '../engine/simulation';

/** Blocking and listening ports discard; a learning one forwards nothing yet. */
const plain = (state: RunState): PortState => (state === 'forwarding' ? 'forwarding' : 'discarding');

/** `id`: what it is called, where another tree is run in its stead. */
export function viewNow(sim: Simulation, tree: number, id = sim.trees[tree]!): TreeView {
  const { network, keys } = sim;
  const switches: Record<SwitchId, SwitchView> = {};
  network.switches.forEach((sw, s) => {
    const runs = sim.entity(tree, s);
    if (!runs) return;
    const { entity, own: at } = runs;
    const own = Array.from(
      { length: network.firstPort[s + 1]! - network.firstPort[s]! },
      (_, i) => network.firstPort[s]! + i,
    ).filter((p) => sim.inTree(tree, p));
    const ports: Record<BridgePortId, PortView | MemberView> = {};
    const costs = sim.costs(tree, s);
    own.forEach((p, local) => {
      const role = sim.role(tree, p);
      ports[network.ports[p]!.id] = entryOf(network, p, {
        role,
        state: plain(sim.state(tree, p)),
        cost: costs[local]!,
        ...guardAt(network, p, role, sim.isHeld(tree, p)),
      })!;
    });
    const rootPort = own[entity.rootPort(at)];
    const { root, externalCost, regionalRoot, internalCost } = entity.rootVector(at);
    const idOf = (key: number): SwitchId => network.switches[keys.switchOf(key)]!.id;
    const instance = at > 0;
    switches[sw.id] = {
      root: idOf(instance ? regionalRoot : root),
      rootPathCost: instance ? internalCost : externalCost,
      rootPort: rootPort === undefined ? null : network.ports[rootPort]!.id,
      ports,
      ...(isMultiple(sw) && treeVlan(id) === null
        ? { regionalRoot: idOf(regionalRoot), externalRootPathCost: externalCost, internalRootPathCost: internalCost }
        : {}),
    };
  });
  return { id, switches };
}
