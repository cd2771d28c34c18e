/** Settings as `ovs-vsctl` commands: a bridge with VLANs, bonds with LACP, and rapid or classic spanning tree, one for all VLANs. */
import { vlanSet, VlanSet } from '../../model/vlanSet';
import { LeftOut, noteAlsoSet, type SettingsForm, type Written } from './form';
import { bridgeName } from './linux';
import { noteBundle, noteUnsaid } from './oneTree';
import type { BridgePortSet, BundleSet, PortSet, SwitchSet } from './settings';

export const openSwitch: SettingsForm = {
  key: 'ovs',
  name: 'Open vSwitch commands',
  says: 'A script of ovs-vsctl commands, one file for each switch, for a bridge of Open vSwitch.',
  suffix: '.ovs.sh',
  type: 'text/x-shellscript',
  write(sw): Written {
    const left = new LeftOut();
    const bridge = bridgeName(sw);
    const classic = sw.mode === 'stp' || sw.mode === 'per-vlan-stp';
    const prefix = sw.mode === 'off' ? null : classic ? 'stp' : 'rstp';
    if (sw.trees.length > 1 || sw.mode.startsWith('per-vlan'))
      left.note(`Open vSwitch has one tree for all VLANs: it will not speak ${sw.modeName}`);
    const lines = [
      '#!/bin/sh',
      `# ${sw.name}: a bridge of Open vSwitch. Ports are ${sw.ports[0]?.interface ?? 'port1'} and so on: rename yours, or this.`,
      'set -e',
      '',
      `ovs-vsctl --may-exist add-br ${bridge}`,
      `ovs-vsctl set bridge ${bridge} ${bridgeSettings(sw, prefix).join(' ')}`,
      ...sw.ports
        .filter(({ bundle }) => bundle === null)
        .flatMap((port) => ['', ...portLines(bridge, port, prefix, left)]),
      ...sw.bundles.flatMap((bundle) => ['', ...bundleLines(sw, bridge, bundle, prefix, left)]),
    ];
    noteAlsoSet(sw, 'Open vSwitch', left);
    return { text: `${lines.join('\n')}\n`, leftOut: left.sentences };
  },
};

type Prefix = 'stp' | 'rstp' | null;

function bridgeSettings(sw: SwitchSet, prefix: Prefix): string[] {
  const { hello, maxAge, forwardDelay, txHold } = sw.timers;
  const of = (key: string, value: number | string): string => `other-config:${prefix}-${key}=${value}`;
  return [
    `other-config:hwaddr=\\"${sw.mac}\\"`,
    `stp_enable=${prefix === 'stp'}`,
    `rstp_enable=${prefix === 'rstp'}`,
    ...(prefix === null
      ? []
      : [of('priority', sw.trees[0]!.priority), of('max-age', maxAge), of('forward-delay', forwardDelay)]),
    ...(prefix === 'stp' ? [of('hello-time', hello), of('system-id', `\\"${sw.mac}\\"`)] : []),
    ...(prefix === 'rstp' ? [of('transmit-hold-count', txHold), of('address', `\\"${sw.mac}\\"`)] : []),
  ];
}

function portLines(bridge: string, port: PortSet, prefix: Prefix, left: LeftOut): string[] {
  return [
    `ovs-vsctl --may-exist add-port ${bridge} ${port.interface}`,
    `ovs-vsctl set port ${port.interface} ${portSettings(port, prefix, left).join(' ')}`,
    `ovs-ofctl mod-port ${bridge} ${port.interface} ${port.up ? 'up' : 'down'}`,
  ];
}

function bundleLines(sw: SwitchSet, bridge: string, bundle: BundleSet, prefix: Prefix, left: LeftOut): string[] {
  const negotiates = noteBundle(bundle, 'A bond', left);
  if (bundle.minLinks > 1) left.note('A bond has no minimum of links', bundle.interface);
  const settings = [
    `lacp=${negotiates ? bundle.mode : 'off'}`,
    // Hashes of layer 3 and 4 need LACP there.
    `bond_mode=${negotiates && bundle.hash !== '2' ? 'balance-tcp' : 'balance-slb'}`,
    ...(negotiates
      ? [
          `other-config:lacp-time=${bundle.timeout}`,
          `other-config:lacp-system-priority=${sw.lacpSystemPriority}`,
          `other-config:lacp-system-id=\\"${sw.mac}\\"`,
        ]
      : []),
  ];
  return [
    bundle.members.length > 1
      ? `ovs-vsctl --may-exist add-bond ${bridge} ${bundle.interface} ${bundle.members.join(' ')}`
      : // With one member there is no bond to add: a port with that interface.
        `ovs-vsctl -- --id=@member create interface name=${bundle.members[0]!} -- --id=@bundle create port name=${bundle.interface} interfaces=@member -- add bridge ${bridge} ports @bundle`,
    `ovs-vsctl set port ${bundle.interface} ${[...settings, ...portSettings(bundle, prefix, left)].join(' ')}`,
  ];
}

function portSettings(port: BridgePortSet, prefix: Prefix, left: LeftOut): string[] {
  const [common] = port.trees;
  noteUnsaid(port, 'Open vSwitch', ['bpduGuard', 'loopProbe', 'rootGuard', 'loopGuard', 'restrictedTcn'], left);
  if (port.stormLimit) left.note('A storm limit is a matter of policing', port.interface);
  const of = (key: string, value: number | boolean): string => `other-config:${prefix}-${key}=${value}`;
  const cost = common?.cost ?? null;
  return [
    ...vlanSettings(port),
    ...(prefix === null || !common ? [] : [of('port-priority', common.priority)]),
    ...(prefix === null || cost === null ? [] : [of('path-cost', cost)]),
    ...(prefix === 'rstp' ? [of('port-admin-edge', port.edge), of('port-auto-edge', port.autoEdge)] : []),
  ];
}

function vlanSettings({ vlans }: BridgePortSet): string[] {
  if (vlans.mode === 'access') return ['vlan_mode=access', `tag=${vlans.vlan}`];
  const allowed = vlanSet(vlans.allowed);
  const all = allowed.differenceBothWays(VlanSet.all).isEmpty;
  const trunks = all
    ? []
    : allowed.ranges().flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
  return allowed.has(vlans.native)
    ? ['vlan_mode=native-untagged', `tag=${vlans.native}`, ...(all ? [] : [`trunks=${trunks.join(',')}`])]
    : ['vlan_mode=trunk', `trunks=${trunks.join(',')}`];
}
