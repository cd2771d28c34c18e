/**
 * The design document, version 1 (docs/design-file.md), as zod schemas: strict, with every default filled in.
 * What a document says is described by `Design`, the output type; shapes only, cross references are checked in `references.ts`.
 */
import { z } from '../base/zod';
import type { BundleId, HostId, LinkId, PortId, RegionId, SwitchId, TreeId } from './ids';
import {
  ACTIVE_MEMBERS,
  BRIDGE_PRIORITY,
  LACP_PRIORITY,
  PORT_PRIORITY,
  bridgePriority,
  lacpKey,
  lacpPriority,
  macAddress,
  memberCount,
  mstid,
  pathCost,
  portNumber,
  portPriority,
  speed,
  timerSchemas,
  vlanId,
  vlanSetText,
} from './legal';
import { MAX_INSTANCES } from './limits';

/** The name of the format and its present version. */
export const FORMAT = { name: 'knot-path-design', version: 1 } as const;

// Control characters are what a name must not hold: they would hide in tables and break the command line's output.
const CONTROL = /[\u0000-\u001f\u007f]/;
export const text = (max: number) =>
  z.string().superRefine((value, ctx) => {
    if (value.length > max) ctx.addIssue({ code: 'custom', message: `at most ${max} characters` });
  });
/** How many octets a text has as it is sent. */
const utf8Octets = (value: string): number =>
  [...value].reduce((sum, char) => sum + (char <= '\u007f' ? 1 : char <= '\u07ff' ? 2 : char <= '\uffff' ? 3 : 4), 0);
/** The longest name, in characters. */
export const MAX_NAME = 20_000;
const isLine = (value: string): boolean => value.trim() !== '' && !CONTROL.test(value);
/** Whether a text may be a name, where nobody asks why not. */
export const isTitle = (value: string): boolean => value.length <= MAX_NAME && isLine(value);
/** A name: one line, not empty. */
export const titleSchema = text(MAX_NAME).superRefine((value, ctx) => {
  if (!isLine(value)) {
    ctx.addIssue({ code: 'custom', message: 'a name of one line, not empty' });
  }
});
/** The longest identifier. */
export const MAX_ID = 200;
// Results are keyed by identifiers; the words that every object has would be lost there, or stand for something else.
const isTaken = (value: string): boolean => value in Object.prototype;
/** Whether a text may be an identifier, where nobody asks why not. */
export const isIdentifier = (value: string): boolean => isLine(value) && value.length <= MAX_ID && !isTaken(value);
const id = z.string().superRefine((value, ctx) => {
  if (!isLine(value) || value.length > MAX_ID) {
    ctx.addIssue({ code: 'custom', message: 'an identifier of 1 to 200 characters on one line' });
  } else if (isTaken(value)) {
    ctx.addIssue({
      code: 'custom',
      message: 'another identifier: programs that read the results take this one for something else',
    });
  }
});
const branded = <T extends string>() => id.transform((value) => value as T);

const TREE_ID = /^(cst|vlan:([1-9]\d{0,3})|mst:(0|[1-9]\d{0,3}))$/;
export const treeId = z.string().superRefine((value, ctx) => {
  const match = TREE_ID.exec(value);
  if (!match || Number(match[2] ?? match[3] ?? 0) > 4094) {
    ctx.addIssue({ code: 'custom', message: 'a tree: cst, vlan:1 to vlan:4094, or mst:0 to mst:4094' });
  }
});
const perTree = <T extends z.ZodType>(value: T) =>
  z.record(treeId, value).transform((trees) => trees as Partial<Record<TreeId, z.output<T>>>);

/** The dialects of spanning tree that a switch may speak; `off` runs none. */
export const DIALECTS = ['stp', 'rstp', 'mstp', 'per-vlan-stp', 'per-vlan-rstp', 'off'] as const;
export const TIERS = ['core', 'distribution', 'access'] as const;
/** How a bundle's end negotiates: LACP, nothing, or the older negotiation. */
export const BUNDLE_MODES = ['active', 'passive', 'static', 'initiate', 'answer'] as const;
/** How often a bundle's end wants to hear LACPDUs: every 30 s, or every second. */
export const LACP_TIMEOUTS = ['slow', 'fast'] as const;
/** What of a frame chooses the member that it leaves by: MAC addresses; with IP addresses; IP addresses and TCP or UDP ports. */
export const HASH_POLICIES = ['2', '2+3', '3+4'] as const;
/** 802.1D-1998 table (`short`) or the 802.1Q formula (`long`). */
export const COST_METHODS = ['short', 'long'] as const;

