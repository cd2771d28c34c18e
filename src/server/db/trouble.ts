/** What can be wrong with the database's file, in a sentence that names it and says what to do. */

/** A database that cannot be used; the message is for the person who starts the server. */
export class DatabaseTrouble extends Error {}

/** SQLite's and the system's codes in words. */
const WORDS: Readonly<Record<string, string>> = {
  SQLITE_NOTADB: 'it is not an SQLite database. Move it away, or set KNOT_PATH_DB to another file',
  SQLITE_CORRUPT: 'it is damaged. Bring back a backup with npx knot-path restore, or set KNOT_PATH_DB to another file',
  SQLITE_READONLY:
    'it may only be read. Give this user the right to write it and its folder, or set KNOT_PATH_DB to another file',
  SQLITE_CANTOPEN: 'it cannot be opened. Look whether its folder is there and may be written',
  SQLITE_FULL: 'the disk is full. Make room, or set KNOT_PATH_DB to a file on another disk',
  SQLITE_IOERR: 'the disk refuses to read or write it. Look whether it is full or broken',
  SQLITE_BUSY: 'another Knot Path server uses it. Stop that one, or set KNOT_PATH_DB to another file',
  EACCES: 'this user may not write there. Set KNOT_PATH_DB to another file',
  EROFS: 'the disk may only be read. Set KNOT_PATH_DB to a file on another disk',
  ENOSPC: 'the disk is full. Make room, or set KNOT_PATH_DB to a file on another disk',
  ENOTDIR: 'a part of its path is a file, not a folder. Set KNOT_PATH_DB to another file',
  EEXIST: 'a part of its path is a file, not a folder. Set KNOT_PATH_DB to another file',
};

export const trouble = (file: string, why: string): DatabaseTrouble =>
  new DatabaseTrouble(`The database ${file} cannot be used: ${why}. Nothing was written to it.`);

/** What an error of SQLite or the file system means for the file; other errors are thrown on. */
export function troubleOf(file: string, error: unknown): DatabaseTrouble {
  if (error instanceof DatabaseTrouble) return error;
  const code = codeOf(error);
  const words = WORDS[code] ?? WORDS[code.split('_').slice(0, 2).join('_')];
  if (words === undefined) throw error;
  return trouble(file, words);
}

/** Whether an error says that the disk has no room left; then nothing of the transaction is kept. */
export const isFull = (error: unknown): boolean =>
  /^(SQLITE_FULL|SQLITE_IOERR_WRITE|SQLITE_IOERR_FSYNC|SQLITE_IOERR_SHMSIZE|ENOSPC)$/.test(codeOf(error));

/** The code of an error, or of what caused it. */
function codeOf(error: unknown): string {
  const { code, cause } = (error ?? {}) as { code?: unknown; cause?: unknown };
  return typeof code === 'string' ? code : cause === undefined ? '' : codeOf(cause);
}
