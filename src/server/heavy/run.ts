/** Tasks in workers, with limits on time, memory and how many at once, so that no request stops the others. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { fail, type Result } from '../../core/base/result';
import type { Refused, Task } from './task';

export interface Limits {
  readonly seconds: number;
  readonly memoryMiB: number;
}
const LIMITS: Limits = { seconds: 20, memoryMiB: 512 };
const AT_ONCE = 2;
const MOST_WAITING = 16;

const bundle = path.join(process.cwd(), 'dist/server/worker.cjs');
const turns = globalThis as typeof globalThis & {
  knotPathTurns?: { running: number; readonly waiting: (() => void)[] };
};

/** Runs a task beside the others; its answer, or why there is none. */
export async function inWorker<T>(task: Task, limits: Limits = LIMITS): Promise<Result<T, Refused>> {
  const turn = (turns.knotPathTurns ??= { running: 0, waiting: [] });
  if (turn.running >= AT_ONCE) {
    if (turn.waiting.length >= MOST_WAITING)
      return fail({ status: 503, message: 'The server is busy with other large documents. Try again in a minute.' });
    await new Promise<void>((go) => turn.waiting.push(go));
  } else turn.running += 1;
  try {
    return await alone<T>(task, limits);
  } finally {
    const next = turn.waiting.shift();
    if (next) next();
    else turn.running -= 1;
  }
}

function alone<T>(task: Task, { seconds, memoryMiB }: Limits): Promise<Result<T, Refused>> {
  return new Promise((done) => {
    const worker = new Worker(/* turbopackIgnore: true */ bundle, {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: memoryMiB, stackSizeMb: 4 },
    });
    const end = (result: Result<T, Refused>): void => {
      clearTimeout(clock);
      void worker.terminate();
      done(result);
    };
    const clock = setTimeout(
      () =>
        end(
          fail({
            status: 413,
            message: `This takes longer than ${seconds} seconds to read: it is too large, or not what it should be.`,
          }),
        ),
      seconds * 1000,
    );
    worker.once('message', (result: Result<T, Refused>) => end(result));
    worker.once('error', (error: NodeJS.ErrnoException) =>
      end(
        fail(
          error.code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? {
                status: 413,
                message: `This does not fit into ${memoryMiB} MiB of memory: it is too large, or not what it should be.`,
              }
            : { status: 500, message: 'The server could not read this.', details: [error.message] },
        ),
      ),
    );
    worker.once('exit', () =>
      end(fail({ status: 500, message: 'The server could not read this: its worker has ended.' })),
    );
  });
}
