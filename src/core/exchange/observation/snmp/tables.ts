/** The tables that are read of switches, and that stand-ins have: standard ones alone. */
import { mibScalars, mibTable } from './mib';
import { MSTP_ROOT } from './mstp';

/** SNMPv2-MIB (RFC 3418). */
export const SYSTEM = mibScalars('1.3.6.1.2.1.1', {
  sysDescr: [1, 'text'],
  sysObjectID: [2, 'oid'],
  sysUpTime: [3, 'ticks'],
  sysName: [5, 'text'],
  sysServices: [7, 'integer'],
});

/** IF-MIB (RFC 2863). */
export const IF = mibTable('1.3.6.1.2.1.2.2.1', 1, {
  ifIndex: [1, 'integer'],
  ifDescr: [2, 'text'],
  ifType: [3, 'integer'],
  ifMtu: [4, 'integer'],
  ifSpeed: [5, 'gauge'],
  ifPhysAddress: [6, 'octets'],
  ifAdminStatus: [7, 'integer'],
  ifOperStatus: [8, 'integer'],
});
export const IF_X = mibTable('1.3.6.1.2.1.31.1.1.1', 1, {
  ifName: [1, 'text'],
  ifHighSpeed: [15, 'gauge'],
  ifAlias: [18, 'text'],
});
/** IANAifType-MIB. */
export const IF_TYPES = { ethernetCsmacd: 6, ieee8023adLag: 161 } as const;

/** BRIDGE-MIB (RFC 4188), with what RSTP-MIB (RFC 4318) adds. */
export const BASE = mibScalars('1.3.6.1.2.1.17.1', {
  dot1dBaseBridgeAddress: [1, 'octets'],
  dot1dBaseNumPorts: [2, 'integer'],
  dot1dBaseType: [3, 'integer'],
});
export const BASE_PORT = mibTable('1.3.6.1.2.1.17.1.4.1', 1, {
  dot1dBasePort: [1, 'integer'],
  dot1dBasePortIfIndex: [2, 'integer'],
});
export const STP = mibScalars('1.3.6.1.2.1.17.2', {
  dot1dStpProtocolSpecification: [1, 'integer'],
  dot1dStpPriority: [2, 'integer'],
  dot1dStpTimeSinceTopologyChange: [3, 'ticks'],
  dot1dStpTopChanges: [4, 'counter'],
  dot1dStpDesignatedRoot: [5, 'octets'],
  dot1dStpRootCost: [6, 'integer'],
  dot1dStpRootPort: [7, 'integer'],
  dot1dStpMaxAge: [8, 'integer'],
  dot1dStpHelloTime: [9, 'integer'],
  dot1dStpForwardDelay: [11, 'integer'],
  dot1dStpBridgeMaxAge: [12, 'integer'],
  dot1dStpBridgeHelloTime: [13, 'integer'],
  dot1dStpBridgeForwardDelay: [14, 'integer'],
  dot1dStpVersion: [16, 'integer'],
  dot1dStpTxHoldCount: [17, 'integer'],
});
export const STP_PORT = mibTable('1.3.6.1.2.1.17.2.15.1', 1, {
  dot1dStpPort: [1, 'integer'],
  dot1dStpPortPriority: [2, 'integer'],
  dot1dStpPortState: [3, 'integer'],
  dot1dStpPortEnable: [4, 'integer'],
  dot1dStpPortPathCost: [5, 'integer'],
  dot1dStpPortDesignatedRoot: [6, 'octets'],
  dot1dStpPortDesignatedBridge: [8, 'octets'],
  dot1dStpPortDesignatedPort: [9, 'octets'],
  dot1dStpPortForwardTransitions: [10, 'counter'],
  dot1dStpPortPathCost32: [11, 'integer'],
});
export const STP_PORT_MORE = mibTable('1.3.6.1.2.1.17.2.19.1', 1, { dot1dStpPortAdminEdgePort: [2, 'integer'] });
/** TruthValue (RFC 2579). */
export const TRUTH = { true: 1, false: 2 } as const;
/** dot1dStpPortState. */
export const STP_STATES = { disabled: 1, blocking: 2, listening: 3, learning: 4, forwarding: 5 } as const;
/** dot1dStpVersion. */
export const STP_VERSIONS = { stp: 0, rstp: 2, mstp: 3 } as const;
/** The type of a logical entity that is a bridge (ENTITY-MIB). */
export const BRIDGE_TYPE = '1.3.6.1.2.1.17';

/** Q-BRIDGE-MIB (RFC 4363); the first number of an index is a time filter. */
export const VLAN_CURRENT = mibTable('1.3.6.1.2.1.17.7.1.4.2.1', 2, {
  dot1qVlanFdbId: [3, 'gauge'],
  dot1qVlanCurrentEgressPorts: [4, 'octets'],
  dot1qVlanCurrentUntaggedPorts: [5, 'octets'],
  dot1qVlanStatus: [6, 'integer'],
});
export const PORT_VLAN = mibTable('1.3.6.1.2.1.17.7.1.4.5.1', 1, { dot1qPvid: [1, 'gauge'] });

