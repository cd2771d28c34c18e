/** What the workbench and the server say to each other about networks that are read and watched. */
import { z } from '../core/base/zod';
import { addressField, everyField, networkField, syslogField, webhookField } from '../core/exchange/observation/asked';
import { watchEventSchema } from '../core/exchange/observation/watch/events';
import { readRule } from '../core/exchange/observation/watch/rules';

/** Where a network is read from: only what is named here is ever asked. */
const sourceShape = {
  addresses: z.array(addressField).min(1).max(500),
  /** Networks in which neighbours are asked, too. */
  within: z.array(networkField).max(100),
  /** By its name; the secret is in the server's own file. */
  credentials: z.string().min(1).max(100),
  port: z.number().int().min(1).max(65_535),
};
/** `POST /api/designs/:id/reading` */
export const sourceSchema = z.strictObject(sourceShape);
export type Source = z.output<typeof sourceSchema>;

/** `GET /api/designs/:id/reading` */
export const readingSchema = z.object({
  state: z.enum(['none', 'reading', 'done', 'failed']),
  /** Switches read so far, and known of. */
  done: z.number(),
  known: z.number(),
  /** Who was read last; null: nobody yet. */
  newest: z.string().nullable(),
  /** What it came to, or why it failed. */
  observation: z.unknown(),
  why: z.string().nullable(),
});
export type ReadingState = z.output<typeof readingSchema>;

const rule = z
  .string()
  .max(200)
  .superRefine((text, ctx) => {
    const read = readRule(text);
    if (!read.ok) ctx.addIssue({ code: 'custom', message: read.error });
  });

/** `PUT /api/designs/:id/watch` */
export const watchSettingsSchema = z.strictObject({
  on: z.boolean(),
  source: sourceSchema,
  /** Seconds. */
  every: everyField,
  rules: z.array(rule).max(50),
  /** Where notices go as JSON; and as syslog, `host` or `host:port`. */
  webhook: webhookField.nullable(),
  syslog: syslogField.nullable(),
  /** How much is kept. */
  days: z.number().int().min(1).max(3650),
  mib: z.number().int().min(1).max(100_000),
});
export type WatchSettings = z.output<typeof watchSettingsSchema>;

/** Most events that are told at once. */
export const MOST_EVENTS = 500;

/** `at`: milliseconds since 1970. */
export const keptEventSchema = watchEventSchema.extend({ id: z.number(), at: z.number() });
export type KeptEvent = z.output<typeof keptEventSchema>;

/** `GET /api/designs/:id/watch`, `?after=` an event: those that came after it, the newest last; at most `MOST_EVENTS`. */
export const watchSchema = z.object({
  settings: watchSettingsSchema.nullable(),
  /** Names of credentials that the server has, or why it has none. */
  credentials: z.array(z.string()),
  trouble: z.string().nullable(),
  /** When it was read first and last, milliseconds; null: not yet. */
  first: z.number().nullable(),
  last: z.number().nullable(),
  /** Octets that are kept. */
  kept: z.number(),
  /** Why notices could not be sent last. */
  unsent: z.string().nullable(),
  events: z.array(keptEventSchema),
  /** The first event that is kept; null: none. */
  oldest: z.number().nullable(),
  /** How many readings are kept. */
  readings: z.number(),
});
export type WatchView = z.output<typeof watchSchema>;

/** `GET /api/designs/:id/watch/events?before=` an event: those before it. */
export const earlierSchema = z.object({ events: z.array(keptEventSchema) });

/** `GET /api/designs/:id/watch/reading?at=`: what was read last at a moment, and when the next reading was; null: not yet. */
export const readingAtSchema = z.object({ observation: z.unknown(), next: z.number().nullable() });
