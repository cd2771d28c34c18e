/** Findings about MAC addresses and port numbers that occur twice: their elections fall to chance. */
import { FreshNames } from '../../edit/fresh';
import type { Design } from '../../model/document';
import { switchName } from '../../tree/explain/phrases';
import type { Finding } from './finding';

/** Every identifier that is not the first of its kind. */
export function identifierFindings(design: Design): Finding[] {
  const found: Finding[] = [];
  const byMac = new Map<string, string>();
  const taken = (mac: string, name: string): string | undefined => {
    const before = byMac.get(mac);
    if (before === undefined) byMac.set(mac, name);
    return before;
  };
  for (const sw of design.switches) {
    const name = switchName(sw);
    const twin = taken(sw.mac, name);
    if (twin !== undefined) {
      const mac = new FreshNames(design).mac();
      found.push({
        rule: 'duplicate-mac',
        text: `${twin} and ${name} have the same MAC address ${sw.mac}`,
        why: "Neither can tell the other's BPDUs from its own, so both may take themselves for the root.",
        at: { switch: sw.id },
        remedies: [{ label: `give ${name} ${mac}`, commands: [{ do: 'set-switch', switch: sw.id, mac }] }],
      });
    }
    for (const member of sw.stack?.members ?? []) {
      // The switch may go by the address of one of its members.
      if (member.mac === sw.mac && sw.stack!.members.filter((each) => each.mac === member.mac).length === 1) continue;
      const other = taken(member.mac, `member ${member.id} of ${name}`);
      if (other === undefined) continue;
      const mac = new FreshNames(design).mac();
      found.push({
        rule: 'duplicate-mac',
        text: `${other} and member ${member.id} of ${name} have the same MAC address ${member.mac}`,
        why: 'Which of them is master of a stack, and whose address it has then, falls to chance.',
        at: { switch: sw.id },
        remedies: [
          {
            label: `give member ${member.id} ${mac}`,
            commands: [{ do: 'set-stack-member', switch: sw.id, member: member.id, mac }],
          },
        ],
      });
    }
    const byNumber = new Map<number, string>();
    const top = Math.max(0, ...sw.ports.map((port) => port.number));
    for (const port of sw.ports) {
      const other = byNumber.get(port.number);
      if (other === undefined) byNumber.set(port.number, port.id);
      else {
        const number =
          top < 4095
            ? top + 1
            : Array.from({ length: 4095 }, (_, i) => i + 1).find((n) => !sw.ports.some((p) => p.number === n));
        found.push({
          rule: 'duplicate-port-number',
          text: `${name}: ports ${other} and ${port.id} both have number ${port.number}`,
          why: 'Their port identifiers are equal, so a tie between them falls to chance.',
          at: { switch: sw.id, port: port.id },
          remedies:
            number === undefined
              ? []
              : [
                  {
                    label: `number port ${port.id} ${number}`,
                    commands: [{ do: 'set-port', switch: sw.id, port: port.id, number }],
                  },
                ],
        });
      }
    }
  }
  for (const host of design.hosts) {
    const name = `host ${host.name ?? host.id}`;
    const twin = taken(host.mac, name);
    if (twin === undefined) continue;
    const mac = new FreshNames(design).mac();
    const [at] = host.attach;
    found.push({
      rule: 'duplicate-mac',
      text: `${twin} and ${name} have the same MAC address ${host.mac}`,
      why: 'Switches learn the address now at one port, now at the other, and frames follow.',
      at: at ? { switch: at.switch, port: at.port } : {},
      remedies: [{ label: `give ${name} ${mac}`, commands: [{ do: 'set-host', host: host.id, mac }] }],
    });
  }
  return found;
}
