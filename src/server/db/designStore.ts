/** Designs in the database: a log of patches with snapshots to start from. Knows rows, not rules. */
import type { Db } from './handle';
import { and, asc, desc, eq, gt, isNull, lt, lte } from 'drizzle-orm';
import type { Damage, DesignSummary, HistoryEntry, HistoryPart, Step } from '../../contract/api';
import { applyChange, type Patch } from '../../core/edit/edit';
import { problemText } from '../../core/model/problem';
import { changeProblems, readDesign } from '../../core/model/read';
import { leanDesign } from '../../core/model/derive/write';
import type { Design } from '../../core/model/document';
import { fail, type Result } from '../../core/base/result';
import { z } from '../../core/base/zod';
import type { ReadyDocument } from '../heavy/task';
import { baselines, designs, revisions, snapshots } from './schema';

/** A snapshot is kept every so many revisions, which bounds the patches that opening has to follow. */
const SNAPSHOT_EVERY = 50;

const patchesSchema = z.array(
  z.object({
    op: z.enum(['replace', 'remove', 'add']),
    path: z.array(z.union([z.string(), z.number()])),
    value: z.unknown().optional(),
  }),
);
const patchesOf = (text: string): Patch[] => patchesSchema.parse(JSON.parse(text)) as Patch[];

export type Kind = 'edit' | 'undo' | 'redo' | 'mend';
export interface LogEntry {
  readonly number: number;
  readonly kind: Kind;
  readonly target: number | null;
  readonly label: string;
}
/** A revision as it is appended: a step with its place in the log. */
export interface Revision extends Step {
  readonly kind: Kind;
  readonly target: number | null;
  readonly command: string;
  /** What the page calls the write, where it does. */
  readonly write?: string | undefined;
}

/** A document out of the log; `damage` where that is not the one asked for, but the last good one before it. */
export interface Loaded {
  readonly design: Design;
  readonly revision: number;
  readonly damage: Damage | null;
}

/** The newest documents of some designs, so that an edit does not follow the log again. */
const heads = new WeakMap<object, Map<string, { readonly revision: number; readonly design: Design }>>();
const MOST_HEADS = 16;

function headsOf(db: Db): Map<string, { readonly revision: number; readonly design: Design }> {
  const found = heads.get(db.$client) ?? new Map<string, { readonly revision: number; readonly design: Design }>();
  heads.set(db.$client, found);
  return found;
}

/** Remembers a committed revision's document as the newest one. */
export function rememberHead(db: Db, id: string, revision: number, design: Design): void {
  const known = headsOf(db);
  known.delete(id);
  known.set(id, { revision, design });
  if (known.size > MOST_HEADS) known.delete([...known.keys()][0]!);
}

/** Living designs, the last changed first. */
export function listDesigns(db: Db): DesignSummary[] {
  return db
    .select({
      id: designs.id,
      name: designs.name,
      revision: designs.revision,
      switches: designs.switches,
      links: designs.links,
      updatedAt: designs.updatedAt,
    })
    .from(designs)
    .where(isNull(designs.deletedAt))
    .orderBy(desc(designs.updatedAt), asc(designs.id))
    .all();
}

/** The newest revision's number, or null where there is no such living design. */
export function headRevision(db: Db, id: string): number | null {
  const row = db
    .select({ revision: designs.revision })
    .from(designs)
    .where(and(eq(designs.id, id), isNull(designs.deletedAt)))
    .get();
  return row?.revision ?? null;
}

/** The document at a revision: the latest snapshot up to it with the patches since. Throws where not even the first can be read. */
export function loadDesign(db: Db, id: string, revision: number): Loaded {
  const head = headsOf(db).get(id);
  if (head?.revision === revision) return { design: head.design, revision, damage: null };
  const starts = db
    .select({ revision: snapshots.revision })
    .from(snapshots)
    .where(and(eq(snapshots.design, id), lte(snapshots.revision, revision)))
    .orderBy(desc(snapshots.revision))
    .all();
  let why = 'no snapshot is there';
  for (const start of starts) {
    const snapshot = readSnapshot(db, id, start.revision);
    if (!snapshot.ok) why = `snapshot ${start.revision}: ${snapshot.error}`;
    else return follow(db, id, snapshot.value, start.revision, revision);
  }
  throw new UnreadableDesign(id, why);
}

