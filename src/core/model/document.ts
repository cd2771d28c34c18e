/** A whole design document, version 1; its parts are in parts.ts, how long its lists may be in limits.ts. */
import { z } from '../base/zod';
import type {
  BUNDLE_MODES,
  DIALECTS,
  HASH_POLICIES,
  TIERS,
  answersSchema,
  carriageSchema,
  hostBundleSchema,
  portSchema,
  timersSchema,
} from './parts';
import {
  COST_METHODS,
  FORMAT,
  bundleSchema,
  hostSchema,
  linkSchema,
  observedSchema,
  regionSchema,
  switchSchema,
  text,
  titleSchema,
  vlanSchema,
  worksheetSchema,
} from './parts';
import { scenarioSchema } from './scenario';

export * from './parts';

export const designSchema = z.strictObject({
  format: z.literal(FORMAT.name),
  version: z.literal(FORMAT.version),
  name: titleSchema,
  notes: text(1_000_000).default(''),
  pathCost: z.enum(COST_METHODS).default('long'),
  vlans: z.array(vlanSchema).default([]),
  regions: z.array(regionSchema).default([]),
  switches: z.array(switchSchema),
  links: z.array(linkSchema),
  bundles: z.array(bundleSchema).default([]),
  hosts: z.array(hostSchema).default([]),
  /** What the switches say is plugged into them, to be held against the cables drawn. */
  observed: z.array(observedSchema).default([]),
  /** Worksheets that were filled in by hand, the oldest first. */
  worksheets: z.array(worksheetSchema).default([]),
  /** What happens to the network while the clock runs. What they name need not be there any more. */
  scenarios: z.array(scenarioSchema).default([]),
});

/** A whole design: a plain, immutable value; everything the product says is a function of it. */
export type Design = z.output<typeof designSchema>;
export type Switch = z.output<typeof switchSchema>;
export type Port = z.output<typeof portSchema>;
export type Link = z.output<typeof linkSchema>;
export type LinkEnd = Link['a'];
export type Host = z.output<typeof hostSchema>;
export type Answers = z.output<typeof answersSchema>;
export type Worksheet = z.output<typeof worksheetSchema>;
export type Observed = z.output<typeof observedSchema>;
export type Bundle = z.output<typeof bundleSchema>;
export type HostBundle = z.output<typeof hostBundleSchema>;
export type RegionSettings = z.output<typeof regionSchema>;
export type BundleMode = (typeof BUNDLE_MODES)[number];
export type HashPolicy = (typeof HASH_POLICIES)[number];
export type Carriage = z.output<typeof carriageSchema>;
export type Dialect = (typeof DIALECTS)[number];
export type CostMethod = (typeof COST_METHODS)[number];
export type Tier = (typeof TIERS)[number];
export type Timers = z.output<typeof timersSchema>;
