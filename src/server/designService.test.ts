import type { Db } from './db/handle';
import { fernhollow } from '../core/demo/demos';
import { leanDesign } from '../core/model/derive/write';
import { openDatabase } from './db/connect';
import * as service from './designService';
import { command, take } from './testing';

const priority = (value: number) => [
  command({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: value }),
];

let db: Db;
let id: string;
const opened = () => take(service.openDesign(db, id));
const ridgeA = () => opened().design.switches[0]?.trees;

beforeEach(() => {
  db = openDatabase(':memory:');
  id = take(service.createDesign(db, { do: 'demo' }));
});

describe('a stored design', () => {
  it('opens as it was created, at revision 0', () => {
    expect(opened()).toMatchObject({ revision: 0, undo: [], redo: [] });
    expect(opened().design).toEqual(fernhollow());
  });

  it('keeps every edit as a numbered revision in words', () => {
    expect(take(service.editDesign(db, id, 0, priority(4096)))).toEqual({ revision: 1, replayed: false });
    expect(take(service.editDesign(db, id, 1, priority(8192)))).toMatchObject({ revision: 2 });
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 8192 } });
    expect(opened().undo.map((step) => step.label)).toEqual([
      'priority of ridge-a in VLAN 15: 32768 to 4096',
      'priority of ridge-a in VLAN 15: 4096 to 8192',
    ]);
  });

  it('is followed across snapshots: 120 revisions open to the last', () => {
    for (let n = 0; n < 120; n += 1) take(service.editDesign(db, id, n, priority((n % 15) * 4096)));
    expect(opened().revision).toBe(120);
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: (119 % 15) * 4096 } });
  });

  it('refuses a write based on an older revision and says what happened since', () => {
    take(service.editDesign(db, id, 0, priority(4096)));
    const late = service.editDesign(db, id, 0, priority(0));
    expect(late).toMatchObject({
      ok: false,
      error: { status: 409, revision: 1, since: ['priority of ridge-a in VLAN 15: 32768 to 4096'] },
    });
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 4096 } });
  });

  it('refuses what does not fit, changing nothing', () => {
    const both = [...priority(4096), command({ do: 'set-switch', switch: 'nobody', name: 'x' })];
    expect(service.editDesign(db, id, 0, both)).toMatchObject({ ok: false, error: { status: 422 } });
    expect(opened().revision).toBe(0);
  });

  it('gives back any revision, across snapshots, and makes it the newest again', () => {
    for (let n = 0; n < 60; n += 1) take(service.editDesign(db, id, n, priority(((n + 1) % 15) * 4096)));
    const at = (revision: number) => take(service.documentAt(db, id, revision)).switches[0]?.trees;
    expect(at(0)).toEqual({});
    expect([49, 50, 51].map((n) => at(n))).toEqual(
      [49, 50, 51].map((n) => ({ 'vlan:15': { priority: (n % 15) * 4096 } })),
    );
    expect(take(service.restoreRevision(db, id, 60, 7)).revision).toBe(61);
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 7 * 4096 } });
    expect(opened().undo.at(-1)?.label).toBe('restored revision 7');
    expect(take(service.stepDesign(db, id, 61, 'undo', 61)).revision).toBe(62);
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 0 } });
    expect(service.restoreRevision(db, id, 62, 63)).toMatchObject({ ok: false, error: { status: 404 } });
    expect(take(service.restoreRevision(db, id, 62, 62)).revision).toBe(62);
    for (const wrong of [-1, 0.5, NaN, 99])
      expect(service.documentAt(db, id, wrong)).toMatchObject({ ok: false, error: { status: 404 } });
  });

  it('tells its history in words, the newest first, with the names of baselines', () => {
    take(
      service.editDesign(
        db,
        id,
        0,
        [15, 16, 17].map((vid) =>
          command({ do: 'set-bridge-priority', switch: 'ridge-a', tree: `vlan:${vid}`, priority: 4096 }),
        ),
        { now: 7000 },
      ),
    );
    take(service.nameBaseline(db, id, 0, 'As found'));
    take(service.nameBaseline(db, id, 0, 'As found in June'));
    take(service.nameBaseline(db, id, 1, 'Roots'));
    take(service.nameBaseline(db, id, 1, null));
    const [newest, first, ...rest] = take(service.historyOf(db, id));
    expect(rest).toEqual([]);
    expect(newest).toEqual({
      number: 1,
      label: 'priority of ridge-a in VLANs 15-17: 32768 to 4096',
      at: 7000,
      baseline: null,
    });
    expect(first).toMatchObject({ number: 0, label: 'as created', baseline: 'As found in June' });
    expect(service.nameBaseline(db, id, 9, 'x')).toMatchObject({ ok: false, error: { status: 404 } });
    expect(service.historyOf(db, 'nothing')).toMatchObject({ ok: false, error: { status: 404 } });
  });

  it('makes no revision of a change that changes nothing', () => {
    take(service.editDesign(db, id, 0, priority(4096)));
    expect(take(service.editDesign(db, id, 1, priority(4096))).revision).toBe(1);
  });
});

