/** Findings about what is plugged in: two ends that do not match, identifiers that occur twice. */
import type { Design, LinkEnd, Port } from '../design/schema';
import { vlanSet } from '../design/vlanSet';
import { switchName } from '../tree/phrases';
import type { Finding } from './finding';

/** Mismatches between the two ends of each link. */
export function linkFindings(design: Design): Finding[] {
  const portAt = portFinder(design);
  return design.links.flatMap((link) => {
    const [a, b] = [portAt(link.a), portAt(link.b)];
    if (!a || !b) return [];
    const ends = `${a.name} to ${b.name}`;
    const found = (rule: string, text: string): Finding => ({ rule, text: `${ends}: ${text}`, at: { link: link.id } });
    return [
      a.port.speed !== b.port.speed ? [found('speed-differs', `the ends are set to ${a.port.speed} and ${b.port.speed} Mb/s; the link may not come up, and costs differ by direction.`)] : [],
      carriageMismatch(a.port, b.port).map(([rule, text]) => found(rule, text)),
    ].flat();
  });
}

function carriageMismatch(a: Port, b: Port): (readonly [rule: string, text: string])[] {
  const [va, vb] = [a.vlans, b.vlans];
  if (va.mode === 'access' && vb.mode === 'access') {
    return va.vlan === vb.vlan ? [] : [['access-vlans-joined', `access ports of VLAN ${va.vlan} and VLAN ${vb.vlan} are joined, which makes the two one.`]];
  }
  const found: (readonly [string, string])[] = [];
  const untagged = [va, vb].map((v) => (v.mode === 'access' ? v.vlan : v.native));
  if (untagged[0] !== untagged[1]) found.push(['native-differs', `untagged frames are VLAN ${untagged[0]} at one end and VLAN ${untagged[1]} at the other.`]);
  if (va === vb || JSON.stringify(va) === JSON.stringify(vb)) return found;
  const [here, there] = [va, vb].map((v) => (v.mode === 'access' ? vlanSet(String(v.vlan)) : vlanSet(v.allowed)));
  const oneEnd = here && there ? here.differenceBothWays(there).format() : '';
  if (oneEnd !== '') found.push(['vlan-at-one-end', `VLAN ${oneEnd} is carried at one end only.`]);
  return found;
}

/** MAC addresses and port numbers that occur twice: their elections fall to chance. */
export function identifierFindings(design: Design): Finding[] {
  const found: Finding[] = [];
  const byMac = new Map<string, string>();
  for (const sw of design.switches) {
    const before = byMac.get(sw.mac);
    if (before) found.push({ rule: 'duplicate-mac', text: `${before} and ${switchName(sw)} have the same MAC address ${sw.mac}: neither can tell the other's BPDUs from its own.`, at: { switch: sw.id } });
    else byMac.set(sw.mac, switchName(sw));
    const byNumber = new Map<number, string>();
    for (const port of sw.ports) {
      const twin = byNumber.get(port.number);
      if (twin) found.push({ rule: 'duplicate-port-number', text: `${switchName(sw)}: ports ${twin} and ${port.id} both have number ${port.number}, so their port identifiers do not part them.`, at: { switch: sw.id, port: port.id } });
      else byNumber.set(port.number, port.id);
    }
  }
  return found;
}

/** Timers outside 2 x (forward delay - 1) >= max age >= 2 x (hello + 1), IEEE 802.1D-2004 clause 17.14. */
export function timerFindings(design: Design): Finding[] {
  return design.switches.flatMap((sw) => {
    const { hello, maxAge, forwardDelay } = sw.timers;
    const text =
      2 * (forwardDelay - 1) < maxAge
        ? `max age ${maxAge} s is above 2 x (forward delay ${forwardDelay} s - 1 s): a port may forward before old information is gone.`
        : maxAge < 2 * (hello + 1)
          ? `max age ${maxAge} s is below 2 x (hello ${hello} s + 1 s): one lost BPDU can end a root.`
          : null;
    return text ? [{ rule: 'timers', text: `${switchName(sw)}: ${text}`, at: { switch: sw.id } }] : [];
  });
}

function portFinder(design: Design): (end: LinkEnd) => { port: Port; name: string } | null {
  const switches = new Map(design.switches.map((sw) => [sw.id, { sw, ports: new Map(sw.ports.map((port) => [port.id, port])) }]));
  return (end) => {
    const found = switches.get(end.switch);
    const port = found?.ports.get(end.port);
    return found && port ? { port, name: `${switchName(found.sw)} port ${port.id}` } : null;
  };
}