/** ENTITY-MIB (RFC 6933): bridges within a switch, each asked by a community or context of its own. */
export const LOGICAL = mibTable('1.3.6.1.2.1.47.1.2.1.1', 1, {
  entLogicalDescr: [2, 'text'],
  entLogicalType: [3, 'oid'],
  entLogicalCommunity: [4, 'octets'],
  entLogicalContextName: [8, 'text'],
});

/** LLDP-MIB (IEEE 802.1AB-2005). */
export const LLDP_LOCAL = mibScalars('1.0.8802.1.1.2.1.3', {
  lldpLocChassisIdSubtype: [1, 'integer'],
  lldpLocChassisId: [2, 'octets'],
  lldpLocSysName: [3, 'text'],
});
export const LLDP_PORT = mibTable('1.0.8802.1.1.2.1.3.7.1', 1, {
  lldpLocPortIdSubtype: [2, 'integer'],
  lldpLocPortId: [3, 'octets'],
  lldpLocPortDesc: [4, 'text'],
});
export const LLDP_REMOTE = mibTable('1.0.8802.1.1.2.1.4.1.1', 3, {
  lldpRemChassisIdSubtype: [4, 'integer'],
  lldpRemChassisId: [5, 'octets'],
  lldpRemPortIdSubtype: [6, 'integer'],
  lldpRemPortId: [7, 'octets'],
  lldpRemSysName: [9, 'text'],
  lldpRemSysCapEnabled: [12, 'octets'],
});
/** Its index: time filter, local port, index, kind of address, length, address. */
export const LLDP_ADDRESS = mibTable('1.0.8802.1.1.2.1.4.2.1', null, { lldpRemManAddrIfSubtype: [3, 'integer'] });
/** LldpSystemCapabilitiesMap, as the number of a bit from the highest on. */
export const CAPABILITIES = { bridge: 3, station: 8 } as const;
/** AddressFamilyNumbers. */
export const IPV4 = 1;
/** LldpChassisIdSubtype, LldpPortIdSubtype. */
export const CHASSIS_MAC = 4;
export const CHASSIS_LOCAL = 7;
export const PORT_MAC = 3;
export const PORT_NAME = 5;

/** IEEE8023-LAG-MIB (IEEE 802.3-2005 annex 30C). */
export const AGGREGATOR = mibTable('1.2.840.10006.300.43.1.1.1.1', 1, {
  dot3adAggMACAddress: [2, 'octets'],
  dot3adAggActorSystemPriority: [3, 'integer'],
  dot3adAggActorSystemID: [4, 'octets'],
  dot3adAggActorOperKey: [7, 'integer'],
});
export const AGGREGATION_PORT = mibTable('1.2.840.10006.300.43.1.2.1.1', 1, {
  dot3adAggPortActorSystemPriority: [2, 'integer'],
  dot3adAggPortActorSystemID: [3, 'octets'],
  dot3adAggPortActorOperKey: [5, 'integer'],
  dot3adAggPortPartnerOperSystemPriority: [7, 'integer'],
  dot3adAggPortPartnerOperSystemID: [9, 'octets'],
  dot3adAggPortPartnerOperKey: [11, 'integer'],
  dot3adAggPortSelectedAggID: [12, 'integer'],
  dot3adAggPortAttachedAggID: [13, 'integer'],
  dot3adAggPortActorPort: [14, 'integer'],
  dot3adAggPortActorPortPriority: [15, 'integer'],
  dot3adAggPortPartnerOperPort: [17, 'integer'],
  dot3adAggPortPartnerOperPortPriority: [19, 'integer'],
  dot3adAggPortActorOperState: [21, 'octets'],
  dot3adAggPortPartnerOperState: [23, 'octets'],
});

/** Where a reader begins: everything above is below one of these. */
export const ROOTS = [
  '1.3.6.1.2.1.1',
  '1.3.6.1.2.1.2.2',
  '1.3.6.1.2.1.31.1.1',
  '1.3.6.1.2.1.17.1',
  '1.3.6.1.2.1.17.2',
  '1.3.6.1.2.1.17.7.1.4',
  '1.3.6.1.2.1.47.1.2',
  '1.0.8802.1.1.2.1.3',
  '1.0.8802.1.1.2.1.4',
  '1.2.840.10006.300.43.1',
  MSTP_ROOT,
] as const;
/** What is read of a bridge within a switch. */
export const BRIDGE_ROOTS = ['1.3.6.1.2.1.17.1', '1.3.6.1.2.1.17.2'] as const;
