/** What switches have written of themselves, read as what they would have answered. */
import fc from 'fast-check';
import { fernhollow, valleyStation } from '../../../demo/demos';
import { anyDesign } from '../../../testing/networks';
import { observedAtRest } from '../../../testing/observed';
import { tries } from '../../../testing/runs';
import type { ObservedSwitch } from '../observation';
import type { Varbind } from '../snmp/mib';
import { agentOf, type Agent } from '../snmp/write';
import { observedInFiles } from './read';
import { readWalk } from './walk';

/** As `snmpwalk -On` prints it, with texts as texts where they are. */
function printed({ oid, type, value }: Varbind): string {
  const text = (() => {
    if (value instanceof Uint8Array) {
      const chars = new TextDecoder('latin1').decode(value);
      if (value.length === 0) return '""';
      return /^[\x20-\x7e\n]*$/.test(chars)
        ? `STRING: "${chars.replaceAll(/["\\]/g, '\\$&')}"`
        : `Hex-STRING: ${hexLines(value)}`;
    }
    const text: Partial<Record<Varbind['type'], string>> = {
      ...{ ticks: `Timeticks: (${value}) 0:00:01.00`, oid: `OID: .${value}`, integer: `INTEGER: ${value}` },
      ...{ counter: `Counter32: ${value}`, counter64: `Counter64: ${value}`, gauge: `Gauge32: ${value}` },
    };
    return text[type]!;
  })();
  return `.${oid} = ${text}`;
}
const hexLines = (octets: Uint8Array): string =>
  Array.from(
    octets,
    (octet, i) => `${octet.toString(16).padStart(2, '0').toUpperCase()} ${i % 16 === 15 ? '\n' : ''}`,
  ).join('');
const walkText = (all: readonly Varbind[]): string => `${all.map(printed).join('\n')}\n`;
const walks = (name: string, { own, bridges }: Agent) => [
  { name: `${name}/own.txt`, text: walkText(own) },
  ...[...bridges].map(([context, all]) => ({ name: `${name}/${context}.txt`, text: walkText(all) })),
];
const bare = ({ missing: _, source: __, ...sw }: ObservedSwitch) => sw;

it('reads walks as the answers that were walked', () =>
  fc.assert(
    fc.property(fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation())), (design) => {
      const { switches } = observedAtRest(design);
      for (const sw of switches) {
        const agent = agentOf(sw, 100);
        for (const all of [agent.own, ...agent.bridges.values()]) expect(readWalk(walkText(all))).toEqual(all);
      }
      const read = observedInFiles(
        switches.flatMap((sw, i) => walks(`s${i}`, agentOf(sw, 100))),
        'now',
      );
      // Where nothing has power, nobody has written anything.
      expect(read.ok ? read.value.switches.map(bare) : []).toEqual(switches.map(bare));
    }),
    { numRuns: tries(15) },
  ));

it('takes names of enumerations, and leaves out what cannot be read', () => {
  expect(
    readWalk('.1.3.6.1.2.1.2.2.1.8.1 = INTEGER: up(1)\r\n.1.3.6.1.2.1.1.9 = IpAddress: 192.0.2.1\n.1.3.6 = No more\n'),
  ).toEqual([{ oid: '1.3.6.1.2.1.2.2.1.8.1', type: 'integer', value: 1 }]);
});

