/** Findings about loops that no spanning tree closes: cables among switches that run none. */
import type { SwitchId } from '../design/ids';
import { switchName } from '../tree/phrases';
import { deadReason, type Network } from '../tree/network';
import type { Finding } from './finding';

/** Each live cable that closes a loop among switches whose spanning tree is off. */
export function loopFindings(network: Network): Finding[] {
  const { design, switches } = network;
  const off = new Map(switches.filter((sw) => sw.dialect === 'off').map((sw) => [sw.id, sw]));
  const lead = new Map<SwitchId, SwitchId>([...off.keys()].map((id) => [id, id]));
  const leadOf = (id: SwitchId): SwitchId => (lead.get(id) === id ? id : leadOf(lead.get(id)!));
  return design.links.flatMap((link) => {
    const [a, b] = [off.get(link.a.switch), off.get(link.b.switch)];
    if (!a || !b || deadReason(network, network.portIndexOf(link.a.switch, link.a.port)) !== null) return [];
    const [leadA, leadB] = [leadOf(a.id), leadOf(b.id)];
    if (leadA !== leadB) {
      lead.set(leadA, leadB);
      return [];
    }
    const text = `${switchName(a)} port ${link.a.port} to ${switchName(b)} port ${link.b.port} closes a loop of switches that run no spanning tree: a broadcast would circle for ever.`;
    return [{ rule: 'loop-without-spanning-tree', text, at: { link: link.id } }];
  });
}
