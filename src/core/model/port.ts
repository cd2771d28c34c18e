/** Ports, and what ports and bundles have in common as bridge ports. */
import { z } from '../base/zod';
import { AS_FOR_ALL, branded, perTree, titleSchema } from './common';
import { PORT_DIALECTS, type PortDialect } from './dialect';
import { field } from './field';
import { portGuardFields } from './guard';
import type { PortId } from './ids';
import {
  LACP_PRIORITY,
  stackMemberNumber,
  PORT_PRIORITY,
  lacpKey,
  lacpPriority,
  pathCost,
  portNumber,
  portPriority,
  speed,
  vlanId,
  vlanSetText,
} from './legal';

const SPEAKS: Record<PortDialect, string> = {
  'version-0': 'version 0',
  'per-vlan-rstp': 'per VLAN, rapid',
  'per-vlan-stp': 'per VLAN, classic',
  'passes-on': 'passes BPDUs on',
};

export const DEFAULT_CARRIAGE = { mode: 'trunk', native: 1, allowed: '1-4094' } as const;

/** Which VLANs' frames a port takes, and which of them untagged. */
export const carriageSchema = z.discriminatedUnion('mode', [
  z.strictObject({
    mode: z.literal('trunk'),
    native: vlanId.default(DEFAULT_CARRIAGE.native),
    allowed: vlanSetText.default(DEFAULT_CARRIAGE.allowed),
  }),
  z.strictObject({ mode: z.literal('access'), vlan: vlanId }),
]);
export type Carriage = z.output<typeof carriageSchema>;

/** `trunk 1-4094, native 1` or `access 15`. */
export const carriageText = (vlans: Carriage): string =>
  vlans.mode === 'access'
    ? `access ${vlans.vlan}`
    : `trunk ${vlans.allowed === '' ? 'no VLAN' : vlans.allowed}, native ${vlans.native}`;

/** What a bridge port has, be it a port or a bundle. */
export const bridgePortFields = {
  edge: field(z.boolean().default(false), {
    label: 'edge port',
    reads: 'trees',
    done: (edge) => (edge ? 'edge port' : 'not an edge port'),
    line: {
      kind: 'words',
      words: [
        ['edge', true, 'only hosts here'],
        ['no-edge', false],
      ],
    },
  }),
  speaks: field(z.enum(PORT_DIALECTS).optional(), {
    label: 'speaks',
    reads: 'trees',
    absent: 'as its switch',
    text: (speaks) => (speaks === undefined ? 'as its switch' : SPEAKS[speaks]),
    line: {
      kind: 'words',
      words: [
        ['version-0', 'version-0', 'speaks and settles as a classic bridge here'],
        ['per-vlan-rstp', 'per-vlan-rstp', 'has a tree for each VLAN here, on a switch that has one for all'],
        ['per-vlan-stp', 'per-vlan-stp', 'the same, classic'],
        ['passes-on', 'passes-on', 'no spanning tree here: BPDUs pass unread'],
        ['as-switch', undefined, 'speaks as its switch does'],
      ],
    },
  }),
  speaksFor: field(vlanSetText.optional(), {
    label: 'trees for VLANs',
    reads: 'trees',
    absent: 'all carried',
    line: {
      kind: 'value',
      word: 'trees-for',
      detail: 'VLANs that it has trees of its own for',
      what: 'VLANs, such as 15,25-29',
      offer: 'vlans',
    },
  }),
  cost: field(pathCost.optional(), { label: 'cost', reads: 'settings', absent: 'from speed' }),
  /** Of an MSTP port: toward bridges outside of its region. */
  externalCost: field(pathCost.optional(), { label: 'external cost', reads: 'settings', absent: 'as its cost' }),
  priority: field(portPriority.default(PORT_PRIORITY.default), { label: 'priority', reads: 'settings' }),
  trees: perTree(
    z.strictObject({
      cost: field(pathCost.optional(), { label: 'cost', reads: 'tree', absent: AS_FOR_ALL }),
      priority: field(portPriority.optional(), { label: 'priority', reads: 'tree', absent: AS_FOR_ALL }),
    }),
  ).default({}),
  vlans: field(carriageSchema.default(DEFAULT_CARRIAGE), {
    label: 'VLANs',
    reads: 'trees',
    text: carriageText,
    whole: true,
  }),
  ...portGuardFields,
};

const { edge, ...steering } = bridgePortFields;

export const portSchema = z.strictObject({
  id: branded<PortId>(),
  number: field(portNumber, {
    label: 'number',
    reads: 'trees',
    line: { kind: 'value', word: 'number', detail: '', what: 'a port number from 1 to 4095' },
  }),
  speed: field(speed.default(1000), { label: 'speed', unit: 'Mb/s', reads: 'trees' }),
  up: field(z.boolean().default(true), {
    label: 'set',
    reads: 'trees',
    text: (up) => (up ? 'up' : 'down'),
    done: (up) => (up ? 'set up' : 'set down'),
    line: {
      kind: 'words',
      words: [
        ['up', true],
        ['down', false],
      ],
    },
  }),
  /** What it calls itself in the network where that is something else: settled by hand. */
  knownAs: field(titleSchema.optional(), {
    label: 'known in the network as',
    reads: 'nothing',
    absent: 'its name or number',
  }),
  /** Of a stack: the member that it is on, the first where it says none. */
  stackMember: field(stackMemberNumber.optional(), {
    label: 'stack member',
    reads: 'trees',
    absent: 'the first',
    line: {
      kind: 'value',
      word: 'stack-member',
      detail: 'member of a stack',
      what: 'a number of a stack member from 1 to 16',
    },
  }),
  edge,
  /** What the port says as a member of a bundle: its priority there, and a key other than the bundle's. */
  lacp: z
    .strictObject({
      priority: field(lacpPriority.default(LACP_PRIORITY.default), { label: 'LACP priority', reads: 'trees' }),
      key: field(lacpKey.optional(), { label: 'LACP key', reads: 'trees', absent: 'that of its bundle' }),
    })
    .optional(),
  ...steering,
});
export type Port = z.output<typeof portSchema>;
