/** The one connection to the SQLite file: opened lazily, write-ahead log, migrations applied. */
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema>;

/** Opens (creating or upgrading as needed) the database file at `file`; `:memory:` for tests. */
export function openDatabase(file: string): Db {
  if (file !== ':memory:') mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  const sqlite = new Database(file);
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('foreign_keys = ON');
  sqlite.pragma('busy_timeout = 5000');
  const db = drizzle(sqlite, { schema });
  migrate(db, { migrationsFolder: path.join(process.cwd(), 'src/server/db/migrations') });
  return db;
}

const held = globalThis as typeof globalThis & { knotPathDb?: Db };

/** The server's database, by `KNOT_PATH_DB`, else `./data/knot-path.sqlite`. Kept across hot reloads. */
export function database(): Db {
  held.knotPathDb ??= openDatabase(process.env.KNOT_PATH_DB ?? 'data/knot-path.sqlite');
  return held.knotPathDb;
}
