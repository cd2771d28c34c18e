/** What the server does with designs: every write is compared with the newest revision and set in one transaction. */
import type { Db } from './db/handle';
import { randomBytes } from 'node:crypto';
import {
  restoreLabel,
  type DesignSummary,
  type HistoryEntry,
  type HistoryPart,
  type NewDesign,
  type OpenDesign,
  type Step,
} from '../contract/api';
import type { Command } from '../core/edit/commands';
import { demoOf } from '../core/demo/demos';
import { EXERCISES } from '../core/demo/exercises';
import { DEMO_SITES } from '../core/demo/sites';
import { describeCommands } from '../core/edit/describe';
import { applyChange, editAll, replaceDesign, type Edited } from '../core/edit/edit';
import { problemText } from '../core/model/problem';
import { changeProblems } from '../core/model/read';
import { MAX_NAME, type Design } from '../core/model/document';
import { collide, touchedPlaces } from '../core/model/derive/touched';
import { fail, ok, type Result } from '../core/base/result';
import * as store from './db/designStore';
import { emptyDesign } from './emptyDesign';
import { inWorker } from './heavy/run';
import { checkedDesign, editOf, readyDocument, type ReadyDocument, type ReadyWish, type Refused } from './heavy/task';
import { stacksOf } from './history';
import { live } from './live';
import { unknownDesign, unknownRevision, unreadable } from './refusals';

/** The steps that an opened design brings along for undo and redo; older ones stay in the log. */
const STEPS_KEPT = 100;

export const listDesigns = (db: Db): DesignSummary[] => store.listDesigns(db);

/** Creates a design: empty, the demo, a copy, or from a document. Gives its id. */
export function createDesign(db: Db, wish: NewDesign | ReadyWish, now = Date.now()): Result<string, Refused> {
  const document = wish.do === 'ready' ? ok(wish.document) : newDocument(db, wish);
  if (!document.ok) return document;
  const id = randomBytes(6).toString('base64url');
  store.insertDesign(db, id, document.value, now);
  return ok(id);
}

function newDocument(db: Db, wish: NewDesign): Result<ReadyDocument, Refused> {
  const design = newDesign(db, wish);
  return design.ok ? ok(readyDocument(design.value)) : design;
}

function newDesign(db: Db, wish: NewDesign): Result<Design, Refused> {
  switch (wish.do) {
    case 'demo':
      return ok(demoOf(wish.site ?? 'observatory'));
    case 'exercise':
      return ok(EXERCISES[wish.number - 1]!.on(demoOf('observatory')));
    case 'create':
      return emptyDesign(wish.name, wish.mode);
    case 'import':
      return checkedDesign(wish.document);
    case 'duplicate': {
      if (store.headRevision(db, wish.of) === null) return fail(unknownDesign(wish.of));
      const original = headOf(db, wish.of).design;
      return ok({ ...original, name: `${original.name.slice(0, MAX_NAME - 7)} (copy)` });
    }
  }
}

/** The newest document of a design that is there, or the last good one. */
const headOf = (db: Db, id: string): store.Loaded => store.loadDesign(db, id, store.headRevision(db, id) ?? 0);

/** Opens a design at its newest revision, or at the last good one where that cannot be read. */
export function openDesign(db: Db, id: string): Result<OpenDesign, Refused> {
  try {
    return openLast(db, id);
  } catch (error) {
    if (!(error instanceof store.UnreadableDesign)) throw error;
    return fail({
      status: 422,
      message: 'Nothing of this design can be read. What is stored of it can be taken out as it is.',
      details: [error.message],
    });
  }
}

function openLast(db: Db, id: string): Result<OpenDesign, Refused> {
  return db.transaction(() => {
    if (store.headRevision(db, id) === null) return fail(unknownDesign(id));
    const { design, revision, damage } = headOf(db, id);
    const stacks = damage ? { undo: [], redo: [] } : stacksOf(store.readLog(db, id));
    const steps = (numbers: number[]): Step[] =>
      numbers.slice(-STEPS_KEPT).flatMap((number) => store.readStep(db, id, number) ?? []);
    if (!damage) store.rememberHead(db, id, revision, design);
    return ok({ id, revision, design, damage, undo: steps(stacks.undo), redo: steps(stacks.redo) });
  });
}

/** A revision that was made, or the one of the write's first coming. */
export interface Written {
  readonly revision: number;
  /** True where others had changed the design since `base`, and the edit was made on top of that. */
  readonly replayed: boolean;
}

/** What a write does to the newest document: null where it changes nothing. */
type Made = Result<
  (Edited & Pick<store.Revision, 'label' | 'command' | 'kind' | 'target'> & { readonly replayed: boolean }) | null,
  Refused
