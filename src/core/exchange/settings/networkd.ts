/**
 * Settings as files of systemd-networkd (systemd.netdev(5), systemd.network(5)): the kernel's bridge and bonds, to be there from
 * the start of the machine on. A difference is those of its files that are others now.
 */
import { LeftOut, type SettingsForm, type Written, type WrittenFile } from './form';
import { bridgeFacts, costOf, HASHES, noteKernel, priorityOf } from './linux';
import { bridgeName, isBundle, negotiates, outsideOf } from './oneTree';
import type { BundleSet, PortSet, SwitchSet } from './settings';
import { carried, untaggedOf } from './vlanChanges';

export const networkd: SettingsForm = {
  key: 'networkd',
  name: 'systemd-networkd files',
  says: 'Files for /etc/systemd/network, a folder for each switch, for the kernel’s own bridge and bonds.',
  type: 'text/plain',
  write(sw, was): Written {
    const left = new LeftOut();
    noteKernel(sw, left);
    for (const bundle of sw.bundles)
      if (bundle.mode === 'passive') left.note('systemd-networkd has no passive LACP: it is active', bundle.interface);
    for (const port of outsideOf(sw)) {
      if (port.bpduGuard) left.note('systemd-networkd sets no BPDU guard', port.interface);
      if (port.rootGuard) left.note('systemd-networkd sets no root guard', port.interface);
    }
    const before = new Map((was ? filesOf(was) : []).map(({ end, text }) => [end, text]));
    const all = filesOf(sw);
    const files = all.filter(({ end, text }) => before.get(end) !== text);
    const ends = new Set(all.map(({ end }) => end));
    const gone = [...before.keys()].filter((end) => !ends.has(end));
    return {
      files: [
        ...files,
        ...(gone.length === 0
          ? []
          : [{ end: '/files-to-delete.txt', text: `${gone.map((end) => end.slice(1)).join('\n')}\n` }]),
      ],
      leftOut: left.sentences,
    };
  },
};

type Section = readonly [name: string, entries: readonly (readonly [key: string, value: string | number | null])[]];

/** Entries without a value are left away. */
const unit = (sections: readonly Section[]): string =>
  `${sections
    .map(([name, entries]) =>
      [`[${name}]`, ...entries.flatMap(([key, value]) => (value === null ? [] : [`${key}=${value}`]))].join('\n'),
    )
    .join('\n\n')}\n`;

const yes = (is: boolean): string => (is ? 'yes' : 'no');

function filesOf(sw: SwitchSet): WrittenFile[] {
  const bridge = bridgeName(sw);
  const { runs, priority, hello, maxAge, forwardDelay } = bridgeFacts(sw);
  return [
    {
      end: `/10-${bridge}.netdev`,
      text: unit([
        [
          'NetDev',
          [
            ['Name', bridge],
            ['Kind', 'bridge'],
            ['MACAddress', sw.mac],
          ],
        ],
        [
          'Bridge',
          [
            ['STP', yes(runs)],
            ['Priority', priority],
            ['HelloTimeSec', hello],
            ['MaxAgeSec', maxAge],
            ['ForwardDelaySec', forwardDelay],
            ['VLANFiltering', 'yes'],
            ['DefaultPVID', 'none'],
          ],
        ],
      ]),
    },
    {
      end: `/10-${bridge}.network`,
      text: unit([
        ['Match', [['Name', bridge]]],
        [
          'Network',
          [
            ['LinkLocalAddressing', 'no'],
            ['ConfigureWithoutCarrier', 'yes'],
          ],
        ],
      ]),
    },
    ...sw.bundles.map((bundle) => bond(sw, bundle)),
    ...sw.ports.map((port) => network(sw, port)),
    ...sw.bundles.map((bundle) => network(sw, bundle)),
  ];
}

const bond = (sw: SwitchSet, bundle: BundleSet): WrittenFile => ({
  end: `/20-${bundle.interface}.netdev`,
  text: unit([
    [
      'NetDev',
      [
        ['Name', bundle.interface],
        ['Kind', 'bond'],
      ],
    ],
    [
      'Bond',
      [
        ...(negotiates(bundle)
          ? ([
              ['Mode', '802.3ad'],
              ['LACPTransmitRate', bundle.timeout],
              ['AdActorSystemPriority', sw.lacpSystemPriority],
            ] as const)
          : ([['Mode', 'balance-xor']] as const)),
        ['MinLinks', bundle.minLinks],
        ['TransmitHashPolicy', HASHES[bundle.hash]],
        ['MIIMonitorSec', '0.1'],
      ],
    ],
  ]),
});

function network(sw: SwitchSet, port: PortSet | BundleSet): WrittenFile {
  const name = port.interface;
  const master = isBundle(port) ? null : port.bundle;
  const match: Section = ['Match', [['Name', name]]];
  const link: Section[] = port.up ? [] : [['Link', [['ActivationPolicy', 'always-down']]]];
  const end = `/30-${name}.network`;
  if (master !== null) return { end, text: unit([match, ...link, ['Network', [['Bond', master]]]]) };
  const untagged = untaggedOf(port.vlans);
  const range = ([from, to]: readonly [number, number]): string => (from === to ? `${from}` : `${from}-${to}`);
  return {
    end,
    text: unit([
      match,
      ...link,
      ['Network', [['Bridge', bridgeName(sw)]]],
      [
        'Bridge',
        [
          ['Cost', costOf(port)],
          ['Priority', priorityOf(port)],
        ],
      ],
      ...(untagged === null
        ? []
        : ([
            [
              'BridgeVLAN',
              [
                ['PVID', untagged],
                ['EgressUntagged', untagged],
              ],
            ],
          ] satisfies Section[])),
      ...(port.vlans.mode === 'access'
        ? []
        : carried(port.vlans)
            .ranges()
            .map((each): Section => ['BridgeVLAN', [['VLAN', range(each)]]])),
    ]),
  };
}