/** What a port may be said to be on a worksheet. */
export const WORKSHEET_ROLES = ['root', 'designated', 'alternate', 'backup', 'master', 'disabled'] as const;
export const WORKSHEET_STATES = ['forwarding', 'discarding'] as const;
export const DEFAULT_TIMERS = { hello: 2, maxAge: 20, forwardDelay: 15, maxHops: 20, txHold: 6 } as const;
export const DEFAULT_CARRIAGE = { mode: 'trunk', native: 1, allowed: '1-4094' } as const;

export const carriageSchema = z.discriminatedUnion('mode', [
  z.strictObject({ mode: z.literal('trunk'), native: vlanId.default(1), allowed: vlanSetText.default('1-4094') }),
  z.strictObject({ mode: z.literal('access'), vlan: vlanId }),
]);

const portTreeSchema = z.strictObject({ cost: pathCost.optional(), priority: portPriority.optional() });
const steering = {
  cost: pathCost.optional(),
  externalCost: pathCost.optional(),
  priority: portPriority.default(PORT_PRIORITY.default),
  trees: perTree(portTreeSchema).default({}),
  vlans: carriageSchema.default(DEFAULT_CARRIAGE),
};

export const portSchema = z.strictObject({
  id: branded<PortId>(),
  number: portNumber,
  speed: speed.default(1000),
  up: z.boolean().default(true),
  edge: z.boolean().default(false),
  /** What the port says as a member of a bundle: its priority there, and a key other than the bundle's. */
  lacp: z.strictObject({ priority: lacpPriority.default(LACP_PRIORITY.default), key: lacpKey.optional() }).optional(),
  ...steering,
});

export const timersSchema = z.strictObject({
  hello: timerSchemas.hello.default(DEFAULT_TIMERS.hello),
  maxAge: timerSchemas.maxAge.default(DEFAULT_TIMERS.maxAge),
  forwardDelay: timerSchemas.forwardDelay.default(DEFAULT_TIMERS.forwardDelay),
  maxHops: timerSchemas.maxHops.default(DEFAULT_TIMERS.maxHops),
  txHold: timerSchemas.txHold.default(DEFAULT_TIMERS.txHold),
});

/** Where a switch stands on the map; arithmetic on places far beyond would not come out. */
const coordinate = z.number().min(-1_000_000).max(1_000_000);
export const positionSchema = z.strictObject({ x: coordinate, y: coordinate });

export const switchSchema = z.strictObject({
  id: branded<SwitchId>(),
  name: titleSchema.optional(),
  tier: z.enum(TIERS).default('access'),
  mac: macAddress,
  /** False: without power. */
  up: z.boolean().default(true),
  /** Where this switch takes costs from speed by another method than the design's. */
  pathCost: z.enum(COST_METHODS).optional(),
  dialect: z.enum(DIALECTS).default('rstp'),
  region: branded<RegionId>().optional(),
  priority: bridgePriority.default(BRIDGE_PRIORITY.default),
  trees: perTree(z.strictObject({ priority: bridgePriority })).default({}),
  timers: timersSchema.default(DEFAULT_TIMERS),
  lacp: z.strictObject({ systemPriority: lacpPriority.default(LACP_PRIORITY.default) }).optional(),
  position: positionSchema.optional(),
  ports: z.array(portSchema),
});

export const endSchema = z.strictObject({ switch: branded<SwitchId>(), port: branded<PortId>() });

/** Microseconds that a frame takes over a cable; absent: a few hundred metres. */
export const linkDelay = z.number().int().min(1).max(1_000_000);
export const linkSchema = z.strictObject({
  id: branded<LinkId>(),
  a: endSchema,
  b: endSchema,
  up: z.boolean().default(true),
  delay: linkDelay.optional(),
});

