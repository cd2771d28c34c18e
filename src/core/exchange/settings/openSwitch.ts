/**
 * Settings as `ovs-vsctl` commands: a bridge with VLANs, bonds with LACP, and rapid or classic spanning tree, one for all VLANs;
 * whole, or what leads from one state to the next.
 */
import type { Dialect } from '../../model/document';
import { VlanSet } from '../../model/vlanSet';
import { fileOf, LeftOut, noteAlsoSet, type SettingsForm, type Written } from './form';
import { bridgeName, costIn, isBundle, negotiates, noteBundle, noteUnsaid, outsideOf } from './oneTree';
import { head } from './script';
import type { BridgePortSet, BundleSet, PortSet, SwitchSet } from './settings';
import { carried, untaggedOf } from './vlanChanges';

export const openSwitch: SettingsForm = {
  key: 'ovs',
  name: 'Open vSwitch commands',
  says: 'A script of ovs-vsctl commands, one file for each switch, for a bridge of Open vSwitch.',
  type: 'text/x-shellscript',
  write(sw, was): Written {
    const left = new LeftOut();
    note(sw, left);
    const lines = was ? between(sw, was) : whole(sw);
    const text = lines.length === 0 ? null : `${[...head(sw, 'bridge of Open vSwitch', was), ...lines].join('\n')}\n`;
    return { files: fileOf('.ovs.sh', text), leftOut: left.sentences };
  },
};

type Prefix = 'stp' | 'rstp' | null;
/** What a switch's tree is called there: classic stays classic, all others are rapid. */
export const protocolOf = (mode: Dialect): Prefix =>
  mode === 'off' ? null : mode === 'stp' || mode === 'per-vlan-stp' ? 'stp' : 'rstp';

function note(sw: SwitchSet, left: LeftOut): void {
  if (sw.trees.length > 1 || sw.mode.startsWith('per-vlan'))
    left.note(`Open vSwitch has one tree for all VLANs: it will not speak ${sw.modeName}`);
  for (const bundle of sw.bundles) {
    noteBundle(bundle, 'A bond', left);
    if (bundle.minLinks > 1) left.note('A bond has no minimum of links', bundle.interface);
    if (bundle.members.length > 1 && sw.mode !== 'off')
      left.note('Open vSwitch runs no spanning tree on a bond: it forwards whatever the tree says', bundle.interface);
    else if (negotiates(bundle) && sw.mode !== 'off')
      left.note(
        'Open vSwitch sends no LACPDU where its tree holds a port: one member alone never comes up',
        bundle.interface,
      );
  }
  for (const port of outsideOf(sw)) {
    noteUnsaid(port, 'Open vSwitch', ['bpduGuard', 'loopProbe', 'rootGuard', 'loopGuard', 'restrictedTcn'], left);
    if (port.stormLimit) left.note('A storm limit is a matter of policing', port.interface);
    if (protocolOf(sw.mode) === 'stp' && port.trees[0] && costIn(port.trees[0]) > MAX_CLASSIC_COST)
      left.note(`The costs of its classic tree end at ${MAX_CLASSIC_COST}`, port.interface);
  }
  noteAlsoSet(sw, 'Open vSwitch', left);
}

const MAX_CLASSIC_COST = 65_535;
/** The largest number that a port of its classic tree has. */
const MAX_CLASSIC_NUMBER = 255;

/** `column=value` and `column:key=value`, by column and key. */
type Settings = ReadonlyMap<string, string>;
const said = (settings: Settings): string => [...settings].map(([key, value]) => `${key}=${value}`).join(' ');

function whole(sw: SwitchSet): string[] {
  const bridge = bridgeName(sw);
  return [
    `ovs-vsctl --may-exist add-br ${bridge}`,
    `ovs-vsctl set bridge ${bridge} ${said(bridgeSettings(sw))}`,
    ...outsideOf(sw).flatMap((port) => ['', ...added(sw, port)]),
  ];
}

/** A bond with one member is a port with that interface: there is no bond to add. */
function added(sw: SwitchSet, port: PortSet | BundleSet): string[] {
  const bridge = bridgeName(sw);
  const name = port.interface;
  const add = !isBundle(port)
    ? `ovs-vsctl --may-exist add-port ${bridge} ${name}`
    : port.members.length > 1
      ? `ovs-vsctl --may-exist add-bond ${bridge} ${name} ${port.members.join(' ')}`
      : `ovs-vsctl -- --id=@member create interface name=${port.members[0]!} -- --id=@bundle create port name=${name} interfaces=@member -- add bridge ${bridge} ports @bundle`;
  return [add, `ovs-vsctl set port ${name} ${said(portSettings(sw, port))}`, ...upLine(bridge, port)];
}

const upLine = (bridge: string, port: PortSet | BundleSet): string[] =>
  isBundle(port) ? [] : [`ovs-ofctl mod-port ${bridge} ${port.interface} ${port.up ? 'up' : 'down'}`];

