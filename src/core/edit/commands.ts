/**
 * Edits as data: every change to a design is one of these commands, checked by zod where it enters.
 * `tree: null` means every tree, unless a tree says otherwise; a `null` value takes a setting away again.
 */
import { z } from '../base/zod';
import type { BundleId, HostId, LinkId, PortId, RegionId, SwitchId, TreeId } from '../model/ids';
import {
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
  vlanId,
  vlanSetText,
} from '../model/legal';
import { scenarioSchema } from '../model/scenario';
import {
  BUNDLE_MODES,
  COST_METHODS,
  DIALECTS,
  HASH_POLICIES,
  LACP_TIMEOUTS,
  TIERS,
  bundleSchema,
  carriageSchema,
  endSchema,
  hostBundleSchema,
  hostSchema,
  linkDelay,
  linkSchema,
  observedSchema,
  portSchema,
  positionSchema,
  regionInstances,
  regionName,
  regionRevision,
  regionSchema,
  switchSchema,
  timersSchema,
  titleSchema,
  treeId as anyTree,
  vlanSchema,
  worksheetSchema,
} from '../model/document';

const switchId = z.string().transform((id) => id as SwitchId);
const portId = z.string().transform((id) => id as PortId);
const linkId = z.string().transform((id) => id as LinkId);
const treeId = anyTree.transform((id) => id as TreeId).nullable();
const bundleId = z.string().transform((id) => id as BundleId);
const regionId = z.string().transform((id) => id as RegionId);
const hostId = z.string().transform((id) => id as HostId);