>;

/** What an author sends along with a write. */
export interface Stamp {
  readonly write?: string | undefined;
  readonly now?: number;
}

/**
 * Applies commands as one revision. Where others have changed the design since `base`, the edit is made on top of what they
 * did, unless both touch the same thing.
 */
export function editDesign(
  db: Db,
  id: string,
  base: number,
  commands: readonly Command[],
  stamp: Stamp = {},
): Result<Written, Refused> {
  return write(db, id, base, stamp, (head) => {
    const replayed = head.revision !== base;
    if (replayed && meets(db, id, base, head.design, commands)) return fail(conflict(db, id, base, head.revision));
    const edited = editOf(head.design, commands);
    if (!edited.ok) return replayed ? fail(conflict(db, id, base, head.revision)) : edited;
    return madeOf(head, commands, edited.value, replayed);
  });
}

const madeOf = (head: store.Loaded, commands: readonly Command[], edited: Edited, replayed: boolean): Made =>
  ok({
    ...edited,
    label: edited.patches.length === 0 ? '' : describeCommands(head.design, commands),
    command: commands[0]?.do ?? '',
    kind: 'edit',
    target: null,
    replayed,
  });

/** Commands times switches above which an edit is worked out in a worker. */
const MUCH = 50_000;

/** The same, with the work in a worker where it is much: the server answers others meanwhile. */
export async function editBeside(
  db: Db,
  id: string,
  base: number,
  commands: readonly Command[],
  stamp: Stamp = {},
): Promise<Result<Written, Refused>> {
  const newest = store.headRevision(db, id);
  if (newest !== base) return editDesign(db, id, base, commands, stamp);
  const from = store.loadDesign(db, id, newest);
  if (from.damage || commands.length * (1 + from.design.switches.length) < MUCH)
    return editDesign(db, id, base, commands, stamp);
  const edited = await inWorker<Edited>({ kind: 'edit', design: from.design, commands });
  if (!edited.ok) return edited;
  return write(db, id, base, stamp, (head) =>
    head.revision === from.revision
      ? madeOf(head, commands, edited.value, false)
      : fail(conflict(db, id, base, head.revision)),
  );
}

/** Whether commands made on revision `base` touch what was changed since. */
function meets(db: Db, id: string, base: number, head: Design, commands: readonly Command[]): boolean {
  const from = store.loadDesign(db, id, base);
  const mine = from.damage ? null : editAll(from.design, commands);
  return !mine?.ok || collide(touchedPlaces(from.design, mine.value.design), touchedPlaces(from.design, head));
}

/** Takes back, or does again, revision `target`, which must be the next in line. */
export function stepDesign(
  db: Db,
  id: string,
  base: number,
  kind: 'undo' | 'redo',
  target: number,
  stamp: Stamp = {},
): Result<Written, Refused> {
  return write(db, id, base, stamp, (head) => {
    if (head.revision !== base) return fail(conflict(db, id, base, head.revision));
    const stacks = stacksOf(store.readLog(db, id));
    const step = stacks[kind].at(-1) === target ? store.readStep(db, id, target) : null;
    if (!step) return fail({ status: 422, message: `Revision ${target} is not the next to ${kind}.` });
    const [patches, inverse] = kind === 'undo' ? [step.inverse, step.patches] : [step.patches, step.inverse];
    const design = applyChange(head.design, patches);
    const [problem] = changeProblems(head.design, design);
    if (problem)
      return fail({
        status: 422,
        message: `To ${kind} this does not leave a design that can be read again.`,
        details: [problemText(problem)],
      });
    return ok({
      design,
      patches: [...patches],
      inverse: [...inverse],
      label: `${kind === 'undo' ? 'undid' : 'redid'}: ${step.label}`,
      command: kind,
      kind,
      target,
      replayed: false,
    });
  });
}

/**
 * Makes revision `target` the newest one: a revision of its own, which can be taken back. Where the newest revisions cannot
 * be read this is how work goes on from the last good one; they stay in the log.
 */
export function restoreRevision(
  db: Db,
  id: string,
  base: number,
  target: number,
  { write: name, now = Date.now() }: Stamp = {},
): Result<Written, Refused> {
  const mended = mend(db, id, base, target, name, now);
  if (mended) return mended;
  return write(db, id, base, { write: name, now }, (head) => {
    if (head.revision !== base) return fail(conflict(db, id, base, head.revision));
    if (target > base) return fail(unknownRevision(target, base));
    const loaded = store.loadDesign(db, id, target);
    if (loaded.damage) return fail(unreadable(loaded.damage, target));
    return ok({
      ...replaceDesign(head.design, loaded.design),
      label: restoreLabel(target),
      command: 'restore',
      kind: 'edit',
      target: null,
      replayed: false,
    });
  });
}

