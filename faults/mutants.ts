/** Documents and commands that are nearly right, each with a time limit: read, solved, looked at, written, edited. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { tally, type Tally } from './tally';

/** How long twenty of them may take, milliseconds; and where they did not come in time, once more: a machine that stalls stalls once. */
const LIMIT = 2000;
const LIMIT_AGAIN = 15_000;

/** What the worker says of one. */
export interface Verdict {
  readonly seed: number;
  readonly kind: 'fine' | 'lost' | 'crashed';
  readonly why?: string;
}

/** Runs `count` of them; one that takes too long is counted, and its worker replaced. */
export async function mutants(what: 'documents' | 'commands', count: number, firstSeed: number): Promise<Tally> {
  const result = tally(`mutated ${what}`);
  const faults: string[] = [];
  for (let next = firstSeed; next < firstSeed + count;) {
    const reached = await batch(what, next, firstSeed + count, LIMIT, result, faults);
    next =
      reached === 'late' ? Number(await batch(what, next, firstSeed + count, LIMIT_AGAIN, result, faults)) : reached;
  }
  return { ...result, tried: count, note: faults.slice(0, 3).join('; ') };
}

/** Gives the seed to go on from, or that the first of them came too late for this limit. */
function batch(
  what: string,
  from: number,
  to: number,
  limit: number,
  result: Tally,
  faults: string[],
): Promise<number | 'late'> {
  return new Promise((done) => {
    const worker = new Worker(path.join(process.cwd(), 'dist/faults/mutant.cjs'), {
      workerData: { what, from, to },
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    let at = from;
    let clock: NodeJS.Timeout;
    const wait = (): void => {
      clearTimeout(clock);
      clock = setTimeout(late, limit + (at === from ? 5000 : 0));
    };
    const late = (): void => {
      if (limit > LIMIT) return end('hung', 'no answer in time');
      worker.removeAllListeners();
      void worker.terminate().then(() => done(at === from ? 'late' : at));
    };
    const end = (kind: 'hung' | 'crashed', why: string): void => {
      clearTimeout(clock);
      result[kind] += 1;
      faults.push(`${kind} at seed ${at}: ${why}`);
      worker.removeAllListeners();
      void worker.terminate().then(() => done(at + 1));
    };
    wait();
    worker.on('message', (verdicts: readonly Verdict[]) => {
      for (const { seed, kind, why } of verdicts) {
        at = seed + 1;
        if (kind === 'fine') continue;
        result[kind] += 1;
        faults.push(`${kind} at seed ${seed}: ${why}`);
      }
      wait();
      if (at < to) return;
      clearTimeout(clock);
      worker.removeAllListeners();
      void worker.terminate().then(() => done(to));
    });
    worker.on('error', (error) => end('crashed', error.message));
  });
}
