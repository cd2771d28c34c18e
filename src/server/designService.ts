/** What the server does with designs: every write is compared with the newest revision and set in one transaction. */
import { randomBytes } from 'node:crypto';
import { restoreLabel, type DesignSummary, type HistoryEntry, type NewDesign, type OpenDesign, type Refusal, type Step } from '../contract/api';
import type { Command } from '../core/design/commands';
import { demoOf } from '../core/demo/demos';
import { describeCommands } from '../core/design/describe';
import { applyChange, editAll, replaceDesign } from '../core/design/edit';
import { problemText } from '../core/design/problem';
import { readDesign } from '../core/design/read';
import { FORMAT, MAX_NAME, type Design } from '../core/design/schema';
import { fail, ok, type Result } from '../core/result';
import type { Db } from './db/connect';
import * as store from './db/designStore';
import { stacksOf } from './history';

/** A refusal with the HTTP status that goes with it. */
export type Refused = Refusal & { readonly status: number };

/** The steps that an opened design brings along for undo and redo; older ones stay in the log. */
const STEPS_KEPT = 100;

const unknownDesign = (id: string): Refused => ({ status: 404, message: `There is no design "${id.slice(0, 40)}". It may have been deleted.` });

export const listDesigns = (db: Db): DesignSummary[] => store.listDesigns(db);

/** Creates a design: empty, the demo, a copy, or from a document. Gives its id. */
export function createDesign(db: Db, wish: NewDesign, now = Date.now()): Result<string, Refused> {
  const design = newDocument(db, wish);
  if (!design.ok) return design;
  const id = randomBytes(6).toString('base64url');
  store.insertDesign(db, id, design.value, now);
  return ok(id);
}

function newDocument(db: Db, wish: NewDesign): Result<Design, Refused> {
  switch (wish.do) {
    case 'demo':
      return ok(demoOf(wish.site ?? 'observatory'));
    case 'create':
      return checked({ format: FORMAT.name, version: FORMAT.version, name: wish.name, switches: [], links: [] });
    case 'import':
      return checked(wish.document);
    case 'duplicate': {
      if (store.headRevision(db, wish.of) === null) return fail(unknownDesign(wish.of));
      const original = store.loadDesign(db, wish.of);
      return ok({ ...original, name: `${original.name.slice(0, MAX_NAME - 7)} (copy)` });
    }
  }
}

function checked(document: unknown): Result<Design, Refused> {
  const design = readDesign(document);
  if (design.ok) return design;
  return fail({ status: 422, message: 'This is not a design that Knot Path can open.', details: design.error.map(problemText) });
}

/** Opens a design at its newest revision. */
export function openDesign(db: Db, id: string): Result<OpenDesign, Refused> {
  return db.transaction(() => {
    const revision = store.headRevision(db, id);
    if (revision === null) return fail(unknownDesign(id));
    const stacks = stacksOf(store.readLog(db, id));
    const steps = (numbers: number[]): Step[] => numbers.slice(-STEPS_KEPT).flatMap((number) => store.readStep(db, id, number) ?? []);
    return ok({ id, revision, design: store.loadDesign(db, id), undo: steps(stacks.undo), redo: steps(stacks.redo) });
  });
}

/** Applies commands as one revision on top of `base`. */
export function editDesign(db: Db, id: string, base: number, commands: readonly Command[], now = Date.now()): Result<number, Refused> {
  return write(db, id, base, (number) => {
    const before = store.loadDesign(db, id);
    const edited = editAll(before, commands);
    if (!edited.ok) return fail({ status: 422, message: 'This change does not fit the design.', details: [problemText(edited.error)] });
    const { design, patches, inverse } = edited.value;
    if (patches.length === 0) return ok(base);
    const label = describeCommands(before, commands);
    store.appendRevision(db, id, { number, label, patches, inverse, command: commands[0]?.do ?? '', kind: 'edit', target: null }, design, now);
    return ok(number);
  });
}