function mend(
  db: Db,
  id: string,
  base: number,
  target: number,
  name: string | undefined,
  now: number,
): Result<Written, Refused> | null {
  const mended = db.transaction(
    () => {
      const newest = store.headRevision(db, id);
      const { design, damage } = newest === null ? { design: null, damage: null } : store.loadDesign(db, id, newest);
      if (newest === null || !damage || target !== damage.good || base !== damage.good) return null;
      const number = newest + 1;
      store.appendRevision(
        db,
        id,
        {
          number,
          label: restoreLabel(target),
          patches: [],
          inverse: [],
          command: 'restore',
          kind: 'mend',
          target,
          write: name,
        },
        design,
        now,
      );
      return ok({ revision: number, replayed: true });
    },
    { behavior: 'immediate' },
  );
  if (mended?.ok) live().revised(id, mended.value.revision);
  return mended;
}

/** Everything that is stored of a design, readable or not. */
export const storedDesign = (db: Db, id: string): unknown => store.readStored(db, id);

/** Revisions in words: all, or a part. */
export function historyOf(db: Db, id: string, part: HistoryPart = {}): Result<HistoryEntry[], Refused> {
  return store.headRevision(db, id) === null ? fail(unknownDesign(id)) : ok(store.readHistory(db, id, part));
}

/** The document as it was at a revision. */
export function documentAt(db: Db, id: string, revision: number): Result<Design, Refused> {
  const loaded = atRevision(db, id, revision, () => store.loadDesign(db, id, revision));
  if (!loaded.ok) return loaded;
  return loaded.value.damage ? fail(unreadable(loaded.value.damage, revision)) : ok(loaded.value.design);
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

/** Renames whatever the newest revision is: the list has no revision of its own to be behind with. */
export function renameDesign(db: Db, id: string, name: string): Result<Written, Refused> {
  return editDesign(db, id, store.headRevision(db, id) ?? 0, [{ do: 'rename-design', name }]);
}

export const deleteDesign = (db: Db, id: string, now = Date.now()): Result<null, Refused> =>
  store.setDeleted(db, id, now) ? ok(null) : fail(unknownDesign(id));

export const restoreDesign = (db: Db, id: string): Result<null, Refused> =>
  store.setDeleted(db, id, null) ? ok(null) : fail(unknownDesign(id));

/** Puts the demos into a database that has never held a design, the observatory as the latest. */
export function plantDemos(db: Db, now = Date.now()): void {
  db.transaction(
    () => {
      if (!store.isEmpty(db)) return;
      for (const [age, site] of DEMO_SITES.entries()) createDesign(db, { do: 'demo', site }, now - age);
    },
    { behavior: 'immediate' },
  );
}

/**
 * Runs `make` on the newest document and appends what it gives, in one transaction. A write that was taken before is
 * answered with its revision. `make` gives documents that the schema has been asked about.
 */
function write(
  db: Db,
  id: string,
  base: number,
  { write: name, now = Date.now() }: Stamp,
  make: (head: store.Loaded) => Made,
): Result<Written, Refused> {
  let made = null as { readonly revision: number; readonly design: Design } | null;
  const done = db.transaction(
    (): Result<Written, Refused> => {
      const newest = store.headRevision(db, id);
      if (newest === null) return fail(unknownDesign(id));
      const before = name === undefined ? null : store.revisionOfWrite(db, id, name);
      if (before !== null) return ok({ revision: before, replayed: before !== base + 1 });
      if (base > newest) return fail(unknownRevision(base, newest));
      const head = store.loadDesign(db, id, newest);
      if (head.damage) return fail(unreadable(head.damage, newest));
      const next = make(head);
      if (!next.ok) return next;
      const { design, patches, replayed } = next.value ?? { design: head.design, patches: [], replayed: false };
      if (!next.value || patches.length === 0) return ok({ revision: newest, replayed: newest !== base });
      const { label, command, kind, target, inverse } = next.value;
      const number = newest + 1;
      store.appendRevision(
        db,
        id,
        { number, label, patches, inverse, command, kind, target, write: name },
        design,
        now,
      );
      made = { revision: number, design };
      return ok({ revision: number, replayed });
    },
    { behavior: 'immediate' },
  );
  if (made) {
    const { revision, design } = made;
    store.rememberHead(db, id, revision, design);
    live().revised(id, revision);
  }
  return done;
}

function conflict(db: Db, id: string, base: number, head: number): Refused {
  return {
    status: 409,
    message: `This design is at revision ${head} by now; your change was made on revision ${base}.`,
    revision: head,
    since: store.labelsSince(db, id, base, 20),
  };
}
