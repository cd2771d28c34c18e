/** What the server does with watches: seeing, setting, forgetting them. */
import { MOST_EVENTS, type KeptEvent, type Source, type WatchSettings, type WatchView } from '../../contract/observe';
import { fail, ok, type Result } from '../../core/base/result';
import type { Observation } from '../../core/exchange/observation/observation';
import { credentialNames, credentialsFile } from '../../snmp/credentials';
import type { Db } from '../db/handle';
import { headRevision } from '../db/designStore';
import type { Refused } from '../heavy/task';
import { unknownDesign } from '../refusals';
import { DEMO, demoCredential } from './demo';
import * as runner from './runner';
import * as store from './store';

/** `after`: an event; those up to it are known. */
export function watchOf(db: Db, id: string, after?: number): Result<WatchView, Refused> {
  if (headRevision(db, id) === null) return fail(unknownDesign(id));
  const names = credentialNames();
  const settings = store.settingsOf(db, id);
  return ok({
    settings: settings && { ...settings, on: runner.isWatching(id) },
    credentials: names.ok ? [...names.value] : [],
    trouble: !names.ok
      ? names.error
      : names.value.length === 0
        ? `The server has no credentials: there is no file ${credentialsFile()}.`
        : null,
    ...store.firstAndLast(db, id),
    kept: store.octetsOf(db, id),
    unsent: runner.unsentOf(id),
    events: store.eventsOf(db, id, MOST_EVENTS, { after }),
    oldest: store.oldestEvent(db, id),
    readings: store.readingsOf(db, id),
  });
}

export function setWatch(db: Db, id: string, settings: WatchSettings): Result<null, Refused> {
  if (headRevision(db, id) === null) return fail(unknownDesign(id));
  if (!settings.on) runner.endWatch(id);
  const isDemo = settings.source.credentials === DEMO && settings.on && demoCredential(id) === null;
  if (isDemo) return fail({ status: 409, message: 'The simulated switches are gone: watch the demo again.' });
  const started = settings.on ? runner.startWatch(db, id, settings) : ok(null);
  if (!started.ok) return fail({ status: 422, message: started.error });
  store.keepSettings(db, id, settings);
  return ok(null);
}

/** Watches the design's own switches, simulated: with no hardware. */
export async function watchDemo(db: Db, id: string): Promise<Result<null, Refused>> {
  if (headRevision(db, id) === null) return fail(unknownDesign(id));
  const started = await runner.watchDemo(db, id);
  return started.ok ? started : fail({ status: 422, message: started.error });
}

/** What was kept goes; a watch that goes on begins anew. */
export function forgetWatch(db: Db, id: string): Result<null, Refused> {
  if (headRevision(db, id) === null) return fail(unknownDesign(id));
  store.forget(db, id);
  const settings = store.settingsOf(db, id);
  return settings && runner.isWatching(id) ? setWatch(db, id, settings) : ok(null);
}

export const earlierEvents = (db: Db, id: string, before: number): KeptEvent[] =>
  store.eventsOf(db, id, MOST_EVENTS, { before });

export function readingAt(
  db: Db,
  id: string,
  at: number,
): Result<{ readonly observation: Observation; readonly next: number | null }, Refused> {
  const observation = store.readingAt(db, id, at);
  return observation
    ? ok({ observation, next: store.nextReading(db, id, at) })
    : fail({ status: 404, message: 'Nothing was read yet at that moment.' });
}

export function readOnce(db: Db, id: string, source: Source): Result<null, Refused> {
  if (headRevision(db, id) === null) return fail(unknownDesign(id));
  const started = runner.startReading(id, source);
  return started.ok ? started : fail({ status: 422, message: started.error });
}
