/** Reads a network from some addresses on, and from neighbour to neighbour inside of what was named. */
import type { Observation, ObservedSwitch } from '../core/exchange/observation/observation';
import type { Credential } from './credentials';
import { NotRead, readSwitch } from './session';

export interface Reading {
  readonly addresses: readonly string[];
  readonly port: number;
  readonly credential: Credential;
  /** Whether a neighbour's address may be asked, too. */
  readonly isNamed: (address: string) => boolean;
  /** Most that are asked, and at once. */
  readonly most: number;
  readonly atOnce: number;
  /** Milliseconds for one answer. */
  readonly timeout: number;
}

/** What is told while it goes on. */
export interface Progress {
  read(sw: ObservedSwitch, done: number, known: number): void;
  failed(address: string, why: string): void;
}

/** Whoever answers is read, also where it is stopped: then that is said. */
export async function readNetwork(
  { addresses, port, credential, isNamed, most, atOnce, timeout }: Reading,
  signal: AbortSignal,
  progress: Progress,
): Promise<Observation> {
  const waiting = [...new Set(addresses)];
  const known = new Set(waiting);
  const switches: ObservedSwitch[] = [];
  const leftOut: string[] = [];
  const byMac = new Map<string, string>();
  const isOver = (): boolean => signal.aborted;
  const ask = async (address: string): Promise<void> => {
    try {
      const sw = await readSwitch({ address, port, credential, timeout, retries: 1 }, isOver);
      const own = sw.chassis ?? sw.mac;
      const twin = own === null ? undefined : byMac.get(own);
      if (twin !== undefined) {
        leftOut.push(`${address}: it is the switch that answers at ${twin}, too.`);
        return;
      }
      if (own !== null) byMac.set(own, address);
      switches.push(sw);
      progress.read(sw, switches.length, known.size);
      for (const { address: next, system } of sw.neighbours) {
        if (next === null || known.has(next)) continue;
        known.add(next);
        if (!isNamed(next))
          leftOut.push(`${system ?? next} (${next}): it is outside of what was named, and was not asked.`);
        else if (known.size > most) leftOut.push(`${system ?? next} (${next}): ${most} are asked at most.`);
        else waiting.push(next);
      }
    } catch (error) {
      if (!(error instanceof NotRead)) throw error;
      leftOut.push(`${address}: ${error.message}.`);
      progress.failed(address, error.message);
    }
  };
  let busy = 0;
  const asker = async (): Promise<void> => {
    for (;;) {
      const address = isOver() ? undefined : waiting.shift();
      if (address !== undefined) {
        busy += 1;
        await ask(address);
        busy -= 1;
      } else if (busy === 0) return;
      else await new Promise((done) => setTimeout(done, 10));
    }
  };
  await Promise.all(Array.from({ length: atOnce }, asker));
  if (isOver()) leftOut.push('It was stopped before all were asked.');
  return {
    format: 'knot-path-observation',
    version: 1,
    at: new Date().toISOString(),
    switches: switches.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0)),
    leftOut,
  };
}
