/** Signal, speed, edge ports and VLANs, port by port. */
import { oncePer } from '../../../base/cache';
import type { Command } from '../../../edit/commands';
import type { Port } from '../../../model/document';
import { speed as legalSpeed } from '../../../model/legal';
import { vlanSet, type VlanSet } from '../../../model/vlanSet';
import { carried, untaggedOf } from '../../settings/vlanChanges';
import { carriageOf } from '../draw/carriage';
import type { SwitchMatch } from '../match';
import type { ObservedPort } from '../observation';
import type { Held } from './held';

/** Ports are mostly set alike: a set is written once. */
const textOf = oncePer((set: VlanSet) => set.format());

export function comparePorts(held: Held, { designed, observed }: SwitchMatch): void {
  const { network, known } = held;
  const places = held.places.get(designed.id)!;
  const there = observed.vlans === null ? null : vlanSet(observed.vlans);
  for (const port of observed.ports) {
    const place = places.get(port.number);
    if (!place) continue;
    const { id } = place.of;
    const p = network.portIndexOf(designed.id, id);
    const at = () => ({ switch: designed.id, port: id });
    if (place.kind === 'port') compareSignal(held, designed.id, place.of, port, p);
    const { vlans, edge } = network.ports[p]!;
    if (network.serves[p] !== p) continue;
    if (port.edge !== null) {
      held.compared += 1;
      const { edge: isEdge } = port;
      if (edge !== isEdge)
        held.tell('setting', 'edge port', at(), edge ? 'yes' : 'no', isEdge ? 'yes' : 'no', {
          takeOver: () => [{ do: 'set-port', switch: designed.id, port: id, edge: isEdge }],
        });
    }
    if (!port.vlans) continue;
    const wanted = known.within(carried(vlans));
    const own = untaggedOf(vlans);
    const untagged = own !== null && wanted.has(own) ? own : null;
    const takeOver = (): Command[] => [
      { do: 'set-port', switch: designed.id, port: id, vlans: carriageOf(port.vlans!) as Port['vlans'] },
    ];
    held.compared += 2;
    // Who has no list of VLANs carries all of them, those that nobody has included.
    const told = vlanSet(port.vlans.carried);
    const [carriesHere, carriesThere] = [textOf(wanted) || 'none', textOf(there ? told : known.within(told)) || 'none'];
    if (carriesHere !== carriesThere) held.tell('vlan', 'VLANs', at(), carriesHere, carriesThere, { takeOver });
    const bare = port.vlans.untagged;
    const untaggedThere = bare !== null && (there || known.has(bare)) ? bare : null;
    if (untagged !== untaggedThere)
      held.tell('vlan', 'VLAN without tag', at(), String(untagged ?? 'none'), String(untaggedThere ?? 'none'), {
        takeOver,
      });
  }
  if (!there) return;
  const s = held.switchAt(designed.id);
  const own = network.carried.slice(network.firstPort[s], network.firstPort[s + 1]);
  for (const vlan of held.design.vlans) {
    held.compared += 1;
    if (!there.has(vlan.id) && own.some((of) => of.has(vlan.id)))
      held.tell('vlan', `VLAN ${vlan.id}`, { switch: designed.id }, 'there', 'not there');
  }
}

function compareSignal(held: Held, sw: SwitchMatch['designed']['id'], of: Port, port: ObservedPort, p: number): void {
  const { network } = held;
  const lit = network.macOperational[p] === 1;
  const at = { switch: sw, port: of.id };
  held.compared += 2;
  if (lit !== port.signal) {
    const words = (on: boolean): string => (on ? 'with signal' : 'without signal');
    const commands = signalAsThere(held, sw, of, port, p);
    held.tell('cable', 'port', at, words(lit), words(port.signal), {
      why: lit && !port.up ? 'it is switched off' : '',
      takeOver: commands.length > 0 ? () => commands : null,
    });
  }
  const { speed } = port;
  if (speed > 0 && port.signal && lit && speed !== of.speed)
    held.tell('setting', 'speed', at, `${of.speed} Mb/s`, `${speed} Mb/s`, {
      takeOver: legalSpeed.safeParse(speed).success ? () => [{ do: 'set-port', ...at, speed }] : null,
    });
}

/** Set up or down as it is there; else the cable is cut, or whole again. */
function signalAsThere(
  held: Held,
  sw: SwitchMatch['designed']['id'],
  of: Port,
  port: ObservedPort,
  p: number,
): Command[] {
  if (port.up !== of.up) return [{ do: 'set-port', switch: sw, port: of.id, up: port.up }];
  const cable = held.design.links[held.network.cable[p] ?? -1];
  return cable && cable.up !== port.signal ? [{ do: 'set-link', link: cable.id, up: port.signal }] : [];
}
