/** Reads a network again and again, on time where it can: who does not answer is asked less often, and what was missed is said. */
import type { Observation } from '../core/exchange/observation/observation';
import { readNetwork, type Reading } from './reader';

/** Twice as long after each failure, and no longer than this many times. */
const MOST_DOUBLINGS = 3;
const LONGEST_SECONDS = 3600;

export interface Watching {
  polled(observation: Observation, at: number): void;
  missed(text: string, at: number): void;
}

/** Until it is stopped. `every`: seconds. */
export async function watchNetwork(
  reading: Reading,
  every: number,
  signal: AbortSignal,
  { polled, missed }: Watching,
): Promise<void> {
  const known = new Set(reading.addresses);
  const quiet = new Map<string, { fails: number; until: number }>();
  let failures = 0;
  const isOver = (): boolean => signal.aborted;
  for (let poll = 0; !isOver(); poll += 1) {
    const began = Date.now();
    const asked = [...known].filter((address) => (quiet.get(address)?.until ?? 0) <= poll);
    const failed = new Set<string>();
    const observation = await readNetwork({ ...reading, addresses: asked }, signal, {
      read: (sw) => {
        known.add(sw.source);
        quiet.delete(sw.source);
      },
      failed: (address) => void failed.add(address),
    });
    if (isOver()) return;
    for (const address of failed) {
      if (!known.has(address)) continue;
      const fails = (quiet.get(address)?.fails ?? 0) + 1;
      quiet.set(address, { fails, until: poll + 2 ** Math.min(fails - 1, MOST_DOUBLINGS) });
    }
    const now = Date.now();
    if (observation.switches.length > 0) {
      failures = 0;
      polled(observation, now);
    } else if (asked.length > 0) {
      failures += 1;
      missed(`Nobody answered: ${observation.leftOut[0] ?? 'there was nobody to ask'}`, now);
    }
    const wait = Math.min(LONGEST_SECONDS, every * 2 ** Math.min(failures, MOST_DOUBLINGS)) * 1000;
    const took = now - began;
    const late = Math.floor(took / wait);
    if (late > 0)
      missed(
        `A reading took ${Math.round(took / 1000)} s, longer than the ${every} s between two: ${late === 1 ? 'one was' : `${late} were`} missed.`,
        now,
      );
    await pause(wait * (late + 1) - took, signal);
  }
}

/** Ends early where it is stopped. */
const pause = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((done) => {
    const timer = setTimeout(end, ms);
    function end(): void {
      clearTimeout(timer);
      signal.removeEventListener('abort', end);
      done();
    }
    signal.addEventListener('abort', end);
    if (signal.aborted) end();
  });
