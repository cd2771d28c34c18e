/** What switches print, as they printed it. */
import { readKernel } from './linux';
import { readOpenSwitch } from './openSwitch';

const port = (no: number, more: object) => ({
  state: 'forwarding',
  priority: 32,
  cost: 19,
  id: `0x800${no}`,
  no: `0x${no}`,
  designated_port: 32768 + no,
  bridge_id: '8000.2:0:0:0:0:1',
  root_id: '1000.2:0:0:0:0:3',
  ...more,
});
const slave = (ifname: string, facts: object) => ({
  ifname,
  master: 'a',
  linkinfo: { info_kind: 'veth', info_slave_kind: 'bridge', info_slave_data: facts },
});
const LINKS = [
  { ifname: 'lo' },
  {
    ifname: 'a',
    linkinfo: {
      info_kind: 'bridge',
      info_data: {
        stp_state: 1,
        bridge_id: '8000.2:0:0:0:0:1',
        root_id: '8000.2:0:0:0:0:1',
        root_port: 2,
        root_path_cost: 38,
      },
    },
  },
  slave('port1', port(1, {})),
  slave('port2', port(2, { bridge_id: '1000.2:0:0:0:0:3', designated_port: 32769 })),
  slave('port3', port(3, { state: 'blocking', bridge_id: '1000.2:0:0:0:0:3', designated_port: 32770, priority: 16 })),
  slave('port4', port(4, { state: 'blocking', designated_port: 32769 })),
  slave('port5', port(5, { state: 'disabled' })),
  slave('port6', port(6, { state: 'learning' })),
  {
    ifname: 'bundle1',
    master: 'other',
    linkinfo: { info_kind: 'bond', info_data: { mode: '802.3ad', min_links: 0, ad_info: { aggregator: 2 } } },
  },
  ...[
    ['port8', 2, 61],
    ['port9', 1, 61],
    ['port10', 2, 13],
  ].map(([ifname, aggregator, state]) => ({
    ifname,
    master: 'bundle1',
    linkinfo: {
      info_slave_kind: 'bond',
      info_slave_data: { mii_status: 'UP', ad_aggregator_id: aggregator, ad_actor_oper_port_state: state },
    },
  })),
];

it('reads the kernel: roles follow from who is designated, members from their aggregator and state', () => {
  const vlans = [
    {
      ifname: 'port1',
      vlans: [
        { vlan: 1, vlanEnd: 14 },
        { vlan: 15, flags: ['PVID', 'Egress Untagged'] },
      ],
    },
  ];
  const { bridge, ports, bundles } = readKernel('a', LINKS, vlans);
  expect(bridge).toEqual({
    id: { priority: 32768, mac: '02:00:00:00:00:01' },
    root: { priority: 4096, mac: '02:00:00:00:00:03' },
    rootPathCost: 38,
    rootPort: 'port2',
  });
  expect(ports.map(({ interface: name, role, state }) => [name, role, state])).toEqual([
    ['port1', 'designated', 'forwarding'],
    ['port2', 'root', 'forwarding'],
    ['port3', 'alternate', 'discarding'],
    ['port4', 'backup', 'discarding'],
    ['port5', 'disabled', 'disabled'],
    ['port6', 'designated', 'moving'],
  ]);
  expect(ports[0]).toMatchObject({ vlans: '1-15', untagged: 15, cost: 19, priority: 128 });
  expect(ports[2]).toMatchObject({ vlans: '', untagged: null, priority: 64 });
  expect(bundles).toEqual([{ interface: 'bundle1', members: ['port10', 'port8', 'port9'], active: ['port8'] }]);
  expect(readKernel('a', LINKS, null).ports[0]).toMatchObject({ vlans: null, untagged: null });
  expect(() => readKernel('b', LINKS, null)).toThrow();
  expect(() => readKernel('a', {}, null)).toThrow();
});

const TREES = `---- a ----
Root ID:
  stp-priority    4096
  stp-system-id   02:00:00:00:00:03
  stp-hello-time  2s
  root-port       port2
  root-path-cost  20000

Bridge ID:
  stp-priority    32768
  stp-system-id   02:00:00:00:00:01

  Interface  Role       State      Cost     Pri.Nbr
  ---------- ---------- ---------- -------- -------
  port2      Root       Forwarding 20000    128.2
  port3      Alternate  Discarding 20000    64.3
  port4      Disabled   Discarding 2000     128.4
  port1      Designated Learning   2000     128.1
`;
const LACP = `---- bundle1 ----
  status: active negotiated

member: port8: current attached
  may_enable: true
  actor state: activity aggregation synchronized collecting distributing

member: port9: defaulted detached
  may_enable: false
  actor state: activity collecting distributing defaulted
`;
const uuid = (id: string) => ['uuid', id];
const PORTS = {
  headings: ['name', 'interfaces', 'tag', 'trunks', 'vlan_mode'],
  data: [
    ['a', uuid('0'), ['set', []], ['set', []], ['set', []]],
    ['port1', uuid('1'), 15, ['set', []], 'access'],
    ['port2', uuid('2'), 1, ['set', [5, 6, 7]], 'native-untagged'],
    ['port3', uuid('3'), ['set', []], 9, 'trunk'],
    ['port4', uuid('4'), ['set', []], ['set', []], ['set', []]],
    ['bundle1', ['set', [uuid('8'), uuid('9')]], ['set', []], ['set', []], 'trunk'],
    ['bundle2', uuid('10'), ['set', []], ['set', []], 'trunk'],
  ],
};
const INTERFACES = {
  headings: ['_uuid', 'name', 'link_state'],
  data: [1, 2, 3, 4, 8, 9, 10].map((n) => [uuid(String(n)), `port${n}`, n === 10 ? 'up' : ['set', []]]),
};

it('reads Open vSwitch: its tables and what its daemon shows', () => {
  const { bridge, ports, bundles } = readOpenSwitch('a', {
    trees: TREES,
    lacp: LACP,
    ports: PORTS,
    interfaces: INTERFACES,
  });
  expect(bridge).toEqual({
    id: { priority: 32768, mac: '02:00:00:00:00:01' },
    root: { priority: 4096, mac: '02:00:00:00:00:03' },
    rootPathCost: 20000,
    rootPort: 'port2',
  });
  expect(ports).toMatchObject([
    { interface: 'port1', role: 'designated', state: 'moving', vlans: '15', untagged: 15 },
    { interface: 'port2', role: 'root', state: 'forwarding', vlans: '1,5-7', untagged: 1, cost: 20000, priority: 128 },
    { interface: 'port3', role: 'alternate', state: 'discarding', vlans: '9', untagged: null, priority: 64 },
    { interface: 'port4', role: 'disabled', state: 'disabled', vlans: '1-4094' },
    { interface: 'bundle1', role: 'disabled', state: 'disabled' },
    { interface: 'bundle2', role: 'disabled' },
  ]);
  expect(bundles).toEqual([
    { interface: 'bundle1', members: ['port8', 'port9'], active: ['port8'] },
    { interface: 'bundle2', members: ['port10'], active: ['port10'] },
  ]);
  const none = readOpenSwitch('a', { trees: null, lacp: '', ports: PORTS, interfaces: INTERFACES });
  expect([none.bridge, none.ports[0]!.role]).toEqual([null, null]);
  expect(() => readOpenSwitch('a', { trees: null, lacp: '', ports: [], interfaces: INTERFACES })).toThrow();
});
