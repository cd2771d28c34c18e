/** Settings as a script of `ip` and `bridge` commands: a bridge with VLAN filtering, bonds, and the kernel's own classic spanning tree. */
import type { Bundle } from '../../model/document';
import { vlanSet } from '../../model/vlanSet';
import { LeftOut, noteAlsoSet, type SettingsForm, type Written } from './form';
import { noteBundle, noteUnsaid, outsideOf } from './oneTree';
import type { BridgePortSet, BundleSet, PortSet, SwitchSet } from './settings';

/** The longest name that an interface may have. */
const LONGEST = 15;

/** A switch's bridge as an interface: letters, digits and hyphens. */
export const bridgeName = ({ id }: Pick<SwitchSet, 'id'>): string =>
  id.replaceAll(/[^A-Za-z0-9_.-]/g, '-').slice(0, LONGEST) || 'bridge';

/** The kernel counts in hundredths of a second. */
const hundredths = (seconds: number): number => Math.round(seconds * 100);
/** Six bits of a port's identifier are the kernel's priority, in which ours has eight. */
const portPriority = (priority: number): number => priority >> 2;
/** The largest cost that the kernel takes. */
const MAX_KERNEL_COST = 65_535;

const HASHES: Readonly<Record<Bundle['hash'], string>> = { '2': 'layer2', '2+3': 'layer2+3', '3+4': 'layer3+4' };

export const linux: SettingsForm = {
  key: 'linux',
  name: 'Linux commands',
  says: 'A script of ip and bridge commands, one file for each switch, for the kernel’s own bridge and bonds.',
  suffix: '.linux.sh',
  type: 'text/x-shellscript',
  write(sw): Written {
    const left = new LeftOut();
    const bridge = bridgeName(sw);
    const lines = [
      '#!/bin/sh',
      `# ${sw.name}: bridge, bonds, VLANs and spanning tree. Ports are ${sw.ports[0]?.interface ?? 'port1'} and so on: rename yours, or this.`,
      'set -e',
      '',
      `ip link add name ${bridge} address ${sw.mac} type bridge ${bridgeOptions(sw, left)}`,
      ...sw.bundles.flatMap((bundle) => bond(sw, bundle, left)),
      ...outsideOf(sw).flatMap((port) => ['', ...member(sw, bridge, port, left)]),
      '',
      `bridge vlan del dev ${bridge} vid 1 self 2>/dev/null || true`,
      `ip link set dev ${bridge} up`,
    ];
    noteAlsoSet(sw, "The kernel's bridge", left);
    return { text: `${lines.join('\n')}\n`, leftOut: left.sentences };
  },
};

function bridgeOptions(sw: SwitchSet, left: LeftOut): string {
  const { hello, maxAge, forwardDelay } = sw.timers;
  const runs = sw.mode !== 'off';
  const [common] = sw.trees;
  if (runs && sw.mode !== 'stp')
    left.note(`The kernel's bridge speaks classic STP alone, one tree for all VLANs: it will not speak ${sw.modeName}`);
  return [
    'vlan_filtering 1 vlan_default_pvid 0',
    `stp_state ${runs ? 1 : 0}`,
    ...(common ? [`priority ${common.priority}`] : []),
    `hello_time ${hundredths(hello)} max_age ${hundredths(maxAge)} forward_delay ${hundredths(forwardDelay)}`,
  ].join(' ');
}

function bond(sw: SwitchSet, bundle: BundleSet, left: LeftOut): string[] {
  const negotiates = noteBundle(bundle, 'A bond', left);
  const options = negotiates
    ? [
        'mode 802.3ad',
        `lacp_active ${bundle.mode === 'active' ? 'on' : 'off'}`,
        `lacp_rate ${bundle.timeout}`,
        `ad_actor_sys_prio ${sw.lacpSystemPriority}`,
      ]
    : ['mode balance-xor'];
  return [
    '',
    `ip link add name ${bundle.interface} type bond ${options.join(' ')} min_links ${bundle.minLinks} xmit_hash_policy ${HASHES[bundle.hash]} miimon 100`,
    ...bundle.members.flatMap((port) => [
      `ip link set dev ${port} down`,
      `ip link set dev ${port} master ${bundle.interface}`,
      `ip link set dev ${port} up`,
    ]),
  ];
}

function member(sw: SwitchSet, bridge: string, port: PortSet | BundleSet, left: LeftOut): string[] {
  const name = port.interface;
  const [common] = port.trees;
  const cost = common?.cost ?? null;
  noteUnsaid(port, "The kernel's bridge", ['loopProbe', 'loopGuard', 'restrictedTcn'], left);
  if (cost !== null && cost > MAX_KERNEL_COST) left.note(`The kernel's costs end at ${MAX_KERNEL_COST}`, name);
  if (port.edge) left.note("The kernel's bridge has no edge ports: they listen and learn like others", name);
  if (port.stormLimit) left.note('A storm limit is a matter of tc', name);
  const link = [
    ...(common ? [`priority ${portPriority(common.priority)}`] : []),
    ...(cost === null || cost > MAX_KERNEL_COST ? [] : [`cost ${cost}`]),
    `guard ${port.bpduGuard ? 'on' : 'off'}`,
    `root_block ${port.rootGuard ? 'on' : 'off'}`,
  ];
  return [
    `ip link set dev ${name} master ${bridge}`,
    ...(sw.mode === 'off' ? [] : [`bridge link set dev ${name} ${link.join(' ')}`]),
    ...vlanLines(port),
    `ip link set dev ${name} ${port.up ? 'up' : 'down'}`,
  ];
}

function vlanLines({ interface: name, vlans }: BridgePortSet): string[] {
  if (vlans.mode === 'access') return [`bridge vlan add dev ${name} vid ${vlans.vlan} pvid untagged`];
  const tagged = vlanSet(vlans.allowed).ranges();
  const lines = tagged.map(([from, to]) => `bridge vlan add dev ${name} vid ${from === to ? from : `${from}-${to}`}`);
  return vlanSet(vlans.allowed).has(vlans.native)
    ? [...lines, `bridge vlan add dev ${name} vid ${vlans.native} pvid untagged`]
    : lines;
}