export const commandSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('rename-design'), name: titleSchema }),
  z.strictObject({ do: z.literal('set-cost-method'), method: z.enum(COST_METHODS) }),
  z.strictObject({
    do: z.literal('set-switch'),
    switch: switchId,
    name: titleSchema.optional(),
    tier: z.enum(TIERS).optional(),
    dialect: z.enum(DIALECTS).optional(),
    mac: macAddress.optional(),
    timers: timersSchema.optional(),
    up: z.boolean().optional(),
    /** Null: as the design. */
    pathCost: z.enum(COST_METHODS).nullable().optional(),
    /** Whose MST configuration it has; null: one of its own, with every VLAN in the IST. */
    region: regionId.nullable().optional(),
    systemPriority: lacpPriority.optional(),
  }),
  z.strictObject({
    do: z.literal('set-bridge-priority'),
    switch: switchId,
    tree: treeId,
    priority: bridgePriority.nullable(),
  }),
  z.strictObject({
    do: z.literal('set-port'),
    switch: switchId,
    /** Or a bundle by its id, of which `edge` and `vlans` alone can be set so. */
    port: portId,
    speed: speed.optional(),
    up: z.boolean().optional(),
    edge: z.boolean().optional(),
    vlans: carriageSchema.optional(),
    number: portNumber.optional(),
    /** As a member of a bundle; a null key: the bundle's. */
    lacpPriority: lacpPriority.optional(),
    lacpKey: lacpKey.nullable().optional(),
  }),
  z.strictObject({
    do: z.literal('set-port-cost'),
    switch: switchId,
    port: portId,
    tree: treeId,
    cost: pathCost.nullable(),
  }),
  /** Of an MSTP port: what it costs toward bridges outside of its region; null: as `cost`, or the speed. */
  z.strictObject({ do: z.literal('set-external-cost'), switch: switchId, port: portId, cost: pathCost.nullable() }),
  z.strictObject({
    do: z.literal('set-port-priority'),
    switch: switchId,
    port: portId,
    tree: treeId,
    priority: portPriority.nullable(),
  }),
  z.strictObject({
    do: z.literal('set-link'),
    link: linkId,
    up: z.boolean().optional(),
    speed: speed.optional(),
    delay: linkDelay.nullable().optional(),
    a: endSchema.optional(),
    b: endSchema.optional(),
  }),
  z.strictObject({
    do: z.literal('move-switches'),
    to: z.array(z.strictObject({ switch: switchId, position: positionSchema })),
  }),
  z.strictObject({ do: z.literal('add-switch'), switch: switchSchema }),
  z.strictObject({ do: z.literal('add-port'), switch: switchId, port: portSchema }),
  z.strictObject({ do: z.literal('add-link'), link: linkSchema }),
  z.strictObject({ do: z.literal('remove-switch'), switch: switchId }),
  z.strictObject({ do: z.literal('remove-link'), link: linkId }),
  z.strictObject({ do: z.literal('remove-port'), switch: switchId, port: portId }),
  z.strictObject({ do: z.literal('add-bundle'), bundle: bundleSchema }),
  z.strictObject({
    do: z.literal('set-bundle'),
    bundle: bundleId,
    name: titleSchema.nullable().optional(),
    number: z.number().int().min(1).max(2047).optional(),
    ports: z.array(portId).min(1).optional(),
    mode: z.enum(BUNDLE_MODES).optional(),
    timeout: z.enum(LACP_TIMEOUTS).optional(),
    /** Null: its number. */
    key: lacpKey.nullable().optional(),
    minLinks: memberCount.optional(),
    maxActive: memberCount.optional(),
    hash: z.enum(HASH_POLICIES).optional(),
    edge: z.boolean().optional(),
    vlans: carriageSchema.optional(),
  }),
  z.strictObject({ do: z.literal('remove-bundle'), bundle: bundleId }),
  z.strictObject({ do: z.literal('add-host'), host: hostSchema }),
  z.strictObject({
    do: z.literal('set-host'),
    host: hostId,
    name: titleSchema.optional(),
    mac: macAddress.optional(),
    vlan: vlanId.optional(),
    attach: z.array(endSchema).optional(),
    /** Null: its cards are separate. */
    bundle: hostBundleSchema.nullable().optional(),
  }),
  z.strictObject({ do: z.literal('remove-host'), host: hostId }),
  z.strictObject({ do: z.literal('add-vlan'), vlan: vlanSchema }),
  z.strictObject({
    do: z.literal('set-vlan'),
    vlan: vlanId,
    name: titleSchema.nullable().optional(),
    load: z.number().min(0).nullable().optional(),
  }),
  z.strictObject({ do: z.literal('add-region'), region: regionSchema }),
  z.strictObject({
    do: z.literal('set-region'),
    region: regionId,
    name: regionName.optional(),
    revision: regionRevision.optional(),
    instances: regionInstances.optional(),
  }),
  /** Lays VLANs onto an instance, made where it is not there; 0 is the IST. They leave the instance that they were in. */
  z.strictObject({
    do: z.literal('map-vlans'),
    region: regionId,
    vlans: vlanSetText,
    instance: z.union([z.literal(0), mstid]),
  }),
  /** Its VLANs go to the IST. */
  z.strictObject({ do: z.literal('remove-instance'), region: regionId, instance: mstid }),
  /** Its switches become regions of their own. */
  z.strictObject({ do: z.literal('remove-region'), region: regionId }),
  /** Takes the VLAN off the list with the settings of its tree; ports and hosts keep what they are set to. */
  z.strictObject({ do: z.literal('remove-vlan'), vlan: vlanId }),
  z.strictObject({ do: z.literal('set-observed'), observed: z.array(observedSchema) }),
  z.strictObject({ do: z.literal('keep-worksheet'), worksheet: worksheetSchema }),
  z.strictObject({ do: z.literal('forget-worksheets') }),
  /** Adds a scenario, or replaces the one of that id. */
  z.strictObject({ do: z.literal('keep-scenario'), scenario: scenarioSchema }),
  z.strictObject({ do: z.literal('forget-scenario'), scenario: z.string() }),
]);

/** One edit. */
export type Command = z.output<typeof commandSchema>;