export const vlanSchema = z.strictObject({
  id: vlanId,
  name: titleSchema.optional(),
  load: z.number().min(0).optional(),
});

/** What names an MST configuration, and how many instances it may have beside the IST (802.1Q-2018 13.8, 13.5). */
export const REGION = { nameOctets: 32, revision: 65_535, instances: MAX_INSTANCES } as const;
export const regionName = z.string().superRefine((value, ctx) => {
  const octets = utf8Octets(value);
  if (octets > REGION.nameOctets)
    ctx.addIssue({ code: 'custom', message: `at most ${REGION.nameOctets} octets (this has ${octets})` });
  else if (CONTROL.test(value)) ctx.addIssue({ code: 'custom', message: 'a name on one line' });
});
export const regionRevision = z.number().superRefine((value, ctx) => {
  if (!Number.isInteger(value) || value < 0 || value > REGION.revision)
    ctx.addIssue({ code: 'custom', message: `a revision, a whole number from 0 to ${REGION.revision}` });
});
export const regionInstances = z.array(z.strictObject({ id: mstid, vlans: vlanSetText }));
export const regionSchema = z.strictObject({
  id: branded<RegionId>(),
  name: regionName.default(''),
  revision: regionRevision.default(0),
  instances: regionInstances.default([]),
});

/** How a bundle's end negotiates and shares out frames, on switches and hosts alike. */
const negotiation = {
  mode: z.enum(BUNDLE_MODES).default('active'),
  timeout: z.enum(LACP_TIMEOUTS).default('slow'),
  /** By default its number. */
  key: lacpKey.optional(),
  minLinks: memberCount.default(1),
  maxActive: memberCount.default(ACTIVE_MEMBERS.default),
  /** Also as `layer 2+3`, `layer2+3`, `l2+3`. */
  hash: z
    .string()
    .transform((value) => value.toLowerCase().replaceAll(/layer|l(?=\d)|\s/g, ''))
    .pipe(z.enum(HASH_POLICIES))
    .default('2'),
};

/** The bundle that all cards of a host are. */
export const hostBundleSchema = z.strictObject(negotiation);

export const bundleSchema = z.strictObject({
  id: branded<BundleId>(),
  name: titleSchema.optional(),
  switch: branded<SwitchId>(),
  number: z.number().int().min(1).max(2047),
  ports: z.array(branded<PortId>()).superRefine((ports, ctx) => {
    if (ports.length === 0) ctx.addIssue({ code: 'custom', message: 'at least one port' });
  }),
  ...negotiation,
  edge: z.boolean().default(false),
  ...steering,
});

export const hostSchema = z.strictObject({
  id: branded<HostId>(),
  name: titleSchema.optional(),
  mac: macAddress,
  vlan: vlanId.default(1),
  attach: z.array(endSchema).default([]),
  bundle: hostBundleSchema.optional(),
});

/** A neighbour as a switch itself reported it: names as they were seen, which need not be in the design. */
export const observedSchema = z.strictObject({
  /** The switch that reported it, and its port: ids where the design has them. */
  switch: titleSchema,
  port: titleSchema,
  device: titleSchema,
  devicePort: titleSchema.optional(),
  mac: macAddress.optional(),
  kind: z.enum(['switch', 'host']).optional(),
});

/** What an engineer worked out by hand for one tree; what was left blank is left out. */
export const answersSchema = z.strictObject({
  root: branded<SwitchId>().optional(),
  switches: z
    .record(
      id,
      z.strictObject({
        rootPathCost: z.number().int().min(0).max(Number.MAX_SAFE_INTEGER).optional(),
        ports: z
          .record(
            id,
            z.strictObject({ role: z.enum(WORKSHEET_ROLES).optional(), state: z.enum(WORKSHEET_STATES).optional() }),
          )
          .default({}),
      }),
    )
    .default({}),
});

/** A worksheet that was compared with the computed tree: the answers, and how many were right when it was. */
export const worksheetSchema = z.strictObject({
  tree: treeId.transform((value) => value as TreeId),
  /** When it was compared: UTC, ISO 8601. */
  at: z.iso.datetime(),
  right: z.number().int().min(0),
  of: z.number().int().min(1),
  answers: answersSchema,
});
