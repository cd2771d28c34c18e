/** What an agent has told, as a switch. */
import { VlanSet } from '../../../model/vlanSet';
import type { ObservedBundle, ObservedSwitch, ObservedTree, ObservedTreePort } from '../observation';
import { Told, type Varbind } from './mib';
import { mstpRead } from './mstp';
import * as mib from './tables';
import { idOf, macText, pairOf, portsOf, stateOf } from './values';

/** A bridge within a switch, that is asked by a community or a context of its own. */
export interface LogicalBridge {
  readonly name: string;
  /** Null where it has none. */
  readonly community: Uint8Array | null;
  readonly context: string | null;
}

/** The bridges within a switch that its own answers name. */
export const logicalBridges = (own: Iterable<Varbind>): LogicalBridge[] =>
  new Told(own)
    .rows(mib.LOGICAL)
    .filter(({ entLogicalType: type }) => type === mib.BRIDGE_TYPE || type?.startsWith(`${mib.BRIDGE_TYPE}.`))
    .map((row) => ({
      name: row.entLogicalDescr ?? `bridge ${row.at[0]!}`,
      community: row.entLogicalCommunity && row.entLogicalCommunity.length > 0 ? row.entLogicalCommunity : null,
      context: row.entLogicalContextName || null,
    }));

/** `bridges`: what was told in the place of bridges within it. */
export function readAgent(
  source: string,
  own: Iterable<Varbind>,
  bridges: readonly Iterable<Varbind>[] = [],
): ObservedSwitch {
  const told = new Told(own);
  const missing: string[] = [];
  const { sysName } = told.scalars(mib.SYSTEM);
  const base = told.scalars(mib.BASE).dot1dBaseBridgeAddress;
  const mac = base?.length === 6 ? macText(base) : null;
  const within = bridges.map((each) => new Told(each));
  const trees = new Map<string, ObservedTree>();
  for (const each of [...within, told]) {
    const tree = treeOf(each, mac);
    if (tree && !trees.has(tree.tree)) trees.set(tree.tree, tree);
  }
  const mstp = mstpRead(told, trees.get('cst'));
  for (const each of mstp?.trees ?? []) trees.set(each.tree, each);
  if (trees.get('cst')?.speaks === 'mstp' && !mstp)
    missing.push('It runs MSTP, and tells of no region and instances (IEEE8021-MSTP-MIB).');
  if (mstp && !mstp.isConfigured)
    missing.push('It tells of instances, and of no MST configuration (IEEE8021-MSTP-MIB).');
  const ports = portsTold(told);
  if (ports.length === 0) missing.push('It tells of no interfaces (IF-MIB).');
  if (mac === null) missing.push('It tells of no bridge (BRIDGE-MIB).');
  else if (trees.size === 0) missing.push('It tells of no spanning tree (BRIDGE-MIB).');
  const vlanRows = told.rows(mib.VLAN_CURRENT);
  if (vlanRows.length === 0) missing.push('It tells of no VLANs (Q-BRIDGE-MIB).');
  const tellsNeighbours = told.scalars(mib.LLDP_LOCAL).lldpLocChassisId !== undefined;
  if (!tellsNeighbours) missing.push('It tells of no neighbours (LLDP-MIB).');
  const wrong = new Set([told, ...within].flatMap((each) => [...each.wrong]));
  for (const name of wrong) missing.push(`${name} is of another kind than the standard has it.`);
  const number = (a: { readonly tree: string }): number => Number(a.tree.split(':')[1] ?? 0);
  return {
    source,
    chassis: chassisOf(told),
    name: sysName ?? '',
    mac,
    vlans: vlanRows.length === 0 ? null : VlanSet.of(vlanRows.map(({ at: [, vid] }) => [vid!, vid!] as const)).format(),
    ports,
    bundles: bundlesTold(told, ports),
    trees: [...trees.values()].sort((a, b) => number(a) - number(b)),
    mst: mstp?.mst ?? null,
    neighbours: neighboursTold(told, ports),
    tellsNeighbours,
    missing,
  };
}

function chassisOf(told: Told): string | null {
  const { lldpLocChassisId: id, lldpLocChassisIdSubtype: subtype } = told.scalars(mib.LLDP_LOCAL);
  return id === undefined || id.length === 0 ? null : idText(subtype, mib.CHASSIS_MAC, id);
}

