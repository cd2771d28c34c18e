/** A switch as its management information: what a stand-in answers. */
import { type VlanSet, vlanSet } from '../../../model/vlanSet';
import type { ObservedSwitch, ObservedTree } from '../observation';
import { compareNames, written, type Varbind } from './mib';
import { mstpTold } from './mstp';
import * as mib from './tables';
import { idOctets, macOctets, pairOctets, portList, stateBits } from './values';

/** An agent's answers, in the order of their names; `bridges`: what it answers in the contexts of bridges within it. */
export interface Agent {
  readonly own: readonly Varbind[];
  readonly bridges: ReadonlyMap<string, readonly Varbind[]>;
}

/** The context of a tree's bridge, and what is added to a community for it. */
export const contextOf = (tree: string): string => tree.replace(':', '-');

/** `upTime`: hundredths of a second; `communityOf`: by which community a bridge within it is asked, where it is by one. */
export function agentOf(
  sw: ObservedSwitch,
  upTime: number,
  communityOf: (context: string) => string | null = () => null,
): Agent {
  const [first] = sw.trees;
  // The bridge of a VLAN is a logical entity of its own; the first is what the switch itself answers for, too.
  const within = sw.trees.filter(({ tree }) => tree.startsWith('vlan:'));
  const own = [
    ...written(mib.SYSTEM, [
      {
        at: [0],
        sysDescr: 'Simulated switch',
        sysObjectID: '0.0',
        sysUpTime: upTime,
        sysName: sw.name,
        sysServices: 2,
      },
    ]),
    ...interfaces(sw),
    ...bridge(sw, first ?? null),
    ...vlans(sw),
    ...written(
      mib.LOGICAL,
      within.map(({ tree }, i) => ({
        at: [i + 1],
        entLogicalDescr: tree.replace('vlan:', 'VLAN '),
        entLogicalType: mib.BRIDGE_TYPE,
        entLogicalCommunity: octetsOf(communityOf(contextOf(tree)) ?? ''),
        entLogicalContextName: contextOf(tree),
      })),
    ),
    ...lldp(sw),
    ...aggregation(sw),
    ...mstpTold(sw),
  ];
  return {
    own: inOrder(own),
    bridges: new Map(within.map((tree) => [contextOf(tree.tree), inOrder(bridge(sw, tree))])),
  };
}

const inOrder = (all: readonly Varbind[]): Varbind[] =>
  all
    .map((each) => ({ each, name: each.oid.split('.').map(Number) }))
    .sort((a, b) => compareNames(a.name, b.name))
    .map(({ each }) => each);

function interfaces({ ports, bundles }: ObservedSwitch): Varbind[] {
  const isBundle = new Set(bundles.map(({ number }) => number));
  return [
    ...written(
      mib.IF,
      ports.map((port) => ({
        at: [port.number],
        ifIndex: port.number,
        ifDescr: port.interface,
        ifType: isBundle.has(port.number) ? mib.IF_TYPES.ieee8023adLag : mib.IF_TYPES.ethernetCsmacd,
        ifMtu: 1500,
        ifSpeed: Math.min(port.speed * 1_000_000, 0xffffffff),
        ifPhysAddress: port.mac === null ? new Uint8Array() : macOctets(port.mac),
        ifAdminStatus: port.up ? 1 : 2,
        ifOperStatus: port.signal ? 1 : 2,
      })),
    ),
    ...written(
      mib.IF_X,
      ports.map(({ number, interface: ifName, speed, alias }) => ({
        at: [number],
        ifName,
        ifHighSpeed: speed,
        ifAlias: alias,
      })),
    ),
  ];
}