const bridge = (ifname: string, mac: string) => ({
  ...{ ifindex: 3, ifname, flags: ['UP', 'LOWER_UP'], link_type: 'ether', address: mac },
  linkinfo: {
    info_kind: 'bridge',
    info_data: {
      ...{ stp_state: 1, bridge_id: '8000.2:0:0:0:0:2', root_port: 1, root_path_cost: 4 },
      ...{ max_age: 2000, hello_time: 200, forward_delay: 1500 },
    },
  },
});
const port = (ifname: string, no: number, state: string, root: string) => ({
  ...{
    ifindex: 10 + no,
    ifname,
    master: 'br0',
    flags: ['UP', 'LOWER_UP'],
    link_type: 'ether',
    address: `02:00:00:00:01:0${no}`,
  },
  linkinfo: {
    info_slave_kind: 'bridge',
    info_slave_data: {
      ...{ state, priority: 32, cost: 4, id: `0x800${no}`, no: `0x${no}`, designated_port: 0x8001 },
      ...{ bridge_id: '8000.2:0:0:0:0:1', root_id: root },
    },
  },
});
const kernel = [
  bridge('br0', '02:00:00:00:00:02'),
  port('eth1', 1, 'forwarding', '8000.2:0:0:0:0:1'),
  port('eth2', 2, 'blocking', '8000.2:0:0:0:0:1'),
];
const lldp = {
  lldp: {
    interface: {
      eth1: {
        chassis: {
          ridge: { id: { type: 'mac', value: '02:00:00:00:00:01' }, capability: { type: 'Bridge', enabled: true } },
        },
        port: { id: { type: 'ifname', value: 'eth7' } },
      },
    },
  },
};
const json = (name: string, value: unknown) => ({ name, text: JSON.stringify(value) });

it('reads what the kernel, its bridge tool and lldpd print of one switch', () => {
  const read = observedInFiles(
    [
      json('lodge.links.json', kernel),
      json('lodge.vlans.json', [
        {
          ifname: 'eth1',
          vlans: [
            { vlan: 1, flags: ['PVID', 'Egress Untagged'] },
            { vlan: 15, vlanEnd: 17 },
          ],
        },
        { ifname: 'eth2', vlans: [{ vlan: 15, flags: ['PVID', 'Egress Untagged'] }] },
      ]),
      json('lodge.fdb.json', [
        { mac: '02:00:00:00:09:01', ifname: 'eth2', flags: [], master: 'br0', state: '' },
        { mac: '02:00:00:00:09:02', ifname: 'eth1', flags: [], master: 'br0', state: '' },
        { mac: '33:33:00:00:00:01', ifname: 'eth2', flags: [], state: 'permanent' },
      ]),
      json('lodge.lldp.json', lldp),
    ],
    'now',
  );
  if (!read.ok) throw new Error(read.error);
  const [sw] = read.value.switches;
  expect(sw).toMatchObject({
    ...{ name: 'lodge', mac: '02:00:00:00:00:02', vlans: '1,15-17' },
    ports: [
      { number: 1, interface: 'eth1', signal: true, vlans: { carried: '1,15-17', untagged: 1 } },
      { number: 2, interface: 'eth2', vlans: { carried: '15', untagged: 15 } },
    ],
    trees: [
      {
        ...{ tree: 'cst', speaks: 'stp', root: { priority: 0x8000, mac: '02:00:00:00:00:01' }, rootPort: 1 },
        ...{ maxAge: 20, hello: 2, forwardDelay: 15 },
        ports: [
          { port: 1, role: 'root', state: 'forwarding', cost: 4, priority: 128 },
          { port: 2, role: 'alternate', state: 'discarding' },
        ],
      },
    ],
    neighbours: [
      { port: 1, system: 'ridge', chassis: '02:00:00:00:00:01', portId: 'eth7', kind: 'switch' },
      { port: 2, chassis: '02:00:00:00:09:01', kind: 'host' },
    ],
  });
});

it('names files that are another output, or lack what they should have', () => {
  const read = observedInFiles(
    [
      json('lodge/links.json', kernel),
      { name: 'lodge/notes.txt', text: 'hello' },
      json('ridge/lldp.json', lldp),
      json('dome/links.json', [{ ...kernel[0], linkinfo: { info_kind: 'bridge', info_data: {} } }]),
    ],
    'now',
  );
  expect(read.ok && read.value.leftOut).toEqual([
    expect.stringMatching(/^lodge\/notes\.txt: it is none of snmpwalk -On, /),
    'ridge: ridge/lldp.json alone tell of no switch; snmpwalk -On or ip -j -d link do.',
    'dome: dome/links.json cannot be read: something is missing in it.',
  ]);
  expect(observedInFiles([{ name: 'x', text: 'y' }], 'now')).toMatchObject({
    ok: false,
    error: expect.stringContaining('nobody tells of itself there') as string,
  });
});
