/**
 * What a network says of itself at one moment, switch by switch, whatever it was read from: what is known, and what is not.
 * Kept apart from the design that it is held against.
 */
import { z } from '../../base/zod';
import type { Result } from '../../base/result';
import { vlanSetText } from '../../model/legal';
import { readJsonFile } from '../jsonFile';

const text = z.string().max(4000);
const number = z.number().int().nonnegative();
/** A bridge identifier: priority with its system ID extension, and address. */
const bridgeId = z.object({ priority: number, mac: text });

export const treePortSchema = z.object({
  /** The number of the bridge port. */
  port: number,
  state: z.enum(['disabled', 'blocking', 'discarding', 'listening', 'learning', 'forwarding']),
  role: z.enum(['root', 'designated', 'alternate', 'backup', 'disabled']),
  cost: number,
  /** The settable part of its identifier: 0 to 240. */
  priority: number,
  designatedRoot: bridgeId.nullable(),
  designatedBridge: bridgeId.nullable(),
  /** The sixteen bits of the port identifier. */
  designatedPort: number.nullable(),
  /** How often it has begun to forward; null where it does not tell. */
  forwards: number.nullable().default(null),
});

const treeSchema = z.object({
  /** `cst`, `vlan:15`, or `mst:1`: of an instance, whose root, cost and timers are those within its region. */
  tree: text,
  /** What it speaks; null where it does not tell. */
  speaks: z.enum(['stp', 'rstp', 'mstp']).nullable(),
  bridge: bridgeId,
  root: bridgeId,
  rootPathCost: number,
  /** The number of a bridge port; null at the root. */
  rootPort: number.nullable(),
  /** Of the root, seconds. */
  maxAge: z.number(),
  hello: z.number(),
  forwardDelay: z.number(),
  /** Its own, which hold where it is the root, seconds; null where it does not tell. */
  set: z
    .object({ maxAge: z.number(), hello: z.number(), forwardDelay: z.number(), txHold: z.number().nullable() })
    .nullable()
    .default(null),
  topologyChanges: number,
  /** Seconds. */
  sinceTopologyChange: z.number(),
  ports: z.array(treePortSchema),
});

const portSchema = z.object({
  number,
  /** What it calls itself, and what people have called it. */
  interface: text,
  alias: text,
  /** Mbit/s; 0 where it does not tell. */
  speed: number,
  mac: text.nullable(),
  /** Switched on by people; and with signal. */
  up: z.boolean(),
  signal: z.boolean(),
  /** Set as a port where only hosts are; null where it does not tell. */
  edge: z.boolean().nullable().default(null),
  /** Null where it does not tell of VLANs. */
  vlans: z.object({ carried: vlanSetText, untagged: number.nullable() }).nullable(),
});

const sideSchema = z.object({
  systemPriority: number,
  system: text,
  key: number,
  portPriority: number,
  port: number,
  state: number,
});
const bundleSchema = z.object({
  /** The number of the bridge port that it is. */
  number,
  interface: text,
  members: z.array(
    z.object({
      port: number,
      /** Carries frames of the bundle. */
      active: z.boolean(),
      /** Null where it does not negotiate by LACP. */
      lacp: z.object({ actor: sideSchema, partner: sideSchema }).nullable(),
    }),
  ),
});

/** Its MST configuration (802.1Q-2018 13.8), and where it is in its region. */
const mstSchema = z.object({
  name: text,
  revision: number,
  /** Sixteen octets in hexadecimal; null where it does not tell. */
  digest: text.nullable(),
  instances: z.array(z.object({ instance: number, vlans: vlanSetText })),
  regionalRoot: bridgeId.nullable(),
  internalCost: number,
  /** Of its own, where it is the regional root. */
  maxHops: number.nullable(),
});

const neighbourSchema = z.object({
  /** The number of the own port. */
  port: number,
  /** Null where it tells no name. */
  system: text.nullable(),
  chassis: text,
  portId: text,
  /** Where it can be asked, as it tells: an IPv4 address; null where it tells none. */
  address: text.nullable(),
  /** As it tells of itself; null where it does not. */
  kind: z.enum(['switch', 'host']).nullable().default(null),
});

export const observedSwitchSchema = z.object({
  /** Where it was asked; the name of a file; or what it was simulated as. */
  source: text,
  name: text,
  mac: text.nullable(),
  /** As neighbours see it by LLDP; null where it does not tell. */
  chassis: text.nullable().default(null),
  /** VLANs that it has, whoever carries them; null where it does not tell. */
  vlans: vlanSetText.nullable(),
  ports: z.array(portSchema),
  bundles: z.array(bundleSchema),
  trees: z.array(treeSchema),
  /** Null where it speaks no MSTP, or does not tell. */
  mst: mstSchema.nullable().default(null),
  neighbours: z.array(neighbourSchema),
  /** False where it does not tell whom it sees: that nobody is among its neighbours says nothing then. */
  tellsNeighbours: z.boolean().default(true),
  /** What it did not tell, or could not be read: sentences. */
  missing: z.array(text),
});

export const observationSchema = z.object({
  format: z.literal('knot-path-observation'),
  version: z.literal(1),
  /** ISO 8601. */
  at: text,
  switches: z.array(observedSwitchSchema).max(5000),
  /** Who did not answer, and what was not asked: sentences. */
  leftOut: z.array(text),
});
export type Observation = z.output<typeof observationSchema>;
export type ObservedSwitch = z.output<typeof observedSwitchSchema>;
export type ObservedPort = ObservedSwitch['ports'][number];
export type ObservedTree = ObservedSwitch['trees'][number];
export type ObservedTreePort = ObservedTree['ports'][number];
export type ObservedMst = NonNullable<ObservedSwitch['mst']>;
export type ObservedNeighbour = ObservedSwitch['neighbours'][number];
export type ObservedBundle = ObservedSwitch['bundles'][number];

/** Whether a text says that it is one, whatever else is wrong with it. */
export const isObservation = (file: string): boolean => /^\s*\{\s*"format":\s*"knot-path-observation"/.test(file);

/** Reads an observation's file; the error is a sentence. */
export const readObservation = (file: string): Result<Observation, string> =>
  readJsonFile(observationSchema, file, 'observation');
