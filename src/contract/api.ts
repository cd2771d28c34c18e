/** What the workbench and the server say to each other: one zod schema a body, shared by both sides. */
import { sourceSchema, watchSettingsSchema } from './observe';
import { EXERCISES } from '../core/demo/exercises';
import { DEMO_SITES } from '../core/demo/sites';
import { commandSchema } from '../core/edit/commands';
import { MAX_COMMANDS } from '../core/model/limits';
import type { Patch } from '../core/edit/edit';
import { SPOKEN, titleSchema, type Design } from '../core/model/document';
import { templateSchema } from '../core/model/template';
import { z } from '../core/base/zod';

/** Largest body that the server takes, in octets. */
export const MAX_BODY = 8 * 1024 * 1024;

/** `POST /api/designs` */
export const newDesignSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('create'), name: titleSchema, mode: z.enum(SPOKEN).optional() }),
  z.strictObject({ do: z.literal('duplicate'), of: z.string() }),
  z.strictObject({ do: z.literal('demo'), site: z.enum(DEMO_SITES).optional() }),
  z.strictObject({ do: z.literal('exercise'), number: z.number().int().min(1).max(EXERCISES.length) }),
  /** `document` is checked by the core, which names what is wrong far better than a schema here could. */
  z.strictObject({ do: z.literal('import'), document: z.unknown() }),
]);
export type NewDesign = z.output<typeof newDesignSchema>;

/** `PATCH /api/designs/:id` */
export const renameSchema = z.strictObject({ name: titleSchema });

/** Every write names the revision that it was based on, and may carry a name of its own: sent again, it is done once. */
const written = { base: z.number().int().min(0), write: z.string().min(8).max(64).optional() };

/** `POST /api/designs/:id/revisions` */
export const writeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('edit'), ...written, commands: z.array(commandSchema).min(1).max(MAX_COMMANDS) }),
  z.strictObject({ kind: z.literal('undo'), ...written, target: z.number().int().min(1) }),
  /** Makes an earlier revision the newest one. */
  z.strictObject({ kind: z.literal('restore'), ...written, target: z.number().int().min(0) }),
  z.strictObject({ kind: z.literal('redo'), ...written, target: z.number().int().min(1) }),
]);
export type Write = z.output<typeof writeSchema>;

/** Revisions after `good`, up to `head`, that cannot be read, and why not. */
export type Damage = NonNullable<OpenDesign['damage']>;

/** How the history tells that a revision was restored. */
export const restoreLabel = (target: number): string => `restored revision ${target}`;

/** `PUT /api/designs/:id/baselines/:revision`: names a revision; null takes the name away. */
export const baselineSchema = z.strictObject({ name: titleSchema.nullable() });

/** Which part of a history is asked for: after or before a revision, at most so many. */
export const historyPartSchema = z.strictObject({
  after: z.coerce.number().int().min(-1).optional(),
  before: z.coerce.number().int().min(0).optional(),
  most: z.coerce.number().int().min(1).optional(),
});
export type HistoryPart = z.output<typeof historyPartSchema>;

/** `GET /api/designs/:id/history`: revisions in words, the newest first; 0 is the design as it was created. */
export const historySchema = z.object({
  entries: z.array(
    z.object({
      number: z.number(),
      label: z.string(),
      /** Milliseconds since 1970. */
      at: z.number(),
      /** The name of the baseline that this revision is. */
      baseline: z.string().nullable(),
    }),
  ),
});
export type HistoryEntry = z.output<typeof historySchema>['entries'][0];

/** `GET /api/designs/:id/revisions/:number`: the whole document at a revision, checked by the core. */
export const documentSchema = z.object({ document: z.unknown() });

/** `POST /api/presence`: what a window looks at, said when that changes and now and then; `leave` when it goes. */
export const presenceSchema = z.strictObject({
  window: z.string().min(8).max(64),
  design: z.string().min(1).max(64),
  lens: z.string().max(20),
  /** What is selected there, in words; null: nothing. */
  at: z.string().max(200).nullable(),
  leave: z.boolean().default(false),
});
export type Presence = z.output<typeof presenceSchema>;

