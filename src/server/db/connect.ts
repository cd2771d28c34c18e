/**
 * The one connection to the SQLite file: held by one server at a time, write-ahead log, migrations applied. What cannot be
 * used is told in a sentence before anything is written to it.
 */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { chmodSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import type { Db } from './handle';
import * as schema from './schema';
import { trouble, troubleOf } from './trouble';
import { startUpkeep } from './upkeep';

/** A database that is open, and how it is closed: the log is written back, so that the file alone holds everything. */
export interface OpenDatabase {
  readonly db: Db;
  close(): void;
}

const MIGRATIONS = path.join(process.cwd(), 'src/server/db/migrations');

/** The file that `KNOT_PATH_DB` names, else `./data/knot-path.sqlite`. */
export const databaseFile = (): string => process.env.KNOT_PATH_DB || 'data/knot-path.sqlite';

/** Opens (creating or upgrading as needed) the database file at `file`; `:memory:` for tests. Throws a `DatabaseTrouble`. */
export function openDatabase(file: string): Db {
  return openHeld(file).db;
}

/** The same with its closing. */
export function openHeld(file: string): OpenDatabase {
  if (file === ':memory:') {
    const db = connect(file);
    return { db, close: () => db.$client.close() };
  }
  let lock: Lock | null = null;
  const mask = process.umask(0o077); // what is made here is the owner's alone
  try {
    if (existsSync(file) && statSync(file).isDirectory())
      throw trouble(file, 'it is a folder. Set KNOT_PATH_DB to a file');
    mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
    if (existsSync(file) && statSync(file).size > 0) inspect(file);
    lock = holdFile(file);
    const db = connect(file);
    for (const each of [file, `${file}-wal`, `${file}-shm`])
      if (existsSync(/*turbopackIgnore: true*/ each)) chmodSync(/*turbopackIgnore: true*/ each, 0o600);
    const stopUpkeep = startUpkeep(db);
    return {
      db,
      close() {
        stopUpkeep();
        db.$client.pragma('wal_checkpoint(TRUNCATE)');
        db.$client.close();
        lock?.release();
      },
    };
  } catch (error) {
    lock?.release();
    throw troubleOf(file, error);
  } finally {
    process.umask(mask);
  }
}

function connect(file: string): Db {
  const sqlite = new Database(file);
  try {
    sqlite.pragma('journal_mode = WAL');
    // An acknowledged revision is on the disk, whatever happens to the power.
    sqlite.pragma('synchronous = FULL');
    sqlite.pragma('foreign_keys = ON');
    sqlite.pragma('busy_timeout = 5000');
    const db = drizzle(sqlite, { schema });
    migrate(db, { migrationsFolder: MIGRATIONS });
    return db;
  } catch (error) {
    sqlite.close();
    throw error;
  }
}

/** Looks at a file that is there, writing nothing: whose is it, and of which version? */
function inspect(file: string): void {
  const sqlite = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const tables = sqlite
      .prepare<[], { name: string }>("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'")
      .all()
      .map(({ name }) => name);
    if (tables.length === 0) return;
    if (!tables.includes('__drizzle_migrations'))
      throw trouble(file, 'it is a database of another program. Set KNOT_PATH_DB to another file');
    const newest =
      sqlite.prepare<[], { at: number | null }>('select max(created_at) as at from __drizzle_migrations').get()?.at ??
      0;
    if (newest > newestMigration())
      throw trouble(
        file,
        'a newer version of Knot Path has written it. Start that version, or set KNOT_PATH_DB to another file',
      );
  } finally {
    sqlite.close();
  }
}

function newestMigration(): number {
  const { entries } = JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  return Math.max(...entries.map(({ when }) => when));
}

interface Lock {
  release(): void;
}

/** Holds `file` for this process: a lock that the system lets go of when the process ends, however it ends. */
export function holdFile(file: string): Lock {
  for (let left = LOCK_TRIES; ; left -= 1) {
    try {
      return tryToHold(file);
    } catch (error) {
      if (left <= 1 || (error as { code?: unknown }).code !== 'SQLITE_BUSY') throw error;
      // Of two that start at once each may be in the other's way: they try again, each after a time of its own.
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 20 + Math.random() * 150);
    }
  }
}

const LOCK_TRIES = 10;

function tryToHold(file: string): Lock {
  const sqlite = new Database(`${file}.lock`, { timeout: 0 });
  try {
    sqlite.pragma('locking_mode = EXCLUSIVE');
    sqlite.pragma('journal_mode = MEMORY');
    sqlite.exec('begin exclusive');
  } catch (error) {
    sqlite.close();
    throw error;
  }
  return { release: () => sqlite.close() };
}

const held = globalThis as typeof globalThis & { knotPathDatabase?: OpenDatabase | undefined };

/** The server's database. Kept across hot reloads, and shared by everything that runs in this process. */
export function database(): Db {
  held.knotPathDatabase ??= openHeld(databaseFile());
  return held.knotPathDatabase.db;
}

/** Closes the server's database, if it is open. */
export function closeDatabase(): void {
  held.knotPathDatabase?.close();
  held.knotPathDatabase = undefined;
}
