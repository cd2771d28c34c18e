/** Watches that go on in this server, and readings that were asked for once: one of each a design. */
import type { ReadingState, Source, WatchSettings } from '../../contract/observe';
import { fail, ok, type Result } from '../../core/base/result';
import type { Design } from '../../core/model/document';
import type { Observation } from '../../core/exchange/observation/observation';
import { asDesigned } from '../../core/exchange/observation/watch/asDesigned';
import { readRule } from '../../core/exchange/observation/watch/rules';
import { ofWatch, WatchState } from '../../core/exchange/observation/watch/watch';
import { credentialOf } from '../../snmp/credentials';
import { DEMO, demoCredential, startDemo, stopDemo, stopDemos } from './demo';
import { notify } from '../../snmp/notify';
import type { Reading } from '../../snmp/reader';
import { withinOf } from '../../core/exchange/observation/asked';
import type { Db } from '../db/handle';
import { headRevision } from '../db/designStore';
import { openDesign } from '../designService';
import { live } from '../live';
import { log } from '../log';
import * as store from './store';

/** For one answer, milliseconds; asked at once; and in all. */
const LIMITS = { timeout: 2000, atOnce: 8, most: 1000 } as const;
/** Events that say which rules have spoken, and how often topologies changed, before a restart. */
const EVENTS_BACK = 2000;
const PRUNE_EVERY = 50;

interface Running {
  readonly stop: AbortController;
  unsent: string | null;
}
interface Once extends ReadingState {
  readonly stop: AbortController;
}
interface Held {
  readonly watches: Map<string, Running>;
  readonly readings: Map<string, Once>;
}

/** The server's own: one, whatever bundle asks. */
const held = globalThis as typeof globalThis & { knotPathWatches?: Held };
const running = (): Held => (held.knotPathWatches ??= { watches: new Map(), readings: new Map() });

export const unsentOf = (design: string): string | null => running().watches.get(design)?.unsent ?? null;
export const isWatching = (design: string): boolean => running().watches.has(design);

function readingOf(design: string, { addresses, within, credentials, port }: Source): Result<Reading, string> {
  const simulated = credentials === DEMO ? demoCredential(design) : null;
  const credential = simulated ? ok(simulated) : credentialOf(credentials);
  if (!credential.ok) return credential;
  const isNamed = withinOf(within.join(','));
  return isNamed.ok
    ? ok({ addresses, port, credential: credential.value, isNamed: isNamed.value, ...LIMITS })
    : isNamed;
}

/** Goes on from what was kept; the error is a sentence. */
export function startWatch(db: Db, design: string, settings: WatchSettings): Result<null, string> {
  stopWatch(design);
  const reading = readingOf(design, settings.source);
  if (!reading.ok) return fail(`The network cannot be read: ${reading.error}.`);
  const own: Running = { stop: new AbortController(), unsent: null };
  running().watches.set(design, own);
  const rules = settings.rules.flatMap((text) => {
    const rule = readRule(text);
    return rule.ok ? [{ text, rule: rule.value }] : [];
  });
  const { last } = store.firstAndLast(db, design);
  const before = last === null ? null : store.readingAt(db, design, last);
  const earlier = store.eventsOf(db, design, EVENTS_BACK).map(({ id: _, at, ...event }) => ({ at, event }));
  const state = new WatchState(rules, before, earlier);
  const tell = (events: Parameters<typeof store.keepEvents>[2], at: number): void => {
    store.keepEvents(db, design, events, at);
    live().watched(design);
    void notify(settings, nameOf(db, design), events, at).then((why) => {
      own.unsent = why;
      if (why !== null) log.warn({ design, why }, 'notices were not sent');
    });
  };
  const quietly = (work: () => void): void => {
    try {
      work();
    } catch (error) {
      log.error({ error, design }, 'a reading could not be kept');
    }
  };
  if (last !== null && Date.now() - last > 2 * settings.every * 1000)
    quietly(() => tell([ofWatch('missed', `Nobody watched since ${timeText(last)}.`)], Date.now()));
  let polls = 0;
  const polled = (observation: Observation, at: number): void =>
    quietly(() => {
      // A design that was deleted is watched no longer.
      if (headRevision(db, design) === null) return endWatch(design);
      const was = state.observation;
      store.keepReading(db, design, was, observation, at);
      const events = state.take(
        observation,
        at,
        asDesigned(() => designOf(db, design), observation),
      );
      tell(events, at);
      if (polls % PRUNE_EVERY === 0) store.prune(db, design, settings, at);
      polls += 1;
    });
  // Loaded only here: the library is large.
  void import('../../snmp/watcher')
    .then(({ watchNetwork }) =>
      watchNetwork(reading.value, settings.every, own.stop.signal, {
        polled,
        missed: (text, at) => quietly(() => tell([ofWatch('missed', text)], at)),
      }),
    )
    .catch((error: unknown) => log.error({ error, design }, 'a watch has ended'))
    .finally(() => {
      if (running().watches.get(design) === own) running().watches.delete(design);
    });
  return ok(null);
}