/** A window that looks at a design; `name` is a letter that no other window of it has. */
export const onlookerSchema = z.object({
  window: z.string(),
  name: z.string(),
  lens: z.string(),
  at: z.string().nullable(),
});
export type Onlooker = z.output<typeof onlookerSchema>;

/** What `GET /api/events` tells of: server-sent events of all designs, one stream a browser. */
export const liveEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('revision'), design: z.string(), revision: z.number() }),
  z.object({ kind: z.literal('watch'), design: z.string() }),
  z.object({ kind: z.literal('here'), design: z.string(), windows: z.array(onlookerSchema) }),
]);
export type LiveEvent = z.output<typeof liveEventSchema>;

/** The answer to a presence: the newest revision, null where the design is gone, and who else is there. */
export const hereSchema = z.object({ revision: z.number().nullable(), windows: z.array(onlookerSchema) });

/** `GET /api/templates`: the library, by name. */
export const librarySchema = z.object({ templates: z.array(templateSchema) });
/** `PUT /api/templates/:id` */
export const libraryTemplateSchema = templateSchema.omit({ id: true });

/** Every body that the server takes, by a name that can be told to a worker. */
export const BODIES = {
  newDesign: newDesignSchema,
  rename: renameSchema,
  write: writeSchema,
  baseline: baselineSchema,
  presence: presenceSchema,
  template: libraryTemplateSchema,
  source: sourceSchema,
  watch: watchSettingsSchema,
} as const;
export type BodyName = keyof typeof BODIES;
export type Body<N extends BodyName> = z.output<(typeof BODIES)[N]>;

export const createdSchema = z.object({ id: z.string() });
/** `replayed`: others had changed the design since the write's base, and it was made on top of that. */
export const savedSchema = z.object({ revision: z.number(), replayed: z.boolean() });

/** Every refusal: a sentence for the person, and details where there are some. */
export const refusalSchema = z.object({
  message: z.string(),
  details: z.array(z.string()).default([]),
  /** With 409: the newest revision, and in words what was done since. */
  revision: z.number().optional(),
  since: z.array(z.string()).optional(),
});
export type Refusal = z.input<typeof refusalSchema>;

/** One line of the list of designs. Times are milliseconds since 1970. */
export const summarySchema = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  switches: z.number(),
  links: z.number(),
  updatedAt: z.number(),
});
export type DesignSummary = z.output<typeof summarySchema>;

/** `GET /api/designs/:id/glance`: a picture of the newest revision, and how much there is to find in it. */
export const glanceSchema = z.object({
  switches: z.array(z.tuple([z.number(), z.number(), z.number()])),
  links: z.array(z.tuple([z.number(), z.number()])),
  findings: z.number().nullable(),
});

const patches = z.array(z.custom<Patch>((value) => typeof value === 'object' && value !== null)).readonly();

/** A revision that can be taken back or done again, with the patches both ways. */
const stepSchema = z.object({ number: z.number(), label: z.string(), patches, inverse: patches });
export type Step = Readonly<z.output<typeof stepSchema>>;

/** `GET /api/designs/:id`: the document is checked by the core; the last of `undo` or `redo` is the next to go. */
export const openDesignSchema = z.object({
  id: z.string(),
  revision: z.number(),
  design: z.unknown(),
  undo: z.array(stepSchema).readonly(),
  redo: z.array(stepSchema).readonly(),
  /** Set where the newest revisions cannot be read: `design` is the last good one then. */
  damage: z.object({ good: z.number(), head: z.number(), why: z.string() }).nullable(),
});

/** A design as the workbench opens it. */
export type OpenDesign = Readonly<Omit<z.output<typeof openDesignSchema>, 'design'>> & { readonly design: Design };
