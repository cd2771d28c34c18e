/** MST configurations and instances as management information (IEEE8021-MSTP-MIB, 802.1Q-2018 17.7.6): told, and read. */
import { VlanSet, vlanSet } from '../../../model/vlanSet';
import type { BridgeId } from '../../../topology/bridgeId';
import type { ObservedMst, ObservedSwitch, ObservedTree, ObservedTreePort } from '../observation';
import { mibTable, written, type Placed, type Told, type Varbind } from './mib';
import { idOctets, idOf, portList, portsOf } from './values';

/** Where a reader begins. */
export const MSTP_ROOT = '1.3.111.2.802.1.1.6.1';

/** Their first index is the component: a bridge that is one has the number 1 (802.1Q-2018 17.3.2). */
const CIST_TABLE = mibTable(`${MSTP_ROOT}.1.1`, 1, {
  ieee8021MstpCistBridgeIdentifier: [2, 'octets'],
  ieee8021MstpCistRegionalRootIdentifier: [4, 'octets'],
  ieee8021MstpCistPathCost: [5, 'gauge'],
  ieee8021MstpCistMaxHops: [6, 'integer'],
});
const INSTANCES = mibTable(`${MSTP_ROOT}.2.1`, 2, {
  ieee8021MstpBridgeId: [3, 'octets'],
  ieee8021MstpTimeSinceTopologyChange: [4, 'ticks'],
  ieee8021MstpTopologyChanges: [5, 'counter64'],
  ieee8021MstpDesignatedRoot: [7, 'octets'],
  ieee8021MstpRootPathCost: [8, 'integer'],
  ieee8021MstpRootPort: [9, 'gauge'],
  ieee8021MstpBridgePriority: [10, 'integer'],
  ieee8021MstpVids0: [11, 'octets'],
  ieee8021MstpVids1: [12, 'octets'],
  ieee8021MstpVids2: [13, 'octets'],
  ieee8021MstpVids3: [14, 'octets'],
});
const INSTANCE_PORTS = mibTable(`${MSTP_ROOT}.4.1`, 3, {
  ieee8021MstpPortState: [5, 'integer'],
  ieee8021MstpPortPriority: [6, 'integer'],
  ieee8021MstpPortPathCost: [7, 'integer'],
  ieee8021MstpPortDesignatedRoot: [8, 'octets'],
  ieee8021MstpPortDesignatedBridge: [10, 'octets'],
  ieee8021MstpPortRole: [12, 'integer'],
});
const CONFIGURATION = mibTable(`${MSTP_ROOT}.7.1`, 1, {
  ieee8021MstpConfigurationName: [3, 'text'],
  ieee8021MstpRevisionLevel: [4, 'gauge'],
  ieee8021MstpConfigurationDigest: [5, 'octets'],
});

/** ieee8021MstpPortState, ieee8021MstpPortRole. */
const STATES = { disabled: 1, listening: 2, learning: 3, forwarding: 4, discarding: 5 } as const;
const ROLES = { root: 1, alternate: 2, designated: 3, backup: 4 } as const;
const COMPONENT = 1;
/** VIDs that one of the four columns tells of: a bit each, the first one of 1, 1025, 2049, 3073 (numbered from 0). */
const A_COLUMN = 1024;

const isInstance = ({ tree }: ObservedTree): boolean => tree.startsWith('mst:');
const mstidOf = ({ tree }: ObservedTree): number => Number(tree.split(':')[1]);
const octetsOf = (hex: string): Uint8Array =>
  Uint8Array.from(hex.match(/../g) ?? [], (digits) => Number.parseInt(digits, 16));
const hexOf = (octets: Uint8Array): string =>
  Array.from(octets, (octet) => octet.toString(16).padStart(2, '0')).join('');

/** What a switch that speaks MSTP answers beside the CIST's BRIDGE-MIB. */
export function mstpTold({ mst, trees }: ObservedSwitch): Varbind[] {
  if (!mst) return [];
  const cist = trees.find((each) => each.tree === 'cst');
  const instances = trees.filter(isInstance);
  return [
    ...written(CIST_TABLE, [
      {
        at: [COMPONENT],
        ieee8021MstpCistBridgeIdentifier: cist && idOctets(cist.bridge),
        ieee8021MstpCistRegionalRootIdentifier: mst.regionalRoot ? idOctets(mst.regionalRoot) : undefined,
        ieee8021MstpCistPathCost: mst.internalCost,
        ieee8021MstpCistMaxHops: mst.maxHops ?? undefined,
      },
    ]),
    ...written(
      INSTANCES,
      instances.map((tree) => {
        const vids = vidsOf(mst.instances.find(({ instance }) => instance === mstidOf(tree))?.vlans ?? '');
        return {
          at: [COMPONENT, mstidOf(tree)],
          ieee8021MstpBridgeId: idOctets(tree.bridge),
          ieee8021MstpTimeSinceTopologyChange: Math.round(tree.sinceTopologyChange * 100),
          ieee8021MstpTopologyChanges: tree.topologyChanges,
          ieee8021MstpDesignatedRoot: idOctets(tree.root),
          ieee8021MstpRootPathCost: tree.rootPathCost,
          ieee8021MstpRootPort: tree.rootPort ?? 0,
          ieee8021MstpBridgePriority: tree.bridge.priority & 0xf000,
          ieee8021MstpVids0: vids[0]!,
          ieee8021MstpVids1: vids[1]!,
          ieee8021MstpVids2: vids[2]!,
          ieee8021MstpVids3: vids[3]!,
        };
      }),
    ),
    ...written(
      INSTANCE_PORTS,
      instances.flatMap((tree) =>
        tree.ports.map((port) => ({
          at: [COMPONENT, mstidOf(tree), port.port],
          ieee8021MstpPortState: port.state === 'blocking' ? STATES.discarding : STATES[port.state],
          ieee8021MstpPortPriority: port.priority,
          ieee8021MstpPortPathCost: port.cost,
          ieee8021MstpPortDesignatedRoot: port.designatedRoot ? idOctets(port.designatedRoot) : undefined,
          ieee8021MstpPortDesignatedBridge: port.designatedBridge ? idOctets(port.designatedBridge) : undefined,
          ieee8021MstpPortRole: port.role === 'disabled' ? undefined : ROLES[port.role],
        })),
      ),
    ),
    ...written(CONFIGURATION, [
      {
        at: [COMPONENT],
        ieee8021MstpConfigurationName: mst.name,
        ieee8021MstpRevisionLevel: mst.revision,
        ieee8021MstpConfigurationDigest: mst.digest === null ? undefined : octetsOf(mst.digest),
      },
    ]),
  ];
}

