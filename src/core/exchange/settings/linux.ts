/**
 * Settings as a script of `ip` and `bridge` commands: a bridge with VLAN filtering, bonds, and the kernel's own classic spanning
 * tree; whole, or what leads from one state to the next: what comes first, what goes last.
 */
import type { Bundle } from '../../model/document';
import { fileOf, LeftOut, noteAlsoSet, type SettingsForm, type Written } from './form';
import { bridgeName, costIn, isBundle, negotiates, noteBundle, noteUnsaid, outsideOf } from './oneTree';
import { head } from './script';
import type { BundleSet, PortSet, SwitchSet } from './settings';
import { vlanChanges } from './vlanChanges';

/** The kernel counts in hundredths of a second. */
const hundredths = (seconds: number): number => Math.round(seconds * 100);
/** Six bits of a port's identifier are the kernel's priority, in which ours has eight. */
const portPriority = (priority: number): number => priority >> 2;
/** The largest cost that the kernel takes. */
export const MAX_KERNEL_COST = 65_535;

export const HASHES: Readonly<Record<Bundle['hash'], string>> = {
  '2': 'layer2',
  '2+3': 'layer2+3',
  '3+4': 'layer3+4',
};

export const linux: SettingsForm = {
  key: 'linux',
  name: 'Linux commands',
  says: 'A script of ip and bridge commands, one file for each switch, for the kernel’s own bridge and bonds.',
  type: 'text/x-shellscript',
  write(sw, was): Written {
    const left = new LeftOut();
    noteKernel(sw, left);
    const lines = was ? between(sw, was) : whole(sw);
    const text =
      lines.length === 0
        ? null
        : `${[...head(sw, 'bridge, bonds, VLANs and spanning tree', was), ...lines].join('\n')}\n`;
    return { files: fileOf('.linux.sh', text), leftOut: left.sentences };
  },
};

/** What the kernel's bridge and bonds do not have. */
export function noteKernel(sw: SwitchSet, left: LeftOut): void {
  if (sw.mode !== 'off' && sw.mode !== 'stp')
    left.note(`The kernel's bridge speaks classic STP alone, one tree for all VLANs: it will not speak ${sw.modeName}`);
  for (const bundle of sw.bundles) noteBundle(bundle, 'A bond', left);
  for (const port of outsideOf(sw)) {
    const name = port.interface;
    noteUnsaid(port, "The kernel's bridge", ['loopProbe', 'loopGuard', 'restrictedTcn'], left);
    if (costOf(port) === null && port.trees.length > 0) left.note(`The kernel's costs end at ${MAX_KERNEL_COST}`, name);
    if (port.edge) left.note("The kernel's bridge has no edge ports: they listen and learn like others", name);
    if (port.stormLimit) left.note('A storm limit is a matter of tc', name);
  }
  noteAlsoSet(sw, "The kernel's bridge", left);
}

/** What the kernel is to be told of a port's cost; null where it takes none so large, or there is no tree. */
export function costOf({ trees: [common] }: PortSet | BundleSet): number | null {
  const cost = common ? costIn(common) : null;
  return cost !== null && cost <= MAX_KERNEL_COST ? cost : null;
}

/** What the kernel is to be told of a port's priority. */
export const priorityOf = ({ trees: [common] }: PortSet | BundleSet): number | null =>
  common ? portPriority(common.priority) : null;

/** Options of the bridge as `ip` and systemd-networkd want them, but for their names. */
export const bridgeFacts = (sw: SwitchSet) => ({
  runs: sw.mode !== 'off',
  priority: sw.trees[0]?.priority ?? null,
  hello: sw.timers.hello,
  maxAge: sw.timers.maxAge,
  forwardDelay: sw.timers.forwardDelay,
});

function whole(sw: SwitchSet): string[] {
  const bridge = bridgeName(sw);
  return [
    `ip link add name ${bridge} address ${sw.mac} type bridge ${bridgeOptions(sw)}`,
    ...sw.bundles.flatMap((bundle) => ['', ...bond(sw, bundle)]),
    ...outsideOf(sw).flatMap((port) => ['', ...portLines(sw, port, null)]),
    '',
    `bridge vlan del dev ${bridge} vid 1 self 2>/dev/null || true`,
    `ip link set dev ${bridge} up`,
  ];
}

function bridgeOptions(sw: SwitchSet): string {
  const { runs, priority, hello, maxAge, forwardDelay } = bridgeFacts(sw);
  return [
    'vlan_filtering 1 vlan_default_pvid 0',
    `stp_state ${runs ? 1 : 0}`,
    ...(priority === null ? [] : [`priority ${priority}`]),
    `hello_time ${hundredths(hello)} max_age ${hundredths(maxAge)} forward_delay ${hundredths(forwardDelay)}`,
  ].join(' ');
}

function bondOptions(sw: SwitchSet, bundle: BundleSet): string {
  const options = negotiates(bundle)
    ? [
        'mode 802.3ad',
        `lacp_active ${bundle.mode === 'active' ? 'on' : 'off'}`,
        `lacp_rate ${bundle.timeout}`,
        `ad_actor_sys_prio ${sw.lacpSystemPriority}`,
      ]
    : ['mode balance-xor'];
  return [...options, `min_links ${bundle.minLinks}`, `xmit_hash_policy ${HASHES[bundle.hash]}`, 'miimon 100'].join(
    ' ',
  );
}

