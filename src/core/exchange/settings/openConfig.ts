/**
 * Settings as OpenConfig data in JSON, by the encoding of RFC 7951: interfaces with aggregation and switched VLANs, spanning tree,
 * LACP, LLDP. Names of modules, leaves and identities are those of the published models.
 */
import type { Dialect } from '../../model/document';
import { vlanSet } from '../../model/vlanSet';
import { fileOf, LeftOut, noteAlsoSet, type SettingsForm, type Written } from './form';
import { negotiates, outsideOf } from './oneTree';
import { yangPatch } from '../yangPatch';
import type { BridgePortSet, BundleSet, PortSet, SwitchSet, TreeSet } from './settings';

/** The identities of openconfig-spanning-tree-types; null where it has none. */
const PROTOCOLS: Readonly<Record<Dialect, string | null>> = {
  stp: null,
  rstp: 'openconfig-spanning-tree-types:RSTP',
  mstp: 'openconfig-spanning-tree-types:MSTP',
  'per-vlan-stp': null,
  'per-vlan-rstp': 'openconfig-spanning-tree-types:RAPID_PVST',
  off: null,
};

/** The speeds of openconfig-if-ethernet, Mbit/s. */
const SPEEDS: Readonly<Record<number, string>> = {
  10: '10MB',
  100: '100MB',
  1000: '1GB',
  2500: '2500MB',
  5000: '5GB',
  10_000: '10GB',
  25_000: '25GB',
  40_000: '40GB',
  50_000: '50GB',
  100_000: '100GB',
  200_000: '200GB',
  400_000: '400GB',
};

type Json = Record<string, unknown>;

export const openConfig: SettingsForm = {
  key: 'openconfig',
  name: 'OpenConfig',
  says: 'Open models in JSON, one file for each switch, for whatever takes OpenConfig.',
  type: 'application/json',
  write(sw, was): Written {
    const left = new LeftOut();
    const document = documentOf(sw, left);
    noteAlsoSet(sw, 'The model', left);
    const said = was ? yangPatch(sw.id, documentOf(was, new LeftOut()), document, LIST_KEYS) : document;
    const end = was ? '.openconfig-patch.json' : '.openconfig.json';
    return { files: fileOf(end, said && `${JSON.stringify(said, null, 2)}\n`), leftOut: left.sentences };
  },
};

/** The key leaf of each of the models' lists. */
const LIST_KEYS = {
  interface: 'name',
  vlan: 'vlan-id',
  'network-instance': 'name',
  'mst-instance': 'mst-id',
} as const;

const documentOf = (sw: SwitchSet, left: LeftOut): Json => ({
  ...interfaces(sw, left),
  ...vlans(sw),
  ...spanningTree(sw, left),
  ...lacp(sw),
  'openconfig-lldp:lldp': { config: { enabled: true, 'system-name': sw.name } },
});

const listed = <T>(key: string, items: readonly T[]): Json => (items.length === 0 ? {} : { [key]: items });

function interfaces(sw: SwitchSet, left: LeftOut): Json {
  const all = [
    ...sw.ports.map((port) => portInterface(port, left)),
    ...sw.bundles.map((each) => bundleInterface(each, left)),
  ];
  return { 'openconfig-interfaces:interfaces': { interface: all } };
}

const about = (name: string, type: string, enabled: boolean, description: string | null): Json => ({
  name,
  type: `iana-if-type:${type}`,
  enabled,
  ...(description === null ? {} : { description }),
});

function portInterface(port: PortSet, left: LeftOut): Json {
  const speed = SPEEDS[port.speed];
  if (speed === undefined) left.note(`The model has no speed of ${port.speed} Mb/s`, port.interface);
  if (port.stormLimit) left.note('The model has no storm limit', port.interface);
  return {
    name: port.interface,
    config: about(port.interface, 'ethernetCsmacd', port.up, port.to && `to ${port.to}`),
    'openconfig-if-ethernet:ethernet': {
      config: {
        ...(speed === undefined ? {} : { 'port-speed': `openconfig-if-ethernet:SPEED_${speed}` }),
        ...(port.bundle === null ? {} : { 'openconfig-if-aggregate:aggregate-id': port.bundle }),
      },
      ...(port.bundle === null ? switched(port) : {}),
    },
  };
}

function bundleInterface(bundle: BundleSet, left: LeftOut): Json {
  if (bundle.maxActive < bundle.members.length)
    left.note('The model has no maximum of active links of a bundle', bundle.interface);
  if (bundle.hash !== '2') left.note('The model has no hash of a bundle', bundle.interface);
  if (bundle.mode === 'initiate' || bundle.mode === 'answer')
    left.note('The model has no negotiation older than LACP: the bundle is static', bundle.interface);
  return {
    name: bundle.interface,
    config: about(bundle.interface, 'ieee8023adLag', bundle.up, bundle.name),
    'openconfig-if-aggregate:aggregation': {
      config: { 'lag-type': negotiates(bundle) ? 'LACP' : 'STATIC', 'min-links': bundle.minLinks },
      ...switched(bundle),
    },
  };
}

function switched({ vlans }: BridgePortSet): Json {
  const config =
    vlans.mode === 'access'
      ? { 'interface-mode': 'ACCESS', 'access-vlan': vlans.vlan }
      : {
          'interface-mode': 'TRUNK',
          'native-vlan': vlans.native,
          'trunk-vlans': vlanSet(vlans.allowed)
            .ranges()
            .map(([from, to]) => (from === to ? from : `${from}..${to}`)),
        };
  return { 'openconfig-vlan:switched-vlan': { config } };
}