/** A text such as `15,25` as the four columns. */
function vidsOf(vlans: string): Uint8Array[] {
  const vids = [...vlanSet(vlans).ranges()].flatMap(([first, last]) =>
    Array.from({ length: last - first + 1 }, (_, i) => first + i),
  );
  // A list of ports numbers its bits from 1, these number them from 0.
  return [0, 1, 2, 3].map((column) =>
    portList(
      vids.flatMap((vid) => (Math.floor(vid / A_COLUMN) === column ? [(vid % A_COLUMN) + 1] : [])),
      A_COLUMN / 8,
    ),
  );
}

interface MstpTold {
  readonly mst: ObservedMst;
  readonly trees: readonly ObservedTree[];
  /** Whether it tells what names its region: else nobody knows who is in it. */
  readonly isConfigured: boolean;
}

/** Null where a switch tells of no MST configuration; `cist`: what it tells of the CIST. */
export function mstpRead(told: Told, cist: ObservedTree | undefined): MstpTold | null {
  const [configuration] = told.rows(CONFIGURATION);
  const [own] = told.rows(CIST_TABLE);
  const rows = told.rows(INSTANCES).filter(({ at: [component] }) => component === COMPONENT);
  if (!configuration && rows.length === 0) return null;
  const digest = configuration?.ieee8021MstpConfigurationDigest;
  const mst: ObservedMst = {
    name: configuration?.ieee8021MstpConfigurationName ?? '',
    revision: configuration?.ieee8021MstpRevisionLevel ?? 0,
    digest: digest?.length === 16 ? hexOf(digest) : null,
    instances: rows.map((row) => {
      const vids = [row.ieee8021MstpVids0, row.ieee8021MstpVids1, row.ieee8021MstpVids2, row.ieee8021MstpVids3].flatMap(
        (octets, column) => portsOf(octets).map((bit) => column * A_COLUMN + bit - 1),
      );
      const inRange = vids.filter((vid) => vid >= 1 && vid <= 4094);
      return { instance: row.at[1]!, vlans: VlanSet.of(inRange.map((vid) => [vid, vid] as const)).format() };
    }),
    regionalRoot: idOf(own?.ieee8021MstpCistRegionalRootIdentifier),
    internalCost: own?.ieee8021MstpCistPathCost ?? 0,
    maxHops: own?.ieee8021MstpCistMaxHops ?? null,
  };
  const ports = told.rows(INSTANCE_PORTS).filter(({ at: [component] }) => component === COMPONENT);
  const trees = rows.flatMap((row): ObservedTree[] => {
    const [, mstid] = row.at;
    const [bridge, root] = [idOf(row.ieee8021MstpBridgeId), idOf(row.ieee8021MstpDesignatedRoot)];
    if (!bridge || !root) return [];
    return [
      {
        tree: `mst:${mstid!}`,
        speaks: 'mstp',
        bridge,
        root,
        rootPathCost: row.ieee8021MstpRootPathCost ?? 0,
        rootPort: row.ieee8021MstpRootPort || null,
        // An instance has the timers of the CIST (802.1Q-2018 13.26.23).
        set: cist?.set ?? null,
        maxAge: cist?.maxAge ?? 0,
        hello: cist?.hello ?? 0,
        forwardDelay: cist?.forwardDelay ?? 0,
        topologyChanges: row.ieee8021MstpTopologyChanges ?? 0,
        sinceTopologyChange: (row.ieee8021MstpTimeSinceTopologyChange ?? 0) / 100,
        ports: ports.filter(({ at }) => at[1] === mstid).map((port) => portRead(port, bridge)),
      },
    ];
  });
  return { mst, trees, isConfigured: configuration !== undefined };
}

const nameIn = <T extends string>(names: Readonly<Record<T, number>>, value: number | undefined): T | undefined =>
  (Object.keys(names) as T[]).find((name) => names[name] === value);

function portRead(row: Placed<(typeof INSTANCE_PORTS)['columns']>, own: BridgeId): ObservedTreePort {
  const said = nameIn(STATES, row.ieee8021MstpPortState) ?? 'disabled';
  const state = said === 'listening' ? 'discarding' : said;
  const designated = idOf(row.ieee8021MstpPortDesignatedBridge);
  const role = nameIn(ROLES, row.ieee8021MstpPortRole);
  return {
    port: row.at[2]!,
    state,
    role:
      state === 'disabled'
        ? 'disabled'
        : (role ?? (designated && designated.mac !== own.mac ? 'alternate' : 'designated')),
    cost: row.ieee8021MstpPortPathCost ?? 0,
    priority: row.ieee8021MstpPortPriority ?? 0,
    designatedRoot: idOf(row.ieee8021MstpPortDesignatedRoot),
    designatedBridge: designated,
    designatedPort: null,
    forwards: null,
  };
}