function bridge({ mac, ports }: ObservedSwitch, tree: ObservedTree | null): Varbind[] {
  const own = ports.filter(({ vlans: of }) => of !== null);
  return [
    ...written(mib.BASE, [
      {
        at: [0],
        dot1dBaseBridgeAddress: mac === null ? undefined : macOctets(mac),
        dot1dBaseNumPorts: own.length,
        dot1dBaseType: 2,
      },
    ]),
    ...written(
      mib.BASE_PORT,
      own.map(({ number }) => ({ at: [number], dot1dBasePort: number, dot1dBasePortIfIndex: number })),
    ),
    ...written(
      mib.STP_PORT_MORE,
      ports.flatMap(({ number, edge }) =>
        edge === null ? [] : [{ at: [number], dot1dStpPortAdminEdgePort: edge ? mib.TRUTH.true : mib.TRUTH.false }],
      ),
    ),
    ...(tree ? spanningTree(tree) : []),
  ];
}

const STATES = { ...mib.STP_STATES, discarding: mib.STP_STATES.blocking } as const;
const LARGEST_SHORT_COST = 65_535;

function spanningTree(tree: ObservedTree): Varbind[] {
  return [
    ...written(mib.STP, [
      {
        at: [0],
        dot1dStpProtocolSpecification: 3,
        dot1dStpPriority: tree.bridge.priority,
        dot1dStpTimeSinceTopologyChange: Math.round(tree.sinceTopologyChange * 100),
        dot1dStpTopChanges: tree.topologyChanges,
        dot1dStpDesignatedRoot: idOctets(tree.root),
        dot1dStpRootCost: tree.rootPathCost,
        dot1dStpRootPort: tree.rootPort ?? 0,
        dot1dStpMaxAge: tree.maxAge * 100,
        dot1dStpHelloTime: tree.hello * 100,
        dot1dStpForwardDelay: tree.forwardDelay * 100,
        ...(tree.set && {
          dot1dStpBridgeMaxAge: tree.set.maxAge * 100,
          dot1dStpBridgeHelloTime: tree.set.hello * 100,
          dot1dStpBridgeForwardDelay: tree.set.forwardDelay * 100,
          dot1dStpTxHoldCount: tree.set.txHold ?? undefined,
        }),
        dot1dStpVersion: tree.speaks === null ? undefined : mib.STP_VERSIONS[tree.speaks],
      },
    ]),
    ...written(
      mib.STP_PORT,
      tree.ports.map((port) => ({
        at: [port.port],
        dot1dStpPort: port.port,
        dot1dStpPortPriority: port.priority,
        dot1dStpPortState: STATES[port.state],
        dot1dStpPortEnable: port.state === 'disabled' ? 2 : 1,
        dot1dStpPortPathCost: Math.min(port.cost, LARGEST_SHORT_COST),
        dot1dStpPortDesignatedRoot: port.designatedRoot ? idOctets(port.designatedRoot) : undefined,
        dot1dStpPortDesignatedBridge: port.designatedBridge ? idOctets(port.designatedBridge) : undefined,
        dot1dStpPortDesignatedPort: port.designatedPort === null ? undefined : pairOctets(port.designatedPort),
        dot1dStpPortForwardTransitions: port.forwards ?? undefined,
        dot1dStpPortPathCost32: port.cost,
      })),
    ),
  ];
}

function vlans({ ports, vlans: known }: ObservedSwitch): Varbind[] {
  if (known === null) return [];
  const told = ports.flatMap(({ number, vlans: of }) => (of ? [{ number, ...of, set: vlanSet(of.carried) }] : []));
  const all = vlanSet(known);
  return [
    ...written(
      mib.VLAN_CURRENT,
      [...numbersIn(all)].map((vid) => ({
        at: [0, vid],
        dot1qVlanFdbId: vid,
        dot1qVlanCurrentEgressPorts: portList(told.filter(({ set }) => set.has(vid)).map(({ number }) => number)),
        dot1qVlanCurrentUntaggedPorts: portList(
          told.filter(({ set, untagged }) => untagged === vid && set.has(vid)).map(({ number }) => number),
        ),
        dot1qVlanStatus: 2,
      })),
    ),
    ...written(
      mib.PORT_VLAN,
      told.flatMap(({ number, untagged }) => (untagged === null ? [] : [{ at: [number], dot1qPvid: untagged }])),
    ),
  ];
}

