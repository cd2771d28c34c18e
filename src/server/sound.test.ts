/** Once is once, nothing is overwritten, and a design with unreadable revisions opens at the last good one. */
import type { Db } from './db/handle';
import fc from 'fast-check';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Command } from '../core/edit/commands';
import { fernhollow } from '../core/demo/demos';
import { editAll } from '../core/edit/edit';
import { readDesign } from '../core/model/read';
import { openDatabase } from './db/connect';
import * as service from './designService';
import { command, take } from './testing';
import { parts } from '../core/testing/runs';

const name = (sw: string, to: string) => command({ do: 'set-switch', switch: sw, name: to });
const priority = (sw: string, value: number) =>
  command({ do: 'set-bridge-priority', switch: sw, tree: 'vlan:15', priority: value });

let db: Db;
let id: string;
const opened = () => take(service.openDesign(db, id));
const called = (sw: string) => opened().design.switches.find((each) => each.id === sw)?.name;

beforeEach(() => {
  db = openDatabase(':memory:');
  id = take(service.createDesign(db, { do: 'demo' }));
});

describe('a write that comes again', () => {
  it('is answered with its revision and not done again, whatever came after it', () => {
    const stamp = { write: 'write-one' };
    expect(take(service.editDesign(db, id, 0, [name('lodge', 'a')], stamp))).toEqual({ revision: 1, replayed: false });
    expect(take(service.editDesign(db, id, 0, [name('lodge', 'a')], stamp))).toEqual({ revision: 1, replayed: false });
    take(service.editDesign(db, id, 1, [name('lodge', 'b')]));
    expect(take(service.editDesign(db, id, 0, [name('lodge', 'a')], stamp))).toEqual({ revision: 1, replayed: false });
    take(service.stepDesign(db, id, 2, 'undo', 2, { write: 'undo-it' }));
    expect(take(service.stepDesign(db, id, 2, 'undo', 2, { write: 'undo-it' })).revision).toBe(3);
    take(service.restoreRevision(db, id, 3, 0, { write: 'restore' }));
    expect(take(service.restoreRevision(db, id, 3, 0, { write: 'restore' })).revision).toBe(4);
    expect(opened().revision).toBe(4);
  });

  it('is another one on another design', () => {
    const other = take(service.createDesign(db, { do: 'demo' }));
    take(service.editDesign(db, id, 0, [name('lodge', 'a')], { write: 'the same' }));
    expect(take(service.editDesign(db, other, 0, [name('lodge', 'a')], { write: 'the same' })).revision).toBe(1);
  });
});

describe('an edit that is behind', () => {
  it('is made on top of what others did to other things', () => {
    take(service.editDesign(db, id, 0, [priority('ridge-a', 4096)]));
    take(service.editDesign(db, id, 1, [command({ do: 'remove-switch', switch: 'ridge-b' })]));
    expect(take(service.editDesign(db, id, 0, [name('lodge', 'Lodge')]))).toEqual({ revision: 3, replayed: true });
    expect(called('lodge')).toBe('Lodge');
    expect(opened().design.switches).toHaveLength(7);
  });

  it.each<[string, Command, Command]>([
    ['the same field', name('lodge', 'a'), name('lodge', 'b')],
    ['a thing that is gone', command({ do: 'remove-switch', switch: 'lodge' }), name('lodge', 'b')],
    [
      'a port that is taken now',
      command({
        do: 'add-link',
        link: { id: 'x', a: { switch: 'lodge', port: '8' }, b: { switch: 'workshop', port: '8' } },
      }),
      command({
        do: 'add-link',
        link: { id: 'y', a: { switch: 'lodge', port: '8' }, b: { switch: 'ridge-a', port: '10' } },
      }),
    ],
  ])('is refused where both touch %s', (_, theirs, mine) => {
    const ports = [
      ['lodge', '8'],
      ['workshop', '8'],
      ['ridge-a', '10'],
    ].map(([sw, port]) => command({ do: 'add-port', switch: sw, port: { id: port, number: Number(port) + 20 } }));
    take(service.editDesign(db, id, 0, ports));
    take(service.editDesign(db, id, 1, [theirs]));
    const before = opened();
    expect(service.editDesign(db, id, 1, [mine])).toMatchObject({
      ok: false,
      error: { status: 409, revision: 2, since: [expect.any(String)] },
    });
    expect(opened()).toEqual(before);
  });

  it.each(parts(2, 12))('comes out the same in either order where it is taken in both (%#)', (runs) => {
    const each = fc.oneof(
      fc.tuple(fc.constantFrom('lodge', 'ridge-a'), fc.constantFrom('x', 'y')).map(([sw, to]) => name(sw, to)),
      fc.tuple(fc.constantFrom('lodge', 'ridge-a'), fc.constantFrom(0, 4096)).map(([sw, value]) => priority(sw, value)),
      fc.constantFrom('l1', 'l2').map((link) => command({ do: 'remove-link', link })),
      fc.constantFrom('lodge', 'ridge-b').map((sw) => command({ do: 'remove-switch', switch: sw })),
    );
    const after = (first: readonly Command[], second: readonly Command[]) => {
      const own = openDatabase(':memory:');
      const design = take(service.createDesign(own, { do: 'demo' }));
      take(service.editDesign(own, design, 0, first));
      return service.editDesign(own, design, 0, second).ok ? take(service.openDesign(own, design)).design : null;
    };
    fc.assert(
      fc.property(
        fc.array(each, { minLength: 1, maxLength: 2 }),
        fc.array(each, { minLength: 1, maxLength: 2 }),
        (mine, theirs) => {
          if (![mine, theirs].every((commands) => editAll(fernhollow(), commands).ok)) return;
          expect(after(mine, theirs)).toEqual(after(theirs, mine));
        },
      ),
      runs,
    );
  });

  it('large enough is worked out in a worker, with the same result', async () => {
    const commands = Array.from({ length: 9000 }, (_, n) => name('lodge', `name ${n}`));
    expect(take(await service.editBeside(db, id, 0, commands))).toEqual({ revision: 1, replayed: false });
    expect(called('lodge')).toBe('name 8999');
    expect(await service.editBeside(db, id, 1, [...commands, name('nobody', 'x')])).toMatchObject({
      ok: false,
      error: { status: 422 },
    });
  });
});