/** A design of which nothing can be read; what is stored can still be taken out as it is. */
export class UnreadableDesign extends Error {
  readonly id: string;

  constructor(id: string, why: string) {
    super(`design ${id}: ${why}`);
    this.id = id;
  }
}

function readSnapshot(db: Db, id: string, revision: number): Result<Design, string> {
  try {
    const row = db
      .select({ document: snapshots.document })
      .from(snapshots)
      .where(and(eq(snapshots.design, id), eq(snapshots.revision, revision)))
      .get();
    const design = readDesign(JSON.parse(row?.document ?? 'null'));
    return design.ok ? design : fail(design.error.slice(0, 3).map(problemText).join('; '));
  } catch (error) {
    return fail((error as Error).message);
  }
}

/** Follows patches from a good document; stops before the first revision that does not lead to a good one. */
function follow(db: Db, id: string, start: Design, from: number, to: number): Loaded {
  const rows = db
    .select({ number: revisions.number })
    .from(revisions)
    .where(and(eq(revisions.design, id), gt(revisions.number, from), lte(revisions.number, to)))
    .orderBy(asc(revisions.number))
    .all();
  const stepOf = (number: number): Patch[] =>
    patchesOf(
      db
        .select({ patches: revisions.patches })
        .from(revisions)
        .where(and(eq(revisions.design, id), eq(revisions.number, number)))
        .get()!.patches,
    );
  try {
    const design = rows.reduce((before, { number }) => applyChange(before, stepOf(number)), start);
    if (from + rows.length === to && changeProblems(start, design).length === 0)
      return { design, revision: to, damage: null };
  } catch {
    // Looked for below, step by step.
  }
  let [good, at] = [start, from];
  for (const { number } of rows) {
    const why = number === at + 1 ? faultOf(number) : `revision ${at + 1} is not there`;
    if (why !== null) return { design: good, revision: at, damage: { good: at, head: to, why: why.slice(0, 500) } };
    at = number;
  }
  return {
    design: good,
    revision: at,
    damage: at === to ? null : { good: at, head: to, why: `revision ${at + 1} is not there` },
  };

  function faultOf(number: number): string | null {
    try {
      const next = applyChange(good, stepOf(number));
      const [problem] = changeProblems(good, next);
      if (problem) return `revision ${number}: ${problemText(problem)}`;
      good = next;
      return null;
    } catch (error) {
      return `revision ${number}: ${(error as Error).message}`;
    }
  }
}

/** Everything that is stored of a design, as it is: for taking out what cannot be read. */
export function readStored(db: Db, id: string): unknown {
  const rows = <T>(read: () => T): T | string => {
    try {
      return read();
    } catch (error) {
      return (error as Error).message;
    }
  };
  return {
    snapshots: rows(() =>
      db.select().from(snapshots).where(eq(snapshots.design, id)).orderBy(asc(snapshots.revision)).all(),
    ),
    revisions: rows(() =>
      db.select().from(revisions).where(eq(revisions.design, id)).orderBy(asc(revisions.number)).all(),
    ),
  };
}

/** The revision that a write of this name made, or null. */
export function revisionOfWrite(db: Db, id: string, write: string): number | null {
  return (
    db
      .select({ number: revisions.number })
      .from(revisions)
      .where(and(eq(revisions.design, id), eq(revisions.write, write)))
      .get()?.number ?? null
  );
}

/** What was done after a revision, in words. */
export const labelsSince = (db: Db, id: string, revision: number, most: number): string[] =>
  db
    .select({ label: revisions.label })
    .from(revisions)
    .where(and(eq(revisions.design, id), gt(revisions.number, revision)))
    .orderBy(desc(revisions.number))
    .limit(most)
    .all()
    .map(({ label }) => label)
    .reverse();

