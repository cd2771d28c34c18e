/** Documents and commands that are nearly right, each with a time limit: read, solved, looked at, written, edited. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { tally, type Tally } from './tally';

/** How long one may take, milliseconds. */
const LIMIT = 2000;

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
    next = await batch(what, next, firstSeed + count, result, faults);
  }
  return { ...result, tried: count, note: faults.slice(0, 3).join('; ') };
}

function batch(what: string, from: number, to: number, result: Tally, faults: string[]): Promise<number> {
  return new Promise((done) => {
    const worker = new Worker(path.join(process.cwd(), 'dist/faults/mutant.cjs'), {
      workerData: { what, from, to },
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    let at = from;
    let clock: NodeJS.Timeout;
    const wait = (): void => {
      clearTimeout(clock);
      clock = setTimeout(() => end('hung', 'no answer in time'), LIMIT + (at === from ? 5000 : 0));
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