function vlans({ vlans: all }: SwitchSet): Json {
  const vlan = all.map(({ id, name }) => ({
    'vlan-id': id,
    config: { 'vlan-id': id, status: 'ACTIVE', ...(name === null ? {} : { name }) },
  }));
  return {
    'openconfig-network-instance:network-instances': {
      'network-instance': [
        {
          name: 'default',
          config: { name: 'default', type: 'openconfig-network-instance-types:DEFAULT_INSTANCE' },
          vlans: { vlan },
        },
      ],
    },
  };
}

function spanningTree(sw: SwitchSet, left: LeftOut): Json {
  const protocol = PROTOCOLS[sw.mode];
  if (protocol === null) {
    left.note(
      sw.mode === 'off'
        ? 'The switch runs no spanning tree, and nothing of it is set'
        : `The model has no spanning tree of the kind ${sw.modeName}: nothing of it is set`,
    );
    return {};
  }
  const ports = outsideOf(sw);
  for (const port of ports) {
    if (port.loopProbe) left.note('The model has no loop probe', port.interface);
    if (port.restrictedTcn) left.note('The model has no restricted topology change', port.interface);
    if (port.rootGuard && port.loopGuard)
      left.note('The model has one guard a port: root guard is set, loop guard is not', port.interface);
    if (port.bpduRx !== port.bpduTx) left.note('The model discards BPDUs both ways or not at all', port.interface);
    if (port.speaks !== null) left.note('The model has no port that speaks otherwise than its switch', port.interface);
  }
  return {
    'openconfig-spanning-tree:stp': {
      global: {
        config: {
          'enabled-protocol': [protocol],
          ...(sw.recovery === null ? {} : { 'bpduguard-timeout-recovery': sw.recovery }),
        },
      },
      ...(sw.mode === 'rstp'
        ? { rstp: single(sw) }
        : sw.mode === 'mstp'
          ? { mstp: multiple(sw, left) }
          : { 'rapid-pvst': perVlan(sw) }),
      interfaces: {
        interface: ports.map((port) => ({
          name: port.interface,
          config: {
            name: port.interface,
            'edge-port': `openconfig-spanning-tree-types:${port.edge ? 'EDGE_ENABLE' : port.autoEdge ? 'EDGE_AUTO' : 'EDGE_DISABLE'}`,
            'link-type': 'P2P',
            guard: port.rootGuard ? 'ROOT' : port.loopGuard ? 'LOOP' : 'NONE',
            'bpdu-guard': port.bpduGuard,
            'bpdu-filter': !port.bpduRx && !port.bpduTx,
          },
        })),
      },
    },
  };
}

const timers = ({ timers: { hello, maxAge, forwardDelay, txHold } }: SwitchSet): Json => ({
  'hello-time': hello,
  'max-age': maxAge,
  'forwarding-delay': forwardDelay,
  'hold-count': txHold,
});

/** What ports have in a tree; those with nothing set are left to their speed. */
function inTree(sw: SwitchSet, { tree }: TreeSet): Json {
  const interfaces = outsideOf(sw).map((port) => {
    const { cost, priority } = port.trees.find((each) => each.tree === tree)!;
    return {
      name: port.interface,
      config: { name: port.interface, ...(cost === null ? {} : { cost }), 'port-priority': priority },
    };
  });
  return interfaces.length === 0 ? {} : { interfaces: { interface: interfaces } };
}

function single(sw: SwitchSet): Json {
  const [tree] = sw.trees as [TreeSet];
  return { config: { ...timers(sw), 'bridge-priority': tree.priority }, ...inTree(sw, tree) };
}

function perVlan(sw: SwitchSet): Json {
  return listed(
    'vlan',
    sw.trees.map((tree) => ({
      'vlan-id': tree.number,
      config: { 'vlan-id': tree.number, ...timers(sw), 'bridge-priority': tree.priority },
      ...inTree(sw, tree),
    })),
  );
}

function multiple(sw: SwitchSet, left: LeftOut): Json {
  const [common, ...instances] = sw.trees as [TreeSet, ...TreeSet[]];
  if (common.priority !== 32_768) left.note(`The model has no priority of the CIST: it would be ${common.priority}`);
  return {
    config: {
      name: sw.region?.name ?? '',
      revision: sw.region?.revision ?? 0,
      'max-hop': sw.timers.maxHops,
      ...timers(sw),
    },
    'mst-instances': listed(
      'mst-instance',
      instances.map((tree) => ({
        'mst-id': tree.number,
        config: {
          'mst-id': tree.number,
          vlan: vlanSet(tree.vlans)
            .ranges()
            .map(([from, to]) => (from === to ? from : `${from}..${to}`)),
          'bridge-priority': tree.priority,
        },
        ...inTree(sw, tree),
      })),
    ),
  };
}

function lacp(sw: SwitchSet): Json {
  const all = sw.bundles.filter(negotiates);
  if (all.length === 0) return {};
  return {
    'openconfig-lacp:lacp': {
      config: { 'system-priority': sw.lacpSystemPriority },
      interfaces: {
        interface: all.map((bundle) => ({
          name: bundle.interface,
          config: {
            name: bundle.interface,
            interval: bundle.timeout === 'fast' ? 'FAST' : 'SLOW',
            'lacp-mode': bundle.mode === 'active' ? 'ACTIVE' : 'PASSIVE',
            'system-id-mac': sw.mac,
            'system-priority': sw.lacpSystemPriority,
          },
        })),
      },
    },
  };
}