function portsTold(told: Told): ObservedSwitch['ports'] {
  const more = new Map(told.rows(mib.IF_X).map((row) => [row.at[0]!, row]));
  const bridgePort = new Map(told.rows(mib.BASE_PORT).map((row) => [row.dot1dBasePortIfIndex, row.at[0]!]));
  const vlans = told.rows(mib.VLAN_CURRENT);
  const edge = new Map(told.rows(mib.STP_PORT_MORE).map((row) => [row.at[0]!, row.dot1dStpPortAdminEdgePort]));
  const pvid = new Map(told.rows(mib.PORT_VLAN).map((row) => [row.at[0]!, row.dot1qPvid]));
  const egress = new Map(vlans.map((row) => [row.at[1]!, new Set(portsOf(row.dot1qVlanCurrentEgressPorts))]));
  const untagged = new Map(vlans.map((row) => [row.at[1]!, new Set(portsOf(row.dot1qVlanCurrentUntaggedPorts))]));
  return told.rows(mib.IF).flatMap((row) => {
    const index = row.at[0]!;
    const ofX = more.get(index);
    const type = row.ifType;
    if (type !== undefined && !Object.values<number>(mib.IF_TYPES).includes(type)) return [];
    const number = bridgePort.get(index) ?? index;
    const carried = [...egress].flatMap(([vid, ports]) => (ports.has(number) ? [vid] : []));
    const own = pvid.get(number);
    const high = ofX?.ifHighSpeed ?? 0;
    return [
      {
        number,
        interface: ofX?.ifName || row.ifDescr || String(index),
        alias: ofX?.ifAlias ?? '',
        speed: high > 0 ? high : Math.round((row.ifSpeed ?? 0) / 1_000_000),
        mac: row.ifPhysAddress?.length === 6 ? macText(row.ifPhysAddress) : null,
        up: row.ifAdminStatus === 1,
        signal: row.ifOperStatus === 1,
        edge: edge.has(number) ? edge.get(number) === mib.TRUTH.true : null,
        vlans:
          vlans.length === 0 || (!bridgePort.has(index) && carried.length === 0)
            ? null
            : {
                carried: VlanSet.of(carried.map((vid) => [vid, vid] as const)).format(),
                untagged: own !== undefined && untagged.get(own)?.has(number) ? own : null,
              },
      },
    ];
  });
}

const STATE_NAMES = Object.fromEntries(Object.entries(mib.STP_STATES).map(([name, value]) => [value, name])) as Record<
  number,
  keyof typeof mib.STP_STATES
>;
const VERSION_NAMES = Object.fromEntries(
  Object.entries(mib.STP_VERSIONS).map(([name, value]) => [value, name]),
) as Record<number, keyof typeof mib.STP_VERSIONS>;

function treeOf(told: Told, mac: string | null): ObservedTree | null {
  const stp = told.scalars(mib.STP);
  const root = idOf(stp.dot1dStpDesignatedRoot);
  const priority = stp.dot1dStpPriority;
  const base = told.scalars(mib.BASE).dot1dBaseBridgeAddress;
  const address = base?.length === 6 ? macText(base) : mac;
  if (!root || priority === undefined || address === null) return null;
  const bridge = { priority, mac: address };
  // The system ID extension says which tree it is (802.1Q-2018 13.26.2).
  const vid = priority & 0xfff;
  const speaks = VERSION_NAMES[stp.dot1dStpVersion ?? -1] ?? null;
  const rootPort = stp.dot1dStpRootPort || null;
  return {
    tree: vid === 0 ? 'cst' : `vlan:${vid}`,
    speaks,
    bridge,
    root,
    rootPathCost: stp.dot1dStpRootCost ?? 0,
    rootPort,
    maxAge: (stp.dot1dStpMaxAge ?? 0) / 100,
    hello: (stp.dot1dStpHelloTime ?? 0) / 100,
    forwardDelay: (stp.dot1dStpForwardDelay ?? 0) / 100,
    set:
      stp.dot1dStpBridgeMaxAge === undefined
        ? null
        : {
            maxAge: stp.dot1dStpBridgeMaxAge / 100,
            hello: (stp.dot1dStpBridgeHelloTime ?? 0) / 100,
            forwardDelay: (stp.dot1dStpBridgeForwardDelay ?? 0) / 100,
            txHold: stp.dot1dStpTxHoldCount ?? null,
          },
    topologyChanges: stp.dot1dStpTopChanges ?? 0,
    sinceTopologyChange: (stp.dot1dStpTimeSinceTopologyChange ?? 0) / 100,
    ports: told.rows(mib.STP_PORT).map((row): ObservedTreePort => {
      const port = row.at[0]!;
      const said = STATE_NAMES[row.dot1dStpPortState ?? 0] ?? 'disabled';
      const state =
        speaks !== null && speaks !== 'stp' && (said === 'blocking' || said === 'listening') ? 'discarding' : said;
      const designatedBridge = idOf(row.dot1dStpPortDesignatedBridge);
      const designatedPort = pairOf(row.dot1dStpPortDesignatedPort);
      return {
        port,
        state,
        role: roleOf(state, port === rootPort, bridge, designatedBridge, (designatedPort ?? 0) & 0xfff, port),
        cost: row.dot1dStpPortPathCost32 || (row.dot1dStpPortPathCost ?? 0),
        priority: row.dot1dStpPortPriority ?? 0,
        designatedRoot: idOf(row.dot1dStpPortDesignatedRoot),
        designatedBridge,
        designatedPort,
        forwards: row.dot1dStpPortForwardTransitions ?? null,
      };
    }),
  };
}