function* numbersIn(set: VlanSet): Generator<number> {
  for (const [first, last] of set.ranges()) for (let vid = first; vid <= last; vid += 1) yield vid;
}

const octetsOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const isMac = (text: string): boolean => /^([0-9a-f]{2}:){5}[0-9a-f]{2}$/.test(text);

function lldp({ chassis: own, name, ports, bundles, neighbours }: ObservedSwitch): Varbind[] {
  const isBundle = new Set(bundles.map(({ number }) => number));
  return [
    ...written(mib.LLDP_LOCAL, [
      {
        at: [0],
        ...(own !== null && {
          lldpLocChassisIdSubtype: isMac(own) ? mib.CHASSIS_MAC : mib.CHASSIS_LOCAL,
          lldpLocChassisId: isMac(own) ? macOctets(own) : octetsOf(own),
        }),
        lldpLocSysName: name,
      },
    ]),
    ...written(
      mib.LLDP_PORT,
      ports
        .filter(({ number }) => !isBundle.has(number))
        .map((port) => ({
          at: [port.number],
          lldpLocPortIdSubtype: mib.PORT_NAME,
          lldpLocPortId: octetsOf(port.interface),
          lldpLocPortDesc: port.alias,
        })),
    ),
    ...written(
      mib.LLDP_REMOTE,
      neighbours.map(({ port, system, chassis, portId, kind }, i) => ({
        at: [0, port, i + 1],
        lldpRemChassisIdSubtype: isMac(chassis) ? mib.CHASSIS_MAC : mib.CHASSIS_LOCAL,
        lldpRemChassisId: isMac(chassis) ? macOctets(chassis) : octetsOf(chassis),
        lldpRemPortIdSubtype: isMac(portId) ? mib.PORT_MAC : mib.PORT_NAME,
        lldpRemPortId: isMac(portId) ? macOctets(portId) : octetsOf(portId),
        lldpRemSysName: system ?? undefined,
        lldpRemSysCapEnabled:
          kind === null ? undefined : portList([mib.CAPABILITIES[kind === 'switch' ? 'bridge' : 'station']]),
      })),
    ),
    ...written(
      mib.LLDP_ADDRESS,
      neighbours.flatMap(({ port, address }, i) =>
        address === null
          ? []
          : [{ at: [0, port, i + 1, mib.IPV4, 4, ...address.split('.').map(Number)], lldpRemManAddrIfSubtype: 2 }],
      ),
    ),
  ];
}

function aggregation({ mac, bundles }: ObservedSwitch): Varbind[] {
  return [
    ...written(
      mib.AGGREGATOR,
      bundles.map(({ number }) => ({
        at: [number],
        dot3adAggMACAddress: mac === null ? undefined : macOctets(mac),
      })),
    ),
    ...written(
      mib.AGGREGATION_PORT,
      bundles.flatMap(({ number, members }) =>
        members.map(({ port, active, lacp }) => ({
          at: [port],
          dot3adAggPortSelectedAggID: number,
          dot3adAggPortAttachedAggID: active ? number : 0,
          ...(lacp
            ? {
                dot3adAggPortActorSystemPriority: lacp.actor.systemPriority,
                dot3adAggPortActorSystemID: macOctets(lacp.actor.system),
                dot3adAggPortActorOperKey: lacp.actor.key,
                dot3adAggPortPartnerOperSystemPriority: lacp.partner.systemPriority,
                dot3adAggPortPartnerOperSystemID: macOctets(lacp.partner.system),
                dot3adAggPortPartnerOperKey: lacp.partner.key,
                dot3adAggPortActorPort: lacp.actor.port,
                dot3adAggPortActorPortPriority: lacp.actor.portPriority,
                dot3adAggPortPartnerOperPort: lacp.partner.port,
                dot3adAggPortPartnerOperPortPriority: lacp.partner.portPriority,
                dot3adAggPortActorOperState: stateBits(lacp.actor.state),
                dot3adAggPortPartnerOperState: stateBits(lacp.partner.state),
              }
            : {}),
        })),
      ),
    ),
  ];
}
