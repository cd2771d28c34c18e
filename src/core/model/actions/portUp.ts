import type { PortId, SwitchId } from '../ids';
import { action, ids, among, type ActionFault, type CommandCall, type Topology } from './kind';
import { aboutSwitch, switchFaults, switchFields } from './switchFields';

/** A port that is no bundle: it goes down with its card, or because somebody sets it down. */
export const portDownFields = { ...switchFields, port: ids.port };
export function portDownFaults(
  { switch: id, port }: { readonly switch: SwitchId; readonly port: PortId },
  topology: Topology,
): ActionFault[] {
  const sw = topology.switches.find((each) => each.id === id);
  if (!sw) return switchFaults({ switch: id }, topology);
  const ports = sw.ports.map((each) => each.id);
  return ports.includes(port) ? [] : [{ field: 'port', found: port, allowed: `a port of ${sw.id}: ${among(ports)}` }];
}
export const setPortUp = (sw: string, port: string, up: boolean): CommandCall => ({
  do: 'set-port',
  switch: sw,
  port,
  up,
});

export const portUp = action('port-up', portDownFields, {
  faults: portDownFaults,
  happens: ({ switch: sw, port }) => ({ changes: [setPortUp(sw, port, true)] }),
  text: ({ switch: sw, port }, names) => `${names.end({ switch: sw, port })} comes up again`,
  about: aboutSwitch,
});
