/** The dialects of spanning tree as a table of what tells them apart: the one place that compares them by name. */
import { vlanSet } from './vlanSet';

/** What a dialect is; a new one is a row of the table. */
export interface Traits {
  /** As people call it. */
  readonly name: string;
  /** What it means, in one sentence. */
  readonly says: string;
  /** As short as it can be told of a whole network. */
  readonly kind: string;
  /** The word in a cabling line. */
  readonly word: string;
  /** Which trees it runs: one for all VLANs, one for each, the CIST with its instances, or none, so that it floods BPDUs. */
  readonly trees: 'one' | 'vlan' | 'region' | 'none';
  /** What runs in a bridge: the procedures of 802.1D-1998 clause 8, the machines of 802.1Q-2018 clause 13, or nothing. */
  readonly machines: 'classic' | 'rapid' | null;
}

const TABLE = {
  stp: {
    name: 'Classic STP',
    says: 'One tree for all VLANs, which takes half a minute to settle: for old switches.',
    kind: 'classic',
    word: 'stp',
    trees: 'one',
    machines: 'classic',
  },
  rstp: {
    name: 'RSTP',
    says: 'One tree for all VLANs, which settles within moments; links beside it stand idle.',
    kind: 'rapid',
    word: 'rstp',
    trees: 'one',
    machines: 'rapid',
  },
  mstp: {
    name: 'MSTP',
    says: 'A few trees, each for the VLANs that are assigned to it: many VLANs share the load over few trees.',
    kind: 'multiple',
    word: 'mstp',
    trees: 'region',
    machines: 'rapid',
  },
  'per-vlan-stp': {
    name: 'Per-VLAN classic',
    says: 'A tree for each VLAN, each takes half a minute to settle: for old switches.',
    kind: 'per VLAN, classic',
    word: 'per-vlan-stp',
    trees: 'vlan',
    machines: 'classic',
  },
  'per-vlan-rstp': {
    name: 'Per-VLAN rapid',
    says: 'A tree for each VLAN, each settles within moments: the load is shared VLAN by VLAN.',
    kind: 'per VLAN, rapid',
    word: 'per-vlan-rstp',
    trees: 'vlan',
    machines: 'rapid',
  },
  off: {
    name: 'no spanning tree',
    says: 'Blocks nothing and passes BPDUs on: a loop through such switches alone never ends.',
    kind: '',
    word: 'without-stp',
    trees: 'none',
    machines: null,
  },
} as const satisfies Record<string, Traits>;

export type Dialect = keyof typeof TABLE;

/** The dialects that a switch may speak, in the order in which they are offered. */
export const DIALECTS = Object.keys(TABLE) as [Dialect, ...Dialect[]];

/**
 * How a port may speak otherwise than its switch: in version 0, as a classic bridge does (802.1Q-2018 13.7.2); on a switch of the
 * standard dialects with a tree for each VLAN, rapid or classic, which the switch has at such ports alone, beside the common
 * tree that they go on with in VLAN 1; or not at all: it has no part in any tree, frames always pass, and BPDUs go unread from
 * each such port of the switch to the others (trade practice).
 */
export const PORT_DIALECTS = ['version-0', 'per-vlan-rstp', 'per-vlan-stp', 'passes-on'] as const;
export type PortDialect = (typeof PORT_DIALECTS)[number];

/** Those that run spanning tree. */
export const SPOKEN = DIALECTS.filter((dialect) => TABLE[dialect].trees !== 'none') as [Dialect, ...Dialect[]];

export const traitsOf = (dialect: Dialect): Traits => TABLE[dialect];

/** What a question about a switch's dialect needs of the switch. */
interface Speaks {
  readonly dialect: Dialect;
}

/** Whether it runs spanning tree at all. */
export const runsTrees = ({ dialect }: Speaks): boolean => TABLE[dialect].trees !== 'none';
/** Whether it runs one tree for each VLAN. */
export const isPerVlan = ({ dialect }: Speaks): boolean => TABLE[dialect].trees === 'vlan';
/** Whether it runs the CIST and instances, and may share a region with others. */
export const isMultiple = ({ dialect }: Speaks): boolean => TABLE[dialect].trees === 'region';
/** Whether it runs one tree for all VLANs, and no instances. */
export const isSingle = ({ dialect }: Speaks): boolean => TABLE[dialect].trees === 'one';
/** Whether it knows configuration BPDUs alone (802.1D-1998). */
export const isClassic = ({ dialect }: Speaks): boolean => TABLE[dialect].machines === 'classic';
interface PortSpeaks {
  readonly speaks?: PortDialect | undefined;
  /** Of which VLANs it has trees; undefined for all. */
  readonly speaksFor?: string | undefined;
}

/** What a port of a switch may speak instead. */
export const portDialectsOf = (sw: Speaks): readonly PortDialect[] =>
  PORT_DIALECTS.filter(
    (speaks) => isForced(sw, { speaks }) || isInterop(sw, { speaks }) || (runsTrees(sw) && passesOn({ speaks })),
  );

/** Whether a port of it is forced to version 0: a classic bridge knows no other. */
export const isForced = (sw: Speaks, { speaks }: PortSpeaks): boolean =>
  TABLE[sw.dialect].machines === 'rapid' && (speaks === 'version-0' || (speaks === 'per-vlan-stp' && !isPerVlan(sw)));
/** Whether a port of a switch of the standard dialects has trees of VLANs. */
export const isInterop = (sw: Speaks, { speaks }: PortSpeaks): boolean =>
  (speaks === 'per-vlan-rstp' || speaks === 'per-vlan-stp') && runsTrees(sw) && !isPerVlan(sw);
/** Whether it has a VLAN's; that of VLAN 1 is the common tree. */
export const hasTreeOf = (sw: Speaks, port: PortSpeaks, vid: number): boolean =>
  vid !== 1 && isInterop(sw, port) && (port.speaksFor === undefined || vlanSet(port.speaksFor).has(vid));
/** Whether a port has no part in any tree and passes BPDUs on; one of a switch without spanning tree does so anyhow. */
export const passesOn = ({ speaks }: PortSpeaks): boolean => speaks === 'passes-on';
/** Whether frames pass a port whatever trees say. */
export const isOpen = (sw: Speaks, port: PortSpeaks): boolean => !runsTrees(sw) || passesOn(port);
/** Whether it reads MST BPDUs as RST BPDUs (802.1Q-2018 14.4). */
export const readsRst = (sw: Speaks): boolean => TABLE[sw.dialect].machines === 'rapid' && !isMultiple(sw);