function bridgeSettings(sw: SwitchSet): Settings {
  const { hello, maxAge, forwardDelay, txHold } = sw.timers;
  const prefix = protocolOf(sw.mode);
  const mac = `\\"${sw.mac}\\"`;
  const of = (key: string, value: number | string): [string, string] => [`other-config:${prefix}-${key}`, `${value}`];
  return new Map([
    ['other-config:hwaddr', mac],
    ['stp_enable', `${prefix === 'stp'}`],
    ['rstp_enable', `${prefix === 'rstp'}`],
    ...(prefix === null
      ? ([['other-config:forward-bpdu', 'true']] satisfies [string, string][])
      : [of('priority', sw.trees[0]!.priority), of('max-age', maxAge), of('forward-delay', forwardDelay)]),
    ...(prefix === 'stp' ? [of('hello-time', hello), of('system-id', mac)] : []),
    ...(prefix === 'rstp' ? [of('transmit-hold-count', txHold), of('address', mac)] : []),
  ]);
}

function portSettings(sw: SwitchSet, port: PortSet | BundleSet): Settings {
  const prefix = protocolOf(sw.mode);
  const [common] = port.trees;
  const of = (key: string, value: number | boolean): [string, string] => [`other-config:${prefix}-${key}`, `${value}`];
  const cost = common ? costIn(common) : null;
  return new Map([
    ...(isBundle(port) ? bondSettings(sw, port) : []),
    ...vlanSettings(port),
    ...(prefix === null || !common
      ? []
      : [of('port-priority', common.priority), of('port-num', numberOf(sw, port, prefix))]),
    ...(prefix === null || cost === null || (prefix === 'stp' && cost > MAX_CLASSIC_COST)
      ? []
      : [of('path-cost', cost)]),
    ...(prefix === 'rstp' ? [of('port-admin-edge', port.edge), of('port-auto-edge', port.autoEdge)] : []),
  ]);
}

/** The number in a port's identifier; where one is too large for the classic tree, its place among them. */
function numberOf(sw: SwitchSet, port: PortSet | BundleSet, prefix: Prefix): number {
  const all = outsideOf(sw);
  return prefix === 'stp' && all.some(({ number }) => number > MAX_CLASSIC_NUMBER)
    ? 1 + all.findIndex((each) => each.interface === port.interface)
    : port.number;
}

function bondSettings(sw: SwitchSet, bundle: BundleSet): [string, string][] {
  const lacp = negotiates(bundle);
  return [
    ['lacp', lacp ? bundle.mode : 'off'],
    // Hashes of layer 3 and 4 need LACP there.
    ['bond_mode', lacp && bundle.hash !== '2' ? 'balance-tcp' : 'balance-slb'],
    ...(lacp
      ? ([
          ['other-config:lacp-time', bundle.timeout],
          ['other-config:lacp-system-priority', `${sw.lacpSystemPriority}`],
          ['other-config:lacp-system-id', `\\"${sw.mac}\\"`],
        ] satisfies [string, string][])
      : []),
  ];
}

function vlanSettings({ vlans }: BridgePortSet): [string, string][] {
  if (vlans.mode === 'access')
    return [
      ['vlan_mode', 'access'],
      ['tag', `${vlans.vlan}`],
    ];
  const all = carried(vlans);
  const untagged = untaggedOf(vlans);
  const trunks = all.differenceBothWays(VlanSet.all).isEmpty
    ? []
    : all.ranges().flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
  return [
    ['vlan_mode', untagged === null ? 'trunk' : 'native-untagged'],
    ...(untagged === null ? [] : ([['tag', `${untagged}`]] satisfies [string, string][])),
    ...(untagged !== null && trunks.length === 0 ? [] : ([['trunks', trunks.join(',')]] satisfies [string, string][])),
  ];
}

/** What leads from one state of a switch to the next. */
function between(sw: SwitchSet, was: SwitchSet): string[] {
  const bridge = bridgeName(sw);
  const [before, after] = [was, sw].map((of) => new Map(outsideOf(of).map((port) => [port.interface, port])));
  const isKept = (port: PortSet | BundleSet): boolean => {
    const old = before!.get(port.interface);
    return old !== undefined && membersOf(old) === membersOf(port);
  };
  const gone = [...before!.values()].filter((old) => {
    const now = after!.get(old.interface);
    return !now || !isKept(now);
  });
  return [
    ...gone.map(({ interface: name }) => `ovs-vsctl --if-exists del-port ${bridge} ${name}`),
    ...changes('bridge', bridge, bridgeSettings(sw), bridgeSettings(was)),
    ...[...after!.values()].flatMap((port) => {
      const old = before!.get(port.interface);
      return old && isKept(port)
        ? [
            ...changes('port', port.interface, portSettings(sw, port), portSettings(was, old)),
            ...(port.up === old.up ? [] : upLine(bridge, port)),
          ]
        : added(sw, port);
    }),
  ];
}

const membersOf = (port: PortSet | BundleSet): string => (isBundle(port) ? port.members.join() : '');

/** What sets and takes away settings of a record of the database. */
function changes(table: 'bridge' | 'port', record: string, now: Settings, was: Settings): string[] {
  const set = new Map([...now].filter(([key, value]) => was.get(key) !== value));
  const gone = [...was.keys()].filter((key) => !now.has(key));
  return [
    ...(set.size === 0 ? [] : [`ovs-vsctl set ${table} ${record} ${said(set)}`]),
    ...gone.map((key) => {
      const [column, name] = key.split(':');
      return name === undefined
        ? `ovs-vsctl clear ${table} ${record} ${column!}`
        : `ovs-vsctl remove ${table} ${record} ${column!} ${name}`;
    }),
  ];
}