/** Of the design's own switches, simulated here. */
export async function watchDemo(db: Db, design: string): Promise<Result<null, string>> {
  stopWatch(design);
  const settings = await startDemo(design, designOf(db, design));
  if (!settings.ok) return settings;
  store.keepSettings(db, design, settings.value);
  return startWatch(db, design, settings.value);
}

/** With what is simulated for it. */
export function endWatch(design: string): void {
  stopWatch(design);
  stopDemo(design);
}

function stopWatch(design: string): void {
  running().watches.get(design)?.stop.abort();
  running().watches.delete(design);
}

/** Those that went on when the server ended; what cannot be read is said among its events. */
export async function resumeWatches(db: Db): Promise<void> {
  for (const design of store.watchedDesigns(db).filter((id) => headRevision(db, id) !== null)) {
    const settings = store.settingsOf(db, design)!;
    const started =
      settings.source.credentials === DEMO ? await watchDemo(db, design) : startWatch(db, design, settings);
    if (!started.ok) store.keepEvents(db, design, [ofWatch('missed', started.error)], Date.now());
  }
}

export function stopAll(): void {
  for (const design of [...running().watches.keys()]) stopWatch(design);
  stopDemos();
  for (const { stop } of running().readings.values()) stop.abort();
}

function designOf(db: Db, id: string): Design {
  const open = openDesign(db, id);
  if (!open.ok) throw new Error(open.error.message);
  return open.value.design as Design;
}
function nameOf(db: Db, id: string): string {
  const open = openDesign(db, id);
  return open.ok ? (open.value.design as Design).name : id;
}
const timeText = (at: number): string => `${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC`;

const NONE: ReadingState = { state: 'none', done: 0, known: 0, newest: null, observation: null, why: null };

export function readingState(design: string): ReadingState {
  const own = running().readings.get(design);
  if (!own) return NONE;
  const { stop: _, ...state } = own;
  return state;
}

/** Reads once, in place of a reading that goes on. */
export function startReading(design: string, source: Source): Result<null, string> {
  const reading = readingOf(design, source);
  if (!reading.ok) return fail(`The network cannot be read: ${reading.error}.`);
  running().readings.get(design)?.stop.abort();
  const stop = new AbortController();
  const set = (state: Partial<ReadingState>): void => {
    const before = running().readings.get(design);
    if (before?.stop !== stop) return;
    running().readings.set(design, { ...before, ...state });
    live().watched(design);
  };
  running().readings.set(design, { ...NONE, state: 'reading', known: source.addresses.length, stop });
  void import('../../snmp/reader')
    .then(({ readNetwork }) =>
      readNetwork(reading.value, stop.signal, {
        read: ({ name, source: at }, done, known) => set({ done, known, newest: name || at }),
        failed: () => undefined,
      }),
    )
    .then((observation) =>
      set(
        observation.switches.length > 0
          ? { state: 'done', observation }
          : { state: 'failed', why: `Nobody was read. ${observation.leftOut.slice(0, 3).join(' ')}` },
      ),
    )
    .catch((error: unknown) => {
      log.error({ error, design }, 'a reading failed');
      set({ state: 'failed', why: 'The server could not do this. Its log says why.' });
    });
  return ok(null);
}

export const stopReading = (design: string): void => running().readings.get(design)?.stop.abort();