/** Revisions in words, the newest first, with the names of those that are baselines: those after or before a number, at most so many. */
export function readHistory(
  db: Db,
  id: string,
  { after = -1, before = Number.MAX_SAFE_INTEGER, most = Number.MAX_SAFE_INTEGER }: HistoryPart = {},
): HistoryEntry[] {
  const named = new Map(
    db
      .select()
      .from(baselines)
      .where(eq(baselines.design, id))
      .all()
      .map((row) => [row.revision, row.name]),
  );
  const created = db.select({ at: designs.createdAt }).from(designs).where(eq(designs.id, id)).get();
  const rows = db
    .select({ number: revisions.number, label: revisions.label, at: revisions.at })
    .from(revisions)
    .where(and(eq(revisions.design, id), gt(revisions.number, after), lt(revisions.number, before)))
    .orderBy(desc(revisions.number))
    .limit(most)
    .all();
  const first =
    rows.length < most && after < 0 && before > 0 ? [{ number: 0, label: 'as created', at: created?.at ?? 0 }] : [];
  return [...rows, ...first].map((row) => ({ ...row, baseline: named.get(row.number) ?? null }));
}

/** Names a revision, or takes its name away. */
export function setBaseline(db: Db, id: string, revision: number, name: string | null): void {
  if (name === null)
    db.delete(baselines)
      .where(and(eq(baselines.design, id), eq(baselines.revision, revision)))
      .run();
  else
    db.insert(baselines)
      .values({ design: id, revision, name })
      .onConflictDoUpdate({ target: [baselines.design, baselines.revision], set: { name } })
      .run();
}

/** The log without its patches, in order. */
export function readLog(db: Db, id: string): LogEntry[] {
  const { number, kind, target, label } = revisions;
  return db
    .select({ number, kind, target, label })
    .from(revisions)
    .where(eq(revisions.design, id))
    .orderBy(asc(number))
    .all();
}

/** One revision with its patches; null where there is none of this number. */
export function readStep(db: Db, id: string, number: number): Step | null {
  const row = db
    .select()
    .from(revisions)
    .where(and(eq(revisions.design, id), eq(revisions.number, number)))
    .get();
  return row ? { number, label: row.label, patches: patchesOf(row.patches), inverse: patchesOf(row.inverse) } : null;
}

/** Adds a design at revision 0. */
export function insertDesign(db: Db, id: string, { text, name, switches, links }: ReadyDocument, now: number): void {
  db.transaction((tx) => {
    tx.insert(designs).values({ id, name, switches, links, revision: 0, createdAt: now, updatedAt: now }).run();
    tx.insert(snapshots).values({ design: id, revision: 0, document: text }).run();
  });
}

/** Appends a revision whose result is `design`. The caller has compared the numbers within the same transaction. */
export function appendRevision(db: Db, id: string, revision: Revision, design: Design, now: number): void {
  const { number, label, command, kind, target, write } = revision;
  const [patches, inverse] = [JSON.stringify(revision.patches), JSON.stringify(revision.inverse)];
  db.insert(revisions)
    .values({ design: id, number, label, command, kind, target, patches, inverse, at: now, write: write ?? null })
    .run();
  db.update(designs)
    .set({ ...headline(design), revision: number, updatedAt: now })
    .where(eq(designs.id, id))
    .run();
  if (number % SNAPSHOT_EVERY === 0 || kind === 'mend')
    db.insert(snapshots)
      .values({ design: id, revision: number, document: documentText(design) })
      .run();
}

/** Marks a design deleted or brings it back; false where there is no such design in the other state. */
export function setDeleted(db: Db, id: string, deletedAt: number | null): boolean {
  const before = deletedAt === null ? lte(designs.deletedAt, Number.MAX_SAFE_INTEGER) : isNull(designs.deletedAt);
  return (
    db
      .update(designs)
      .set({ deletedAt })
      .where(and(eq(designs.id, id), before))
      .run().changes > 0
  );
}

/** Whether the database has ever held a design, deleted ones included. */
export const isEmpty = (db: Db): boolean => db.select({ id: designs.id }).from(designs).limit(1).get() === undefined;

const headline = (design: Design) => ({
  name: design.name,
  switches: design.switches.length,
  links: design.links.length,
});
const documentText = (design: Design): string => JSON.stringify(leanDesign(design));