/** Agents tell who is designated, not roles: they follow. */
function roleOf(
  state: ObservedTreePort['state'],
  isRoot: boolean,
  own: ObservedTree['bridge'],
  designated: ObservedTree['bridge'] | null,
  designatedNumber: number,
  port: number,
): ObservedTreePort['role'] {
  if (state === 'disabled') return 'disabled';
  if (isRoot) return 'root';
  if (designated && (designated.mac !== own.mac || designated.priority !== own.priority)) return 'alternate';
  return designatedNumber === port || designated === null ? 'designated' : 'backup';
}

function bundlesTold(told: Told, ports: ObservedSwitch['ports']): ObservedBundle[] {
  const members = told.rows(mib.AGGREGATION_PORT);
  return told.rows(mib.AGGREGATOR).flatMap(({ at: [number] }): ObservedBundle[] => {
    const own = members.filter(
      (row) =>
        row.at[0] !== number &&
        (row.dot3adAggPortSelectedAggID === number || row.dot3adAggPortAttachedAggID === number),
    );
    if (own.length === 0) return [];
    return [
      {
        number: number!,
        interface: ports.find((port) => port.number === number)?.interface ?? String(number),
        members: own.map((row) => {
          const [actor, partner] = [
            stateOf(row.dot3adAggPortActorOperState),
            stateOf(row.dot3adAggPortPartnerOperState),
          ];
          return {
            port: row.at[0]!,
            active: row.dot3adAggPortAttachedAggID === number,
            lacp:
              actor === null || partner === null
                ? null
                : {
                    actor: side(actor, {
                      system: row.dot3adAggPortActorSystemID,
                      systemPriority: row.dot3adAggPortActorSystemPriority,
                      key: row.dot3adAggPortActorOperKey,
                      portPriority: row.dot3adAggPortActorPortPriority,
                      port: row.dot3adAggPortActorPort,
                    }),
                    partner: side(partner, {
                      system: row.dot3adAggPortPartnerOperSystemID,
                      systemPriority: row.dot3adAggPortPartnerOperSystemPriority,
                      key: row.dot3adAggPortPartnerOperKey,
                      portPriority: row.dot3adAggPortPartnerOperPortPriority,
                      port: row.dot3adAggPortPartnerOperPort,
                    }),
                  },
          };
        }),
      },
    ];
  });
}

type Side = NonNullable<ObservedBundle['members'][number]['lacp']>['actor'];

/** What is not told is 0. */
const side = (
  state: number,
  {
    system,
    ...told
  }: { readonly system: Uint8Array | undefined } & Record<Exclude<keyof Side, 'system' | 'state'>, number | undefined>,
): Side => ({
  systemPriority: told.systemPriority ?? 0,
  system: macText(system ?? new Uint8Array(6)),
  key: told.key ?? 0,
  portPriority: told.portPriority ?? 0,
  port: told.port ?? 0,
  state,
});

/** `mac`: the subtype of an address. */
const idText = (subtype: number | undefined, mac: number, octets: Uint8Array): string =>
  subtype === mac && octets.length === 6 ? macText(octets) : new TextDecoder().decode(octets).replaceAll('\u0000', '');

function neighboursTold(told: Told, ports: ObservedSwitch['ports']): ObservedSwitch['neighbours'] {
  const ownPort = new Map(
    told.rows(mib.LLDP_PORT).map((row) => {
      const name = row.lldpLocPortId ? idText(row.lldpLocPortIdSubtype, mib.PORT_MAC, row.lldpLocPortId) : '';
      const port = ports.find((each) => each.interface === name || each.mac === name);
      return [row.at[0]!, port?.number ?? row.at[0]!];
    }),
  );
  const addresses = new Map(
    told.rows(mib.LLDP_ADDRESS).flatMap(({ at }) => {
      const [time, port, index, kind, length, ...address] = at;
      return kind === mib.IPV4 && length === 4 && address.length === 4 && address.every((each) => each < 256)
        ? [[[time, port, index].join('.'), address.join('.')] as const]
        : [];
    }),
  );
  return told.rows(mib.LLDP_REMOTE).map((row) => ({
    address: addresses.get(row.at.join('.')) ?? null,
    port: ownPort.get(row.at[1]!) ?? row.at[1]!,
    system: row.lldpRemSysName ?? null,
    kind: kindOf(row.lldpRemSysCapEnabled),
    chassis: idText(row.lldpRemChassisIdSubtype, mib.CHASSIS_MAC, row.lldpRemChassisId ?? new Uint8Array()),
    portId: idText(row.lldpRemPortIdSubtype, mib.PORT_MAC, row.lldpRemPortId ?? new Uint8Array()),
  }));
}

/** What forwards frames is a switch, whatever else it is. */
function kindOf(enabled: Uint8Array | undefined): ObservedSwitch['neighbours'][number]['kind'] {
  const bits = portsOf(enabled);
  return bits.includes(mib.CAPABILITIES.bridge) ? 'switch' : bits.includes(mib.CAPABILITIES.station) ? 'host' : null;
}
