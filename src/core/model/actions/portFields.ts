/** What actions about bridge ports have in common. */
import type { BridgePortId, SwitchId } from '../ids';
import { among, ids, type ActionFault, type Topology } from './kind';
import { switchFaults, switchFields } from './switchFields';

export const portFields = { ...switchFields, port: ids.bridgePort };

/** A port of the switch, or a bundle of it. */
export function portFaults(
  { switch: id, port }: { readonly switch: SwitchId; readonly port: BridgePortId },
  topology: Topology,
): ActionFault[] {
  const sw = topology.switches.find((each) => each.id === id);
  if (!sw) return switchFaults({ switch: id }, topology);
  const bundled = topology.bundles.some((each) => each.switch === sw.id && each.id === String(port));
  const ports = sw.ports.map((each) => each.id as BridgePortId);
  return bundled || ports.includes(port)
    ? []
    : [{ field: 'port', found: port, allowed: `a port of ${sw.id}: ${among(ports)}` }];
}
