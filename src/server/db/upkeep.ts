/**
 * What is done to the database at leisure. The rules, which lose no revision of a living design:
 * - the write-ahead log goes back into the file once nothing has been written for some seconds;
 * - of the snapshots the first, those of the newest thousand revisions and every five hundredth stay: any revision is
 *   still reached from one of them by its patches;
 * - a deleted design goes for good a week later;
 * - the file shrinks where more than a quarter of it is free.
 */
import type { Db } from './handle';
import { and, eq, gt, inArray, lt, ne, sql } from 'drizzle-orm';
import { designs, snapshots } from './schema';

/** How long a deleted design can be brought back. */
export const DELETED_KEPT_MS = 7 * 24 * 3600 * 1000;
/** Revisions, counted from the newest, whose snapshots all stay; of older ones every so many. */
export const THIN = { newest: 1000, every: 500 };

const LOOK_EVERY_MS = 3000;
const TIDY_EVERY_MS = 3600 * 1000;
/** Pages below which shrinking is not worth the writing (4 MiB). */
const WORTH_SHRINKING = 1024;

/** Starts it; gives what stops it. */
export function startUpkeep(db: Db, onError: (error: unknown) => void = () => undefined): () => void {
  const changes = db.$client.prepare<[], { n: number }>('select total_changes() as n');
  let seen = changes.get()!.n;
  let written = seen;
  const quietly = (work: () => void) => (): void => {
    try {
      work();
    } catch (error) {
      onError(error); // a full disk, say: the next round tries again
    }
  };
  const look = setInterval(
    quietly(() => {
      const { n } = changes.get()!;
      if (n === seen && n !== written) {
        db.$client.pragma('wal_checkpoint(TRUNCATE)');
        written = n;
      }
      seen = n;
    }),
    LOOK_EVERY_MS,
  );
  const tidy = quietly(() => tidyUp(db, Date.now()));
  const first = setTimeout(tidy, LOOK_EVERY_MS);
  const hourly = setInterval(tidy, TIDY_EVERY_MS);
  for (const timer of [look, first, hourly]) timer.unref();
  return () => [look, first, hourly].forEach((timer) => clearInterval(timer));
}

/** Purges, thins and shrinks; gives how many designs and snapshots went. */
export function tidyUp(
  db: Db,
  now: number,
  thin = THIN,
): { readonly designs: number; readonly snapshots: number; readonly shrunk: boolean } {
  const gone = db
    .delete(designs)
    .where(lt(designs.deletedAt, now - DELETED_KEPT_MS))
    .run().changes;
  let thinned = 0;
  for (const { id, revision } of db
    .select({ id: designs.id, revision: designs.revision })
    .from(designs)
    .where(gt(designs.revision, thin.newest))
    .all()) {
    const old = db
      .select({ revision: snapshots.revision })
      .from(snapshots)
      .where(
        and(
          eq(snapshots.design, id),
          ne(snapshots.revision, 0),
          lt(snapshots.revision, revision - thin.newest),
          sql`${snapshots.revision} % ${thin.every} <> 0`,
        ),
      )
      .all();
    if (old.length > 0)
      thinned += db
        .delete(snapshots)
        .where(
          and(
            eq(snapshots.design, id),
            inArray(
              snapshots.revision,
              old.map((row) => row.revision),
            ),
          ),
        )
        .run().changes;
  }
  const pages = Number(db.$client.pragma('page_count', { simple: true }));
  const free = Number(db.$client.pragma('freelist_count', { simple: true }));
  const shrunk = free > WORTH_SHRINKING && free * 4 > pages;
  if (shrunk) db.$client.exec('vacuum');
  return { designs: gone, snapshots: thinned, shrunk };
}
