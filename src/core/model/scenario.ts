/** Scenarios: what happens to a network while the clock runs, as actions at chosen times. Kept with the design, or in a file of their own. */
import { z } from '../base/zod';
import type { BundleId, LinkId, PortId, RegionId, SwitchId, TreeId } from './ids';
import { bridgePriority, pathCost } from './legal';
import { BUNDLE_MODES, bundleSchema } from './bundle';
import { MAX_NAME, endSchema, text, titleSchema } from './common';
import { DIALECTS } from './dialect';
import { field } from './field';
import { linkDelay } from './link';
import { switchSchema } from './switch';

/** Longest run, seconds. */
export const MAX_UNTIL = 3600;
/** How long a run goes on where the scenario does not say. */
export const DEFAULT_UNTIL = 60;
/** How often hosts speak where the scenario does not say, seconds. */
export const DEFAULT_TALK = 0.01;
/** How many actions one scenario holds. */
export const MAX_ACTIONS = 10_000;

const at = z.number().min(0).max(MAX_UNTIL);
const link = z.string().transform((id) => id as LinkId);
const sw = z.string().transform((id) => id as SwitchId);
const bundle = z.string().transform((id) => id as BundleId);
const region = z.string().transform((id) => id as RegionId);
const port = z.string().transform((id) => id as PortId);
const tree = z
  .string()
  .transform((id) => id as TreeId)
  .optional();
/** The ends that a link had when the action was written: should the link go, another one there can be found. */
const between = z.strictObject({ a: endSchema, b: endSchema }).optional();
const newLink = z.strictObject({ id: link, a: endSchema, b: endSchema, delay: linkDelay.optional() });

export const actionSchema = z.discriminatedUnion('do', [
  /** `light: false`: the ends do not notice, as with a converter in between; only missing BPDUs tell. */
  z.strictObject({ at, do: z.literal('link-down'), link, between, light: z.boolean().default(true) }),
  z.strictObject({ at, do: z.literal('link-up'), link, between }),
  /** What the switch `from` sends over the link no longer arrives; without it, what the first end sends. */
  z.strictObject({ at, do: z.literal('one-way'), link, between, from: sw.optional() }),
  z.strictObject({ at, do: z.literal('switch-down'), switch: sw }),
  /** `boot`: seconds from the power to the first frame. */
  z.strictObject({ at, do: z.literal('switch-up'), switch: sw, boot: z.number().min(0).max(MAX_UNTIL).default(0) }),
  z.strictObject({ at, do: z.literal('bridge-priority'), switch: sw, priority: bridgePriority, tree }),
  /** Another dialect, or another MST configuration: the bridge's protocol starts over, its ports keep their signal. */
  z.strictObject({ at, do: z.literal('speak'), switch: sw, dialect: z.enum(DIALECTS), region: region.optional() }),
  z.strictObject({ at, do: z.literal('port-cost'), switch: sw, port, cost: pathCost, tree }),
  z.strictObject({ at, do: z.literal('add-link'), link: newLink }),
  /** A bundle is configured at its end: its ports are single ones before. */
  z.strictObject({ at, do: z.literal('add-bundle'), bundle: bundleSchema }),
  /** A bundle has these ports from then on; the others of its ports are single ones. */
  z.strictObject({ at, do: z.literal('bundle-ports'), bundle, ports: z.array(port).min(1) }),
  z.strictObject({ at, do: z.literal('remove-bundle'), bundle }),
  z.strictObject({ at, do: z.literal('bundle-mode'), bundle, mode: z.enum(BUNDLE_MODES) }),
  /** A switch that is not in the design, and the cables that come with it. */
  z.strictObject({ at, do: z.literal('add-switch'), switch: switchSchema, links: z.array(newLink).default([]) }),
]);
export type Action = z.output<typeof actionSchema>;
/** An action without its time. */
export type Undated = Action extends infer A ? (A extends Action ? Omit<A, 'at'> : never) : never;

const run = {
  actions: field(z.array(actionSchema).max(MAX_ACTIONS), {
    label: 'what happens',
    reads: 'nothing',
    text: (actions) => actions.map((action) => `${action.do} at ${action.at} s`).join(', ') || 'nothing',
  }),
  until: field(z.number().positive().max(MAX_UNTIL).default(DEFAULT_UNTIL), {
    label: 'length',
    unit: 's',
    reads: 'nothing',
  }),
  /** What is learnt anew is learnt within this time. */
  talk: field(z.number().min(0.001).max(MAX_UNTIL).default(DEFAULT_TALK), {
    label: 'hosts speak every',
    unit: 's',
    reads: 'nothing',
  }),
  fromBoot: field(z.boolean().default(false), { label: 'all powered on at 0', reads: 'nothing' }),
};

/** What a run needs: a scenario's file has these. */
export const runSchema = z.strictObject({ name: text(MAX_NAME).optional(), ...run });
export type Scenario = z.output<typeof runSchema>;

/** A scenario kept with a design: a name, and what to look for. */
export const scenarioSchema = z.strictObject({
  id: text(64),
  name: field(titleSchema, { label: 'name', reads: 'nothing' }),
  look: field(text(2000).default(''), { label: 'what to look for', reads: 'nothing' }),
  ...run,
});
export type KeptScenario = z.output<typeof scenarioSchema>;
