/** The library of templates: beside the designs, for any of them. */
import { asc, count, eq } from 'drizzle-orm';
import { fail, ok, type Result } from '../core/base/result';
import { templateSchema, type Template } from '../core/model/template';
import type { Db } from './db/handle';
import { templates } from './db/schema';
import type { Refused } from './heavy/task';

/** Most that the library holds. */
const MOST = 500;

/** By name. */
export const listTemplates = (db: Db): Template[] =>
  db
    .select({ id: templates.id, name: templates.name, end: templates.end, text: templates.text })
    .from(templates)
    .orderBy(asc(templates.name), asc(templates.id))
    .all();

/** Puts one in, in place of what has its id. */
export function keepTemplate(db: Db, template: Template, now = Date.now()): Result<null, Refused> {
  const read = templateSchema.shape.id.safeParse(template.id);
  if (!read.success) return fail({ status: 400, message: `A template needs ${read.error.issues[0]!.message}.` });
  const { id, ...set } = template;
  return db.transaction(() => {
    const isThere = db.select({ id: templates.id }).from(templates).where(eq(templates.id, id)).get() !== undefined;
    if (!isThere && db.select({ n: count() }).from(templates).get()!.n >= MOST)
      return fail({ status: 409, message: `The library holds ${MOST} templates: take one out of it first.` });
    const row = { ...set, updatedAt: now };
    db.insert(templates)
      .values({ id, ...row })
      .onConflictDoUpdate({ target: templates.id, set: row })
      .run();
    return ok(null);
  });
}

export const removeTemplate = (db: Db, id: string): Result<null, Refused> =>
  db.delete(templates).where(eq(templates.id, id)).run().changes > 0
    ? ok(null)
    : fail({ status: 404, message: 'The library has no such template any more.' });