describe('undo and redo', () => {
  const step = (kind: 'undo' | 'redo', base: number, target: number) => service.stepDesign(db, id, base, kind, target);

  it('are revisions of their own, in turn', () => {
    take(service.editDesign(db, id, 0, priority(4096)));
    take(service.editDesign(db, id, 1, priority(8192)));
    take(step('undo', 2, 2));
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 4096 } });
    take(step('undo', 3, 1));
    expect(ridgeA()).toEqual({});
    take(step('redo', 4, 1));
    expect(ridgeA()).toEqual({ 'vlan:15': { priority: 4096 } });
    expect(opened()).toMatchObject({ revision: 5, undo: [{ number: 1 }], redo: [{ number: 2 }] });
  });

  it('lose what could be redone with the next edit', () => {
    take(service.editDesign(db, id, 0, priority(4096)));
    take(step('undo', 1, 1));
    take(service.editDesign(db, id, 2, priority(0)));
    expect(opened()).toMatchObject({ undo: [{ number: 3 }], redo: [] });
  });

  it('refuse a revision that is not the next in line', () => {
    take(service.editDesign(db, id, 0, priority(4096)));
    take(service.editDesign(db, id, 1, priority(8192)));
    expect(step('undo', 2, 1)).toMatchObject({ ok: false, error: { status: 422 } });
    expect(step('redo', 2, 1)).toMatchObject({ ok: false });
  });
});

describe('the list of designs', () => {
  const names = () => service.listDesigns(db).map((design) => design.name);

  it('has the last changed first', () => {
    take(service.createDesign(db, { do: 'create', name: 'Valley' }, Date.now() + 5));
    expect(names()).toEqual(['Valley', 'Fernhollow Observatory']);
    take(service.editDesign(db, id, 0, priority(0), { now: Date.now() + 10 }));
    expect(names()).toEqual(['Fernhollow Observatory', 'Valley']);
  });

  it('takes a new design with the mode that its switches are to run', () => {
    const made = take(service.createDesign(db, { do: 'create', name: 'Valley', mode: 'mstp' }));
    const found = service.openDesign(db, made);
    expect(found).toMatchObject({ ok: true, value: { design: { mode: 'mstp', regions: [{ name: 'VALLEY' }] } } });
  });

  it('renames as a revision, duplicates the newest revision, deletes and brings back', () => {
    take(service.renameDesign(db, id, 'Ridge'));
    expect(opened()).toMatchObject({ revision: 1, design: { name: 'Ridge' } });
    const copy = take(service.createDesign(db, { do: 'duplicate', of: id }));
    expect(names().sort()).toEqual(['Ridge', 'Ridge (copy)']);
    take(service.deleteDesign(db, id));
    expect(names()).toEqual(['Ridge (copy)']);
    expect(service.openDesign(db, id)).toMatchObject({ ok: false, error: { status: 404 } });
    expect(service.editDesign(db, id, 1, priority(0))).toMatchObject({ ok: false, error: { status: 404 } });
    expect(service.restoreDesign(db, copy)).toMatchObject({ ok: false });
    take(service.restoreDesign(db, id));
    expect(names()).toHaveLength(2);
  });

  it('copies a design whose name is as long as names may be, and opens the copy', () => {
    const long = take(service.createDesign(db, { do: 'create', name: 'x'.repeat(20_000) }));
    const copy = take(service.createDesign(db, { do: 'duplicate', of: long }));
    expect(take(service.openDesign(db, copy)).design.name).toMatch(/^x{19993} \(copy\)$/);
  });

  it('imports a document, or says what is wrong with it', () => {
    const imported = take(service.createDesign(db, { do: 'import', document: leanDesign(fernhollow()) }));
    expect(take(service.openDesign(db, imported)).design).toEqual(fernhollow());
    const broken = service.createDesign(db, {
      do: 'import',
      document: { ...leanDesign(fernhollow()), pathCost: 'medium' },
    });
    expect(broken).toMatchObject({
      ok: false,
      error: { status: 422, details: ['pathCost: found "medium"; allowed: "short", "long"'] },
    });
  });

  it('gets the demos once, and not again after someone has deleted it', () => {
    const fresh = openDatabase(':memory:');
    service.plantDemos(fresh);
    service.plantDemos(fresh);
    const demos = service.listDesigns(fresh);
    expect(demos.map((each) => each.name)).toEqual([
      'Fernhollow Observatory',
      'Fernhollow valley station',
      'Fernhollow town office',
    ]);
    for (const demo of demos) take(service.deleteDesign(fresh, demo.id));
    service.plantDemos(fresh);
    expect(service.listDesigns(fresh)).toEqual([]);
  });
});
