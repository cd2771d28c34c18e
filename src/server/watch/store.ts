/** What is kept of a watched network: readings and events, as much as its settings say. */
import { and, asc, count, desc, eq, gt, gte, lt, lte, max, min, sql } from 'drizzle-orm';
import { watchSettingsSchema, type KeptEvent, type WatchSettings } from '../../contract/observe';
import { parseJson } from '../../core/base/json';
import type { Observation } from '../../core/exchange/observation/observation';
import { watchEventSchema, type WatchEvent } from '../../core/exchange/observation/watch/events';
import { keptOf, keptSchema, readAgain } from '../../core/exchange/observation/watch/kept';
import type { Db } from '../db/handle';
import { watches, watchEvents, watchPolls } from '../db/schema';

/** Readings from one that is kept whole to the next. */
const WHOLE_EVERY = 200;
const MIB = 1024 * 1024;

export function settingsOf(db: Db, design: string): WatchSettings | null {
  const row = db.select().from(watches).where(eq(watches.design, design)).get();
  const json = row && parseJson(row.settings);
  const read = json?.ok ? watchSettingsSchema.safeParse(json.value) : null;
  return read?.success ? read.data : null;
}

export function keepSettings(db: Db, design: string, settings: WatchSettings): void {
  const row = { settings: JSON.stringify(settings) };
  db.insert(watches)
    .values({ design, ...row })
    .onConflictDoUpdate({ target: watches.design, set: row })
    .run();
}

/** Designs whose watch goes on. */
export const watchedDesigns = (db: Db): string[] =>
  db
    .select({ design: watches.design })
    .from(watches)
    .all()
    .map(({ design }) => design)
    .filter((design) => settingsOf(db, design)?.on);

/** A whole reading now and then, between them what has changed. */
export function keepReading(db: Db, design: string, before: Observation | null, now: Observation, at: number): void {
  const since =
    db
      .select({ n: count() })
      .from(watchPolls)
      .where(and(eq(watchPolls.design, design), gt(watchPolls.at, lastWhole(db, design, at) ?? at)))
      .get()?.n ?? 0;
  const kept = keptOf(since >= WHOLE_EVERY || lastWhole(db, design, at) === null ? null : before, now);
  db.insert(watchPolls)
    .values({ design, at, whole: kept.whole, data: JSON.stringify(kept) })
    .onConflictDoNothing()
    .run();
}

const lastWhole = (db: Db, design: string, at: number): number | null =>
  db
    .select({ at: max(watchPolls.at) })
    .from(watchPolls)
    .where(and(eq(watchPolls.design, design), eq(watchPolls.whole, true), lte(watchPolls.at, at)))
    .get()?.at ?? null;

/** What was read last at a moment; null where nothing was. */
export function readingAt(db: Db, design: string, at: number): Observation | null {
  const from = lastWhole(db, design, at);
  if (from === null) return null;
  const rows = db
    .select()
    .from(watchPolls)
    .where(and(eq(watchPolls.design, design), gte(watchPolls.at, from), lte(watchPolls.at, at)))
    .orderBy(asc(watchPolls.at))
    .all();
  const parts = rows.flatMap(({ data }) => {
    const json = parseJson(data);
    const read = json.ok ? keptSchema.safeParse(json.value) : null;
    return read?.success ? [read.data] : [];
  });
  return readAgain(parts, new Date(rows.at(-1)!.at).toISOString());
}

export function keepEvents(db: Db, design: string, events: readonly WatchEvent[], at: number): void {
  for (const event of events)
    db.insert(watchEvents)
      .values({ design, at, event: JSON.stringify(event) })
      .run();
}

/** The newest, in their order; of those between two of them, by their ids, where these are given. */
export function eventsOf(
  db: Db,
  design: string,
  most: number,
  { before, after }: { readonly before?: number | undefined; readonly after?: number | undefined } = {},
): KeptEvent[] {
  const rows = db
    .select()
    .from(watchEvents)
    .where(
      and(
        eq(watchEvents.design, design),
        before === undefined ? undefined : lt(watchEvents.id, before),
        after === undefined ? undefined : gt(watchEvents.id, after),
      ),
    )
    .orderBy(desc(watchEvents.id))
    .limit(most)
    .all();
  return rows.reverse().flatMap(({ id, at, event }) => {
    const json = parseJson(event);
    const read = json.ok ? watchEventSchema.safeParse(json.value) : null;
    return read?.success ? [{ ...read.data, id, at }] : [];
  });
}

export const oldestEvent = (db: Db, design: string): number | null =>
  db
    .select({ id: min(watchEvents.id) })
    .from(watchEvents)
    .where(eq(watchEvents.design, design))
    .get()?.id ?? null;

export const readingsOf = (db: Db, design: string): number =>
  db.select({ n: count() }).from(watchPolls).where(eq(watchPolls.design, design)).get()?.n ?? 0;

/** When it was read next after a moment; null: not yet. */
export const nextReading = (db: Db, design: string, at: number): number | null =>
  db
    .select({ at: min(watchPolls.at) })
    .from(watchPolls)
    .where(and(eq(watchPolls.design, design), gt(watchPolls.at, at)))
    .get()?.at ?? null;

export const octetsOf = (db: Db, design: string): number =>
  db
    .select({ n: sql<number | null>`sum(length(${watchPolls.data}))` })
    .from(watchPolls)
    .where(eq(watchPolls.design, design))
    .get()?.n ?? 0;

/** Lets go of what is older, or more, than is to be kept: always up to a whole reading. */
export function prune(db: Db, design: string, { days, mib }: Pick<WatchSettings, 'days' | 'mib'>, now: number): void {
  const old = lastWhole(db, design, now - days * 86_400_000);
  if (old !== null) dropBefore(db, design, old);
  while (octetsOf(db, design) > mib * MIB) {
    const [, second] = db
      .select({ at: watchPolls.at })
      .from(watchPolls)
      .where(and(eq(watchPolls.design, design), eq(watchPolls.whole, true)))
      .orderBy(asc(watchPolls.at))
      .limit(2)
      .all();
    if (!second) break;
    dropBefore(db, design, second.at);
  }
}

function dropBefore(db: Db, design: string, at: number): void {
  db.delete(watchPolls)
    .where(and(eq(watchPolls.design, design), lt(watchPolls.at, at)))
    .run();
  db.delete(watchEvents)
    .where(and(eq(watchEvents.design, design), lt(watchEvents.at, at)))
    .run();
}

export const firstAndLast = (db: Db, design: string): { first: number | null; last: number | null } =>
  db
    .select({ first: min(watchPolls.at), last: max(watchPolls.at) })
    .from(watchPolls)
    .where(eq(watchPolls.design, design))
    .get() ?? { first: null, last: null };

/** Forgets what was kept of a network. */
export function forget(db: Db, design: string): void {
  for (const table of [watchPolls, watchEvents]) db.delete(table).where(eq(table.design, design)).run();
}