describe('revisions that cannot be read', () => {
  /** Writes nonsense over what is stored from a revision on, and opens the database as a new server would. */
  function spoil(sql: string): void {
    for (let n = 0; n < 60; n += 1)
      take(service.editDesign(db, id, n, [priority('ridge-a', (((n % 15) + 1) * 4096) % 61440)]));
    const file = db.$client.serialize();
    db.$client.close();
    const place = path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-')), 'spoilt.sqlite');
    writeFileSync(place, file);
    db = openDatabase(place);
    db.$client.exec(sql);
  }
  const BAD_PATCH = `'[{"op":"replace","path":["switches",0,"trees","nonsense"],"value":{"priority":7}}]'`;

  it.each([
    [
      'a patch that leads to no design, with the snapshot after it',
      `update revisions set patches = ${BAD_PATCH} where number >= 42; update snapshots set document = '{}' where revision = 50`,
      41,
    ],
    ['a patch that is no JSON', `update revisions set patches = 'x' where number >= 53`, 52],
    [
      'the newest snapshot',
      `update snapshots set document = 'x' where revision = 50; update revisions set patches = 'x' where number = 60`,
      59,
    ],
    ['a revision that is not there', 'delete from revisions where number = 57', 56],
  ])('%s: it opens before, says so, is exported, and goes on', (_, sql, good) => {
    spoil(sql);
    const open = opened();
    expect(open).toMatchObject({ revision: good, damage: { good, head: 60 }, undo: [], redo: [] });
    expect(readDesign(open.design).ok).toBe(true);
    expect(take(service.createDesign(db, { do: 'duplicate', of: id }))).toEqual(expect.any(String));
    expect(service.editDesign(db, id, 60, [name('lodge', 'x')])).toMatchObject({
      ok: false,
      error: { status: 422, message: expect.stringContaining(`Revision ${good} is the last good one`) as string },
    });
    expect(service.documentAt(db, id, 60)).toMatchObject({ ok: false, error: { status: 422 } });
    expect(take(service.documentAt(db, id, good))).toEqual(open.design);
    const stored = JSON.stringify(service.storedDesign(db, id));
    expect(take(service.restoreRevision(db, id, good, good)).revision).toBe(61);
    expect(opened()).toMatchObject({ revision: 61, damage: null, undo: [], design: open.design });
    take(service.editDesign(db, id, 61, [name('lodge', 'x')]));
    expect(opened().undo.map(({ number }) => number)).toEqual([62]);
    expect(stored.length).toBeGreaterThan(1000);
    expect(service.storedDesign(db, id)).toMatchObject({
      revisions: expect.arrayContaining([expect.objectContaining({ number: 60 })]) as unknown,
    }); // nothing thrown away
  });

  it('a snapshot that cannot be read is no matter where an older one leads on', () => {
    spoil(`update snapshots set document = 'x' where revision = 50`);
    expect(opened()).toMatchObject({ revision: 60, damage: null });
  });

  it('where nothing can be read at all it can be taken out as it is stored', () => {
    spoil(`update snapshots set document = 'x'`);
    expect(service.openDesign(db, id)).toMatchObject({
      ok: false,
      error: { status: 422, details: [expect.stringContaining('snapshot 0') as string] },
    });
    expect(service.storedDesign(db, id)).toMatchObject({ snapshots: [{ document: 'x' }, { document: 'x' }] });
  });
});

it('gives a history in parts that join without a gap', () => {
  for (let n = 0; n < 12; n += 1) take(service.editDesign(db, id, n, [name('lodge', `n${n}`)]));
  const numbers = (part: object) => take(service.historyOf(db, id, part)).map(({ number }) => number);
  expect(numbers({})).toEqual([12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0]);
  expect([
    numbers({ most: 5 }),
    numbers({ before: 8 }),
    numbers({ after: 10 }),
    numbers({ after: 12 }),
    numbers({ most: 12 }),
    numbers({ before: 1 }),
  ]).toEqual([
    [12, 11, 10, 9, 8],
    [7, 6, 5, 4, 3, 2, 1, 0],
    [12, 11],
    [],
    [12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1],
    [0],
  ]);
});
