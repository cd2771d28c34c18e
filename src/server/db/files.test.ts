/** The database as a file: who may use it, what is wrong with it, what stays of it. */
import { DEMO_SITES } from '../../core/demo/sites';
import type { Db } from './handle';
import Database from 'better-sqlite3';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { commandSchema } from '../../core/edit/commands';
import * as service from '../designService';
import { NoBackup, backUp, restore } from './backup';
import { openHeld } from './connect';
import { DatabaseTrouble } from './trouble';
import { DELETED_KEPT_MS, THIN, tidyUp } from './upkeep';

let folder: string;
const at = (name: string): string => path.join(folder, name);
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'knot-path-db-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const whyNot = (file: string): string => {
  try {
    openHeld(file).close();
  } catch (error) {
    if (error instanceof DatabaseTrouble) return error.message;
    throw error;
  }
  return 'it opened';
};
const priority = (value: number) => [
  commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: value }),
];
function fill(db: Db, edits = 3): string {
  const id = service.createDesign(db, { do: 'demo' });
  if (!id.ok) throw new Error(id.error.message);
  for (let n = 0; n < edits; n += 1) service.editDesign(db, id.value, n, priority(((n + 1) % 15) * 4096));
  return id.value;
}

describe('a file that cannot be used is told in a sentence, and nothing is written to it', () => {
  it('a folder', () =>
    expect(whyNot(folder)).toMatch(/^The database .* cannot be used: it is a folder\. Set KNOT_PATH_DB to a file\./));

  it('something that is no database', () => {
    writeFileSync(at('x'), 'a text that has nothing to do with any database whatsoever');
    const before = readFileSync(at('x'), 'utf8');
    expect(whyNot(at('x'))).toContain(`The database ${at('x')} cannot be used: it is not an SQLite database.`);
    expect(readFileSync(at('x'), 'utf8')).toBe(before);
  });

  it('a database of another program', () => {
    const other = new Database(at('x'));
    other.exec('create table things (x)');
    other.close();
    expect(whyNot(at('x'))).toContain('it is a database of another program');
  });

  it('one that a newer version has written', () => {
    openHeld(at('x')).close();
    const sqlite = new Database(at('x'));
    sqlite.prepare("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)").run();
    sqlite.close();
    const before = readFileSync(at('x'));
    expect(whyNot(at('x'))).toContain('a newer version of Knot Path has written it');
    expect(readFileSync(at('x')).equals(before)).toBe(true);
  });

  it('a path through a file', () => {
    writeFileSync(at('x'), '');
    expect(whyNot(at('x/y.sqlite'))).toContain('a part of its path is a file, not a folder');
  });

  it('one that another server uses, until that one ends', () => {
    const first = openHeld(at('x'));
    expect(whyNot(at('x'))).toContain('another Knot Path server uses it');
    first.close();
    expect(whyNot(at('x'))).toBe('it opened');
  });
});

it('after closing the file alone holds everything, and only its owner may read it', () => {
  const open = openHeld(at('x'));
  const id = fill(open.db);
  expect(statSync(at('x')).mode & 0o077).toBe(0);
  expect(statSync(at('x-wal')).mode & 0o077).toBe(0);
  expect(open.db.$client.pragma('synchronous', { simple: true })).toBe(2); // FULL
  open.close();
  expect(existsSync(at('x-wal'))).toBe(false);
  copyFileSync(at('x'), at('copy'));
  const copy = openHeld(at('copy'));
  expect(service.openDesign(copy.db, id)).toMatchObject({ ok: true, value: { revision: 3 } });
  copy.close();
});

describe('a backup', () => {
  it('is made while the database is in use, read, and brought back; what stood there is kept', async () => {
    const open = openHeld(at('x'));
    const id = fill(open.db);
    expect(await backUp(at('x'), at('bk'))).toEqual({ designs: 1, revisions: 3 });
    service.editDesign(open.db, id, 3, priority(0));
    await expect(restore(at('bk'), at('x'))).rejects.toThrow('another Knot Path server uses it');
    open.close();
    expect(await restore(at('bk'), at('x'))).toEqual({ designs: 1, revisions: 3, kept: at('x.before-1') });
    const again = openHeld(at('x'));
    expect(service.openDesign(again.db, id)).toMatchObject({ ok: true, value: { revision: 3 } });
    again.close();
    expect(readdirSync(folder).filter((name) => name.includes('part'))).toEqual([]);
  });

  it('of nothing, to nowhere or from something else is refused, leaving all as it was', async () => {
    await expect(backUp(at('none'), at('bk'))).rejects.toThrow(NoBackup);
    openHeld(at('x')).close();
    await expect(backUp(at('x'), at('none/bk'))).rejects.toThrow('There is no folder');
    writeFileSync(at('bad'), 'a text that has nothing to do with any database whatsoever');
    await expect(restore(at('bad'), at('x'))).rejects.toThrow(
      'is not a database that can be read: nothing was changed',
    );
    const other = new Database(at('other'));
    other.exec('create table things (x)');
    other.close();
    await expect(restore(at('other'), at('x'))).rejects.toThrow('is not a database of Knot Path');
    expect(whyNot(at('x'))).toBe('it opened');
  });
});

describe('upkeep', () => {
  it('purges what was deleted a week ago, and nothing else', () => {
    const { db, close } = openHeld(at('x'));
    const [old, recent, living] = [fill(db), fill(db), fill(db)];
    const now = Date.now();
    service.deleteDesign(db, old, now - DELETED_KEPT_MS - 1);
    service.deleteDesign(db, recent, now - DELETED_KEPT_MS + 60_000);
    expect(tidyUp(db, now)).toEqual({ designs: 1, snapshots: 0, shrunk: false });
    expect(service.restoreDesign(db, old).ok).toBe(false);
    expect(service.restoreDesign(db, recent).ok).toBe(true);
    expect(service.openDesign(db, living)).toMatchObject({ ok: true, value: { revision: 3 } });
    close();
  });

  it('thins old snapshots and loses no revision', () => {
    const { db, close } = openHeld(at('x'));
    const thin = { ...THIN, newest: 60 };
    const edits = thin.newest + 120;
    const id = fill(db, edits);
    const documents = () => [0, 1, 49, 50, 51, 99, 100, 119, 120, edits].map((n) => service.documentAt(db, id, n));
    const before = documents();
    expect(tidyUp(db, Date.now(), thin).snapshots).toBe(2); // 50 and 100
    expect(documents()).toEqual(before);
    expect(before.every(({ ok }) => ok)).toBe(true);
    close();
  });

  it('shrinks the file where much of it is free', () => {
    const { db, close } = openHeld(at('x'));
    const id = fill(db);
    db.$client.prepare('update snapshots set document = randomblob(8000000) where design = ?').run(id);
    service.deleteDesign(db, id, 0);
    db.$client.pragma('wal_checkpoint(TRUNCATE)');
    const before = statSync(at('x')).size;
    expect(tidyUp(db, Date.now()).shrunk).toBe(true);
    close();
    expect(statSync(at('x')).size).toBeLessThan(before / 10);
  });
});

it('two first starts plant the demos once', () => {
  mkdirSync(at('deep/er'), { recursive: true });
  for (let n = 0; n < 2; n += 1) {
    const { db, close } = openHeld(at('deep/er/x'));
    service.plantDemos(db);
    expect(service.listDesigns(db)).toHaveLength(DEMO_SITES.length);
    close();
  }
});
