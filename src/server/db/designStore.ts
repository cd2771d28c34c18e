/** Designs in the database: a log of patches with snapshots to start from. Knows rows, not rules. */
import { and, asc, desc, eq, gt, isNull, lte } from 'drizzle-orm';
import type { DesignSummary, HistoryEntry, Step } from '../../contract/api';
import { applyChange, type Patch } from '../../core/design/edit';
import { readDesign } from '../../core/design/read';
import { leanDesign } from '../../core/design/write';
import type { Design } from '../../core/design/schema';
import { z } from '../../core/zod';
import type { Db } from './connect';
import { baselines, designs, revisions, snapshots } from './schema';

/** A snapshot is kept every so many revisions, which bounds the patches that opening has to follow. */
const SNAPSHOT_EVERY = 50;

const patchesSchema = z.array(
  z.object({ op: z.enum(['replace', 'remove', 'add']), path: z.array(z.union([z.string(), z.number()])), value: z.unknown().optional() }),
);
const patchesOf = (text: string): Patch[] => patchesSchema.parse(JSON.parse(text)) as Patch[];

export type Kind = 'edit' | 'undo' | 'redo';
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
}

/** Living designs, the last changed first. */
export function listDesigns(db: Db): DesignSummary[] {
  return db
    .select({
      id: designs.id, name: designs.name, revision: designs.revision,
      switches: designs.switches, links: designs.links, updatedAt: designs.updatedAt,
    })
    .from(designs)
    .where(isNull(designs.deletedAt))
    .orderBy(desc(designs.updatedAt), asc(designs.id))
    .all();
}

/** The newest revision's number, or null where there is no such living design. */
export function headRevision(db: Db, id: string): number | null {
  const row = db.select({ revision: designs.revision }).from(designs).where(and(eq(designs.id, id), isNull(designs.deletedAt))).get();
  return row?.revision ?? null;
}

/** The document at a revision, the newest one by default: the latest snapshot up to it with the patches since. */
export function loadDesign(db: Db, id: string, revision = Number.MAX_SAFE_INTEGER): Design {
  const snapshot = db.select().from(snapshots).where(and(eq(snapshots.design, id), lte(snapshots.revision, revision))).orderBy(desc(snapshots.revision)).limit(1).get();
  if (!snapshot) throw new Error(`design ${id} has no snapshot`);
  const start = readDesign(JSON.parse(snapshot.document));
  if (!start.ok) throw new Error(`snapshot ${snapshot.revision} of design ${id}: ${JSON.stringify(start.error)}`);
  return db
    .select({ patches: revisions.patches })
    .from(revisions)
    .where(and(eq(revisions.design, id), gt(revisions.number, snapshot.revision), lte(revisions.number, revision)))
    .orderBy(asc(revisions.number))
    .all()
    .reduce((design, row) => applyChange(design, patchesOf(row.patches)), start.value);
}

/** Every revision in words, the newest first, with the names of those that are baselines. */
export function readHistory(db: Db, id: string): HistoryEntry[] {
  const named = new Map(db.select().from(baselines).where(eq(baselines.design, id)).all().map((row) => [row.revision, row.name]));
  const created = db.select({ at: designs.createdAt }).from(designs).where(eq(designs.id, id)).get();
  const rows = db.select({ number: revisions.number, label: revisions.label, at: revisions.at }).from(revisions).where(eq(revisions.design, id)).orderBy(desc(revisions.number)).all();
  return [...rows, { number: 0, label: 'as created', at: created?.at ?? 0 }].map((row) => ({ ...row, baseline: named.get(row.number) ?? null }));
}

/** Names a revision, or takes its name away. */
export function setBaseline(db: Db, id: string, revision: number, name: string | null): void {
  if (name === null) db.delete(baselines).where(and(eq(baselines.design, id), eq(baselines.revision, revision))).run();
  else db.insert(baselines).values({ design: id, revision, name }).onConflictDoUpdate({ target: [baselines.design, baselines.revision], set: { name } }).run();
}

/** The log without its patches, in order. */
export function readLog(db: Db, id: string): LogEntry[] {
  const { number, kind, target, label } = revisions;
  return db.select({ number, kind, target, label }).from(revisions).where(eq(revisions.design, id)).orderBy(asc(number)).all();
}

/** One revision with its patches; null where there is none of this number. */
export function readStep(db: Db, id: string, number: number): Step | null {
  const row = db.select().from(revisions).where(and(eq(revisions.design, id), eq(revisions.number, number))).get();
  return row ? { number, label: row.label, patches: patchesOf(row.patches), inverse: patchesOf(row.inverse) } : null;
}

/** Adds a design at revision 0. */
export function insertDesign(db: Db, id: string, design: Design, now: number): void {
  db.transaction((tx) => {
    tx.insert(designs).values({ id, ...headline(design), revision: 0, createdAt: now, updatedAt: now }).run();
    tx.insert(snapshots).values({ design: id, revision: 0, document: documentText(design) }).run();
  });
}

/** Appends a revision whose result is `design`. The caller has compared the numbers within the same transaction. */
export function appendRevision(db: Db, id: string, revision: Revision, design: Design, now: number): void {
  const { number, label, command, kind, target } = revision;
  const [patches, inverse] = [JSON.stringify(revision.patches), JSON.stringify(revision.inverse)];
  db.insert(revisions).values({ design: id, number, label, command, kind, target, patches, inverse, at: now }).run();
  db.update(designs).set({ ...headline(design), revision: number, updatedAt: now }).where(eq(designs.id, id)).run();
  if (number % SNAPSHOT_EVERY === 0) db.insert(snapshots).values({ design: id, revision: number, document: documentText(design) }).run();
}

/** Marks a design deleted or brings it back; false where there is no such design in the other state. */
export function setDeleted(db: Db, id: string, deletedAt: number | null): boolean {
  const before = deletedAt === null ? lte(designs.deletedAt, Number.MAX_SAFE_INTEGER) : isNull(designs.deletedAt);
  return db.update(designs).set({ deletedAt }).where(and(eq(designs.id, id), before)).run().changes > 0;
}

/** Whether the database has ever held a design, deleted ones included. */
export const isEmpty = (db: Db): boolean => db.select({ id: designs.id }).from(designs).limit(1).get() === undefined;

const headline = (design: Design) => ({ name: design.name, switches: design.switches.length, links: design.links.length });
const documentText = (design: Design): string => JSON.stringify(leanDesign(design));