const bond = (sw: SwitchSet, bundle: BundleSet): string[] => [
  `ip link add name ${bundle.interface} type bond ${bondOptions(sw, bundle)}`,
  ...bundle.members.flatMap((port) => joins(port, bundle.interface)),
];

const joins = (port: string, bundle: string): string[] => [
  `ip link set dev ${port} down`,
  `ip link set dev ${port} master ${bundle}`,
  `ip link set dev ${port} up`,
];

const leaves = (port: string): string => `ip link set dev ${port} nomaster`;

/** What leads to a port's settings, from nothing or from what was set there. */
function portLines(sw: SwitchSet, port: PortSet | BundleSet, was: PortSet | BundleSet | null): string[] {
  const name = port.interface;
  const differs = (line: (of: PortSet | BundleSet) => string[]): string[] => {
    const now = line(port);
    return was && now.join() === line(was).join() ? [] : now;
  };
  const [cost, priority] = [costOf, priorityOf].map((of) => of(port));
  const link = [
    ...(priority === null ? [] : differs((of) => [`priority ${priorityOf(of)}`])),
    ...(cost === null ? [] : differs((of) => [`cost ${costOf(of)}`])),
    ...differs(({ bpduGuard }) => [`guard ${bpduGuard ? 'on' : 'off'}`]),
    ...differs(({ rootGuard }) => [`root_block ${rootGuard ? 'on' : 'off'}`]),
  ];
  return [
    ...(was ? [] : [`ip link set dev ${name} master ${bridgeName(sw)}`]),
    ...(link.length === 0 ? [] : [`bridge link set dev ${name} ${link.join(' ')}`]),
    ...vlanLines(port, was),
    ...differs(({ up }) => [`ip link set dev ${name} ${up ? 'up' : 'down'}`]),
  ];
}

function vlanLines({ interface: name, vlans }: PortSet | BundleSet, was: PortSet | BundleSet | null): string[] {
  const { come, go, untagged, tagged } = vlanChanges(vlans, was?.vlans ?? null);
  const range = ([from, to]: readonly [number, number]): string => (from === to ? `${from}` : `${from}-${to}`);
  const add = `bridge vlan add dev ${name} vid`;
  return [
    ...come.ranges().map((each) => `${add} ${range(each)}`),
    ...(tagged === null ? [] : [`${add} ${tagged}`]),
    ...(untagged === null ? [] : [`${add} ${untagged} pvid untagged`]),
    ...go.ranges().map((each) => `bridge vlan del dev ${name} vid ${range(each)}`),
  ];
}

/** What leads from one state of a switch to the next. */
function between(sw: SwitchSet, was: SwitchSet): string[] {
  const bridge = bridgeName(sw);
  const options = bridgeOptions(sw);
  const [before, after] = [was, sw].map((of) => new Map(outsideOf(of).map((port) => [port.interface, port])));
  // A bond's mode is set as it is made.
  const isKept = (bundle: BundleSet): boolean => {
    const old = before!.get(bundle.interface);
    return old !== undefined && isBundle(old) && negotiates(old) === negotiates(bundle);
  };
  const gone = was.bundles.filter(
    (old) => !sw.bundles.some((each) => each.interface === old.interface && isKept(each)),
  );
  const left = [...before!.values()].filter((port) => !isBundle(port) && !after!.has(port.interface));
  return [
    ...(sw.mac === was.mac ? [] : [`ip link set dev ${bridge} address ${sw.mac}`]),
    ...(options === bridgeOptions(was) ? [] : [`ip link set dev ${bridge} type bridge ${options}`]),
    ...gone.map((bundle) => `ip link del dev ${bundle.interface}`),
    ...left.map((port) => leaves(port.interface)),
    ...sw.bundles.flatMap((bundle) =>
      isKept(bundle) ? keptBond(sw, bundle, was, before!.get(bundle.interface) as BundleSet) : bond(sw, bundle),
    ),
    ...[...after!.values()].flatMap((port) => {
      const old = before!.get(port.interface) ?? null;
      return portLines(sw, port, old && (!isBundle(port) || isKept(port)) ? old : null);
    }),
  ];
}

function keptBond(sw: SwitchSet, bundle: BundleSet, was: SwitchSet, old: BundleSet): string[] {
  const name = bundle.interface;
  const options = bondOptions(sw, bundle);
  return [
    ...(options === bondOptions(was, old)
      ? []
      : [
          // Some of them are taken only while it is down.
          `ip link set dev ${name} down`,
          `ip link set dev ${name} type bond ${options.replace(/^mode \S+ /, '')}`,
          `ip link set dev ${name} up`,
        ]),
    ...old.members.filter((port) => !bundle.members.includes(port)).map(leaves),
    ...bundle.members.filter((port) => !old.members.includes(port)).flatMap((port) => joins(port, name)),
  ];
}
