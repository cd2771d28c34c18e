/** Copies of the database while it is in use, and bringing one back. Every copy is read before it is called one. */
import Database from 'better-sqlite3';
import { chmodSync, copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { holdFile } from './connect';
import { troubleOf } from './trouble';

/** What a copy holds. */
export interface Copied {
  readonly designs: number;
  readonly revisions: number;
}

/** Why there is no copy, in a sentence. */
export class NoBackup extends Error {}

/** Copies the database `from`, which a server may be using, to `to`; nothing is left at `to` where it fails. */
export async function backUp(from: string, to: string): Promise<Copied> {
  if (!existsSync(from))
    throw new NoBackup(`There is no database ${from}. Set KNOT_PATH_DB to the file that the server uses.`);
  if (!existsSync(path.dirname(path.resolve(to))))
    throw new NoBackup(`There is no folder ${path.dirname(path.resolve(to))}.`);
  const beside = `${to}.part`;
  return whole(from, beside, async () => {
    const sqlite = new Database(from, { readonly: true, fileMustExist: true });
    try {
      await sqlite.backup(beside);
    } finally {
      sqlite.close();
    }
    const copied = verified(beside, to);
    renameSync(beside, to);
    return copied;
  });
}

/**
 * Puts a copy in the place of the database `to`; a server must not be using it. What stood there is kept beside it, under the
 * name that is given back with what the copy holds.
 */
export async function restore(from: string, to: string): Promise<Copied & { readonly kept: string | null }> {
  if (!existsSync(from)) throw new NoBackup(`There is no file ${from}.`);
  const beside = `${to}.part`;
  return whole(to, beside, () => {
    const lock = holdFile(to);
    try {
      copyFileSync(from, beside);
      const copied = verified(beside, from);
      const kept = existsSync(to) ? freeName(to) : null;
      // The log belongs to the file that it lies beside: both go or neither.
      for (const tail of kept === null ? [] : ['', '-wal', '-shm'])
        if (existsSync(to + tail)) renameSync(to + tail, kept + tail);
      renameSync(beside, to);
      return Promise.resolve({ ...copied, kept });
    } finally {
      lock.release();
    }
  });
}

async function whole<T>(file: string, part: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof NoBackup) throw error;
    throw troubleOf(file, error);
  } finally {
    for (const tail of ['', '-wal', '-shm', '-journal']) rmSync(part + tail, { force: true });
  }
}

/** Reads the whole copy: every page, and that it is ours; `name` is what people call it. */
function verified(file: string, name: string): Copied {
  chmodSync(file, 0o600);
  const sqlite = new Database(file, { fileMustExist: true });
  try {
    const fault = String(sqlite.pragma('integrity_check', { simple: true }));
    if (fault !== 'ok') throw new NoBackup(`${name} is damaged (${fault.slice(0, 200)}): nothing was changed.`);
    const count = (table: string): number =>
      sqlite.prepare<[], { n: number }>(`select count(*) as n from ${table}`).get()!.n;
    const tables = sqlite
      .prepare<[], { name: string }>("select name from sqlite_master where type = 'table'")
      .all()
      .map(({ name }) => name);
    if (!tables.includes('designs') || !tables.includes('revisions'))
      throw new NoBackup(`${name} is not a database of Knot Path: nothing was changed.`);
    sqlite.pragma('journal_mode = DELETE'); // one file, with nothing beside it
    return { designs: count('designs'), revisions: count('revisions') };
  } catch (error) {
    const { code } = error as { code?: unknown };
    if (code === 'SQLITE_NOTADB' || code === 'SQLITE_CORRUPT')
      throw new NoBackup(`${name} is not a database that can be read: nothing was changed.`);
    throw error;
  } finally {
    sqlite.close();
  }
}

function freeName(file: string): string {
  for (let n = 1; ; n += 1) if (!existsSync(`${file}.before-${n}`)) return `${file}.before-${n}`;
}
