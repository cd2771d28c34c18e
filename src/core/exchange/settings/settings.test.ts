/** Settings in open forms: everything that is set is said, or told to be left out; nothing that a shell would read otherwise. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { setBridgePriority } from '../../topology/bridgeId';
import { compileNetwork } from '../../topology/network';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { treesOf } from '../../topology/trees';
import { FORMS, leftOutText, settingsFiles } from './forms';
import type { SettingsForm } from './form';
import { settingsOf } from './settings';

const [openConfig, linux, networkd, openSwitch] = ['openconfig', 'linux', 'networkd', 'ovs'].map((key) =>
  FORMS.find((form) => form.key === key)!,
) as [SettingsForm, SettingsForm, SettingsForm, SettingsForm];
const designs = fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice()));
const fileOf = (design: Design, form: SettingsForm, sw: string) => {
  const { files, leftOut } = settingsFiles(design, form).find((file) => file.switch === sw)!;
  return { text: files[0]!.text, leftOut };
};
interface Json {
  readonly [key: string]: Json;
}
const opened = (design: Design, sw: string): Json => JSON.parse(fileOf(design, openConfig, sw).text) as Json;

it('has every tree with the priority that the solver goes by, and every port with what it carries', () => {
  fc.assert(
    fc.property(designs, (design) => {
      const { switches } = compileNetwork(design);
      const known = new Set(treesOf(design));
      for (const [s, set] of settingsOf(design).entries()) {
        const sw = design.switches[s]!;
        for (const { tree, priority } of set.trees)
          if (known.has(tree)) expect(priority).toBe(setBridgePriority(switches[s]!, tree));
        expect(set.ports.map(({ vlans, speed, up }) => [vlans, speed, up])).toEqual(
          sw.ports.map(({ vlans, speed, up }) => [vlans, speed, up]),
        );
        expect(new Set(set.bundles.flatMap(({ members }) => members))).toEqual(
          new Set(set.ports.filter(({ bundle }) => bundle !== null).map((port) => port.interface)),
        );
      }
    }),
    { numRuns: tries(40) },
  );
});

it('writes files of its own for each switch, which hang on that switch alone', () => {
  fc.assert(
    fc.property(designs, fc.constantFrom(...FORMS), (design, form) => {
      const written = settingsFiles(design, form);
      expect(written).toHaveLength(design.switches.length);
      const files = written.flatMap((each) => each.files);
      expect(new Set(files.map(({ name }) => name.toLowerCase())).size).toBe(files.length);
      for (const { name, text } of files) {
        expect(name).toMatch(
          form === networkd
            ? /^[A-Za-z0-9_][A-Za-z0-9_.-]*\/[A-Za-z0-9_.-]+\.(netdev|network)$/
            : /^[A-Za-z0-9_][A-Za-z0-9_.-]*$/,
        );
        if (form === openConfig) expect(() => JSON.parse(text) as unknown).not.toThrow();
        // Names of people's own stand in comments alone: a shell must not run them.
        else if (form !== networkd)
          for (const line of text.split('\n'))
            expect(line.startsWith('#') || !/[;&|`$<>(){}*?]/.test(line.replace(' 2>/dev/null || true', ''))).toBe(
              true,
            );
      }
      const [first] = design.switches;
      if (first) expect(settingsFiles(design, form, { only: [first.id] })).toEqual([written[0]]);
    }),
    { numRuns: tries(40) },
  );
});

it('keeps a name with a line feed or a command in it out of a script', () => {
  const design = networkOf({ a: { name: 'rack $(reboot)' } }, []);
  for (const form of [linux, networkd, openSwitch])
    expect(
      fileOf(design, form, 'a')
        .text.split('\n')
        .filter((line) => line.includes('reboot') && !line.startsWith('#')),
    ).toEqual([]);
});

it('says in OpenConfig what is set: VLANs, trunks, bundles, trees, guards', () => {
  const done = editAll(fernhollow(), [
    { do: 'set-bridge-priority', switch: 'lodge' as never, tree: 'vlan:15' as never, priority: 4096 },
    { do: 'set-port-cost', switch: 'lodge' as never, port: '3' as never, tree: 'vlan:15' as never, cost: 777 },
    { do: 'set-port', switch: 'lodge' as never, port: '5' as never, edge: true, bpduGuard: true },
  ]);
  if (!done.ok) throw new Error(done.error.found);
  const lodge = opened(done.value.design, 'lodge');
  const stp = lodge['openconfig-spanning-tree:stp']!;
  expect(stp.global!.config).toEqual({ 'enabled-protocol': ['openconfig-spanning-tree-types:RAPID_PVST'] });
  const vlan = (stp['rapid-pvst']!.vlan as unknown as Json[]).find((each) => (each['vlan-id'] as unknown) === 15)!;
  expect(vlan.config).toMatchObject({ 'bridge-priority': 4096, 'hello-time': 2, 'forwarding-delay': 15 });
  expect(vlan.interfaces!.interface).toContainEqual({
    name: 'port3',
    config: { name: 'port3', cost: 777, 'port-priority': 128 },
  });
  expect(stp.interfaces!.interface).toContainEqual({
    name: 'port5',
    config: expect.objectContaining({
      'edge-port': 'openconfig-spanning-tree-types:EDGE_ENABLE',
      'bpdu-guard': true,
    }) as object,
  });
  const interfaces = lodge['openconfig-interfaces:interfaces']!.interface as unknown as Json[];
  const named = (name: string): Json => interfaces.find((each) => (each.name as unknown) === name)!;
  expect(named('port1')['openconfig-if-ethernet:ethernet']!.config).toMatchObject({
    'openconfig-if-aggregate:aggregate-id': 'bundle1',
  });
  expect(named('bundle1')['openconfig-if-aggregate:aggregation']).toMatchObject({
    config: { 'lag-type': 'LACP', 'min-links': 1 },
    'openconfig-vlan:switched-vlan': {
      config: { 'interface-mode': 'TRUNK', 'native-vlan': 1, 'trunk-vlans': [1, 15, 25, 35, 45, 55, 65] },
    },
  });
  expect(lodge['openconfig-lacp:lacp']!.interfaces!.interface).toMatchObject([
    { name: 'bundle1', config: { 'lacp-mode': 'ACTIVE', interval: 'SLOW' } },
  ]);
});

it('tells what a form cannot say, by switch', () => {
  const classic = networkOf(
    { a: { dialect: 'stp', vlanCheck: true }, b: { dialect: 'mstp', priority: 4096 } },
    ['a 1 = b 1'],
    {
      'a 1': { loopProbe: true, speed: 123 },
    },
  );
  expect(leftOutText(settingsFiles(classic, openConfig))).toBe(
    [
      'a',
      '  The model has no speed of 123 Mb/s (port1).',
      '  The model has no spanning tree of the kind Classic STP: nothing of it is set.',
      '  The model has no VLAN check.',
      '',
      'b',
      '  The model has no priority of the CIST: it would be 4096.',
      '',
    ].join('\n'),
  );
  expect(fileOf(classic, linux, 'b').leftOut).toContain(
    "The kernel's bridge speaks classic STP alone, one tree for all VLANs: it will not speak MSTP.",
  );
  expect(fileOf(classic, linux, 'a').leftOut).toEqual([
    "The kernel's bridge has no loop probe (port1).",
    "The kernel's costs end at 65535 (port1).",
    "The kernel's bridge has no VLAN check.",
  ]);
});

it('tells of what no form has a place for: stacks, pairs, LACP of members, external costs', () => {
  const design = networkOf(
    { a: { dialect: 'mstp' } },
    [],
    { 'a 1': { lacp: { priority: 5, key: 9 } }, 'a 2': {}, 'a 3': { externalCost: 7 } },
    { bundles: [{ id: 'x', number: 1, key: 4, switch: 'a', ports: ['1', '2'] }] },
  );
  for (const form of FORMS) {
    const left = fileOf(design, form, 'a').leftOut.join('\n');
    for (const what of [
      'LACP priority of a member (port1)',
      'LACP key of a member (port1)',
      'LACP key of a bundle (bundle1)',
      'external cost (port3)',
    ])
      expect(left).toContain(`has no ${what}.`);
    expect(leftOutText(settingsFiles(townOffice(), form))).toMatch(/has no stack of \d members\./);
  }
});

it('sets a classic bridge, its bonds and VLANs as Linux commands, and a rapid one for Open vSwitch', () => {
  const design = networkOf(
    { a: { dialect: 'stp', priority: 8192 }, b: { dialect: 'rstp', priority: 4096 } },
    ['a 1 = b 1'],
    {
      'a 1': { cost: 19, priority: 64 },
      'a 2': { vlans: { mode: 'access', vlan: 15 } },
      'b 1': { cost: 19, edge: false },
    },
  );
  const a = fileOf(design, linux, 'a').text;
  expect(a).toContain(
    'ip link add name a address 02:00:00:00:00:01 type bridge vlan_filtering 1 vlan_default_pvid 0 stp_state 1 priority 8192 hello_time 200 max_age 2000 forward_delay 1500',
  );
  expect(a).toContain('bridge link set dev port1 priority 16 cost 19 guard off root_block off');
  expect(a).toContain('bridge vlan add dev port2 vid 15 pvid untagged');
  const b = fileOf(design, openSwitch, 'b').text;
  expect(b).toContain('rstp_enable=true other-config:rstp-priority=4096');
  expect(b).toContain('other-config:rstp-path-cost=19');
});