/** Takes back, or does again, revision `target`, which must be the next in line. */
export function stepDesign(
  db: Db, id: string, base: number, kind: 'undo' | 'redo', target: number, now = Date.now(),
): Result<number, Refused> {
  return write(db, id, base, (number) => {
    const stacks = stacksOf(store.readLog(db, id));
    const step = stacks[kind].at(-1) === target ? store.readStep(db, id, target) : null;
    if (!step) return fail({ status: 422, message: `Revision ${target} is not the next to ${kind}.` });
    const [patches, inverse] = kind === 'undo' ? [step.inverse, step.patches] : [step.patches, step.inverse];
    const design = applyChange(store.loadDesign(db, id), patches);
    const label = `${kind === 'undo' ? 'took back' : 'did again'}: ${step.label}`;
    store.appendRevision(db, id, { number, label, patches, inverse, command: kind, kind, target }, design, now);
    return ok(number);
  });
}

/** Makes revision `target` the newest one: a revision of its own, which can be taken back. */
export function restoreRevision(db: Db, id: string, base: number, target: number, now = Date.now()): Result<number, Refused> {
  return write(db, id, base, (number) => {
    if (target > base) return fail(unknownRevision(target, base));
    const { design, patches, inverse } = replaceDesign(store.loadDesign(db, id), store.loadDesign(db, id, target));
    if (patches.length === 0) return ok(base);
    store.appendRevision(db, id, { number, label: restoreLabel(target), patches, inverse, command: 'restore', kind: 'edit', target: null }, design, now);
    return ok(number);
  });
}

/** Every revision in words. */
export function historyOf(db: Db, id: string): Result<HistoryEntry[], Refused> {
  return store.headRevision(db, id) === null ? fail(unknownDesign(id)) : ok(store.readHistory(db, id));
}

/** The document as it was at a revision. */
export function documentAt(db: Db, id: string, revision: number): Result<Design, Refused> {
  return atRevision(db, id, revision, () => store.loadDesign(db, id, revision));
}

/** Names a revision as a baseline; null takes the name away. */
export function nameBaseline(db: Db, id: string, revision: number, name: string | null): Result<null, Refused> {
  return atRevision(db, id, revision, () => {
    store.setBaseline(db, id, revision, name);
    return null;
  });
}

function atRevision<T>(db: Db, id: string, revision: number, then: () => T): Result<T, Refused> {
  const head = store.headRevision(db, id);
  if (head === null) return fail(unknownDesign(id));
  if (!Number.isInteger(revision) || revision < 0 || revision > head) return fail(unknownRevision(revision, head));
  return ok(then());
}

const unknownRevision = (revision: number, head: number): Refused => ({ status: 404, message: `There is no revision ${revision}; the newest is ${head}.` });

/** Renames whatever the newest revision is: the list has no revision of its own to be behind with. */
export function renameDesign(db: Db, id: string, name: string): Result<number, Refused> {
  return editDesign(db, id, store.headRevision(db, id) ?? 0, [{ do: 'rename-design', name }]);
}

export const deleteDesign = (db: Db, id: string, now = Date.now()): Result<null, Refused> =>
  store.setDeleted(db, id, now) ? ok(null) : fail(unknownDesign(id));

export const restoreDesign = (db: Db, id: string): Result<null, Refused> =>
  store.setDeleted(db, id, null) ? ok(null) : fail(unknownDesign(id));

/** Puts the demos into a database that has never held a design, the observatory as the latest. */
export function plantDemos(db: Db, now = Date.now()): void {
  if (!store.isEmpty(db)) return;
  createDesign(db, { do: 'demo', site: 'valley' }, now - 1);
  createDesign(db, { do: 'demo', site: 'observatory' }, now);
}

/** Compare-and-set: runs `append` with the next number only where `base` is the newest revision. */
function write(db: Db, id: string, base: number, append: (number: number) => Result<number, Refused>): Result<number, Refused> {
  return db.transaction(
    () => {
      const head = store.headRevision(db, id);
      if (head === null) return fail(unknownDesign(id));
      if (head !== base) return fail(conflict(db, id, base, head));
      return append(head + 1);
    },
    { behavior: 'immediate' },
  );
}

function conflict(db: Db, id: string, base: number, head: number): Refused {
  const since = store.readLog(db, id).filter((entry) => entry.number > base).map((entry) => entry.label);
  return {
    status: 409,
    message: `This design is at revision ${head} by now; your change was made on revision ${base}.`,
    revision: head,
    since: since.slice(-20),
  };
}
