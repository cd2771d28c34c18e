import type Database from 'better-sqlite3';
import type { BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import type * as schema from './schema';

/** An open database, with the connection behind it. */
export type Db = BetterSQLite3Database<typeof schema> & { readonly $client: Database.Database };
