/** Watches of the server: begun, kept, gone on with after a restart, pruned; readings that are asked for once. */
import type { WatchSettings } from '../../contract/observe';
import { fernhollow } from '../../core/demo/demos';
import { OF_THE_WHOLE } from '../../core/exchange/observation/watch/events';
import { observedAtRest } from '../../core/testing/observed';
import { openDatabase } from '../db/connect';
import type { Db } from '../db/handle';
import { createDesign, deleteDesign } from '../designService';
import * as runner from './runner';
import * as service from './service';
import * as store from './store';

const rest = observedAtRest(fernhollow());
const without = { ...rest, switches: rest.switches.slice(1) };
const settings: WatchSettings = {
  ...{ on: true, every: 5, rules: ['a switch does not answer'], webhook: null, syslog: null, days: 2, mib: 1 },
  source: { addresses: ['127.88.0.1'], within: [], credentials: 'there-is-none', port: 1161 },
};

function begun(): { db: Db; id: string } {
  const db = openDatabase(':memory:');
  const id = createDesign(db, { do: 'demo' });
  if (!id.ok) throw new Error();
  return { db, id: id.value };
}
const until = async (is: () => boolean): Promise<void> => {
  const end = Date.now() + 30_000;
  while (!is() && Date.now() < end) await new Promise((done) => setTimeout(done, 50));
};
const seen = (db: Db, id: string) => {
  const view = service.watchOf(db, id);
  if (!view.ok) throw new Error(view.error.message);
  return view.value;
};
afterEach(() => runner.stopAll());

it('watches the switches of a design, simulated, and goes on after a restart', async () => {
  const { db, id } = begun();
  expect(seen(db, id)).toMatchObject({ settings: null, first: null, events: [], readings: 0 });
  expect(await service.watchDemo(db, id)).toEqual({ ok: true, value: null });
  await until(() => seen(db, id).readings > 0);
  const { last, settings: set } = seen(db, id);
  expect(set).toMatchObject({ on: true, source: { credentials: 'demo' } });
  const read = service.readingAt(db, id, last!);
  expect(read.ok && read.value.observation.switches.map(({ name }) => name)).toEqual(
    rest.switches.map(({ name }) => name).sort(),
  );

  // The server ends, and begins again.
  runner.stopAll();
  expect(seen(db, id).settings?.on).toBe(false);
  await runner.resumeWatches(db);
  await until(() => seen(db, id).readings > 1);
  expect(seen(db, id).settings?.on).toBe(true);
  // Nothing has happened: what was kept is what is read.
  expect(seen(db, id).events.filter(({ kind }) => kind !== 'missed')).toEqual([]);

  expect(service.setWatch(db, id, { ...set!, on: false })).toEqual({ ok: true, value: null });
  await runner.resumeWatches(db);
  expect(runner.isWatching(id)).toBe(false);
  service.forgetWatch(db, id);
  expect(seen(db, id)).toMatchObject({ first: null, readings: 0, settings: { on: false } });
});

it('reads a network once, with what there is to tell meanwhile', async () => {
  const { db, id } = begun();
  await service.watchDemo(db, id);
  const source = store.settingsOf(db, id)!.source;
  expect(service.readOnce(db, id, source)).toEqual({ ok: true, value: null });
  expect(runner.readingState(id)).toMatchObject({ state: 'reading', known: 1 });
  await until(() => runner.readingState(id).state !== 'reading');
  expect(runner.readingState(id)).toMatchObject({ state: 'done', done: 8, known: 8 });
  expect(runner.readingState(id).observation).toMatchObject({ leftOut: [] });
});

it('says why it cannot, and leaves what was set', async () => {
  const { db, id } = begun();
  const refused = service.setWatch(db, id, settings);
  expect(refused).toMatchObject({ ok: false, error: { status: 422 } });
  expect(JSON.stringify(refused)).toContain('The network cannot be read');
  expect(store.settingsOf(db, id)).toBeNull();
  expect(service.setWatch(db, 'nowhere', settings)).toMatchObject({ ok: false, error: { status: 404 } });
  expect(service.readingAt(db, id, 5)).toMatchObject({ ok: false, error: { status: 404 } });
  // A design that was deleted is watched no longer.
  await service.watchDemo(db, id);
  await until(() => seen(db, id).readings > 0);
  deleteDesign(db, id);
  await until(() => !runner.isWatching(id));
  expect(runner.isWatching(id)).toBe(false);
}, 60_000);

it('keeps readings as what has changed, any moment again, and no more than it is told', () => {
  const { db, id } = begun();
  const day = 86_400_000;
  for (let n = 0; n < 450; n += 1)
    store.keepReading(
      db,
      id,
      n === 0 ? null : n % 2 === 0 ? without : rest,
      n % 2 === 0 ? rest : without,
      n * day * 0.01,
    );
  expect(store.readingAt(db, id, 1.005 * day)?.switches).toHaveLength(8);
  expect(store.readingAt(db, id, 1.015 * day)?.switches).toHaveLength(7);
  store.keepEvents(db, id, [{ ...event, text: 'old' }], 1);
  store.keepEvents(db, id, [{ ...event, text: 'new' }], 4.4 * day);
  store.prune(db, id, { days: 2, mib: 100 }, 4.49 * day);
  const { first } = store.firstAndLast(db, id);
  expect(first).toBeGreaterThan(day);
  expect(first).toBeLessThanOrEqual(2.49 * day);
  expect(store.eventsOf(db, id, 10).map(({ text }) => text)).toEqual(['new']);
  expect(store.readingAt(db, id, 4.49 * day)?.switches.length).toBeGreaterThan(6);
  expect(store.readingAt(db, id, 1)).toBeNull();
});

it('tells the events that came after one, and those before one', () => {
  const { db, id } = begun();
  store.keepEvents(
    db,
    id,
    ['a', 'b', 'c', 'd'].map((text) => ({ ...event, text })),
    1,
  );
  const texts = (events: readonly { readonly text: string }[]) => events.map(({ text }) => text).join('');
  const { events, oldest } = seen(db, id);
  expect([texts(events), oldest]).toEqual(['abcd', events[0]!.id]);
  const since = service.watchOf(db, id, events[1]!.id);
  expect(since.ok && texts(since.value.events)).toBe('cd');
  expect(texts(service.earlierEvents(db, id, events[2]!.id))).toBe('ab');
  service.forgetWatch(db, id);
  expect(seen(db, id)).toMatchObject({ events: [], oldest: null });
});

const event = { ...OF_THE_WHOLE, kind: 'silent' as const, switch: 'lodge' };
