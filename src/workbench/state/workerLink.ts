/**
 * A worker that starts with the first question. One that could not be loaded is started again until it can; one that takes
 * too long is ended; every question has an answer or a reason in the end.
 */
import * as Comlink from 'comlink';

/** Why a question was not answered, in a sentence. */
export class NoAnswer extends Error {
  readonly kind: 'ended' | 'late';

  constructor(kind: 'ended' | 'late', message: string) {
    super(message);
    this.kind = kind;
  }
}

const RETRY_AFTER_MS = 2000;

export interface WorkerLink<T> {
  /** Asks; where the worker has to be started over it is asked again. `seconds`: how long it may take once it runs. */
  ask<R>(question: (remote: Comlink.Remote<T>) => Promise<R>, seconds?: number): Promise<R>;
  /** Ends the worker and every question; the next question starts another. */
  end(): void;
}

interface Running<T> {
  readonly worker: Worker;
  readonly remote: Comlink.Remote<T>;
  /** Rejected when the worker fails or is ended. */
  readonly failed: Promise<never>;
  readonly fail: (error: Error) => void;
}

/** `told` hears that the worker waits to be loaded, and that it no longer does. */
export function workerLink<T>(
  start: () => Worker,
  told: (waits: boolean) => void = () => undefined,
  wait: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
): WorkerLink<T> {
  let running: Running<T> | null = null;
  let answered = false;
  let turn = 0;

  function started(): Running<T> {
    if (running) return running;
    const worker = start();
    let fail: (error: Error) => void = () => undefined;
    const failed = new Promise<never>((_, reject) => (fail = reject));
    failed.catch(() => undefined); // nobody may be asking
    worker.onerror = (event) => {
      event.preventDefault();
      lose(new LoadFailure());
    };
    return (running = { worker, remote: Comlink.wrap<T>(worker), failed, fail });
  }

  function lose(error: Error): void {
    running?.worker.terminate();
    running?.fail(error);
    running = null;
  }

  return {
    async ask(question, seconds) {
      const mine = turn;
      for (;;) {
        const { remote, failed } = started();
        let clock: ReturnType<typeof setTimeout> | undefined;
        try {
          if (seconds !== undefined)
            clock = setTimeout(() => lose(new NoAnswer('late', `stopped after ${seconds} seconds`)), seconds * 1000);
          const answer = await Promise.race([question(remote), failed]);
          if (!answered) told(false);
          answered = true;
          return answer;
        } catch (error) {
          if (!(error instanceof LoadFailure)) throw error;
          answered = false;
          told(true);
        } finally {
          clearTimeout(clock);
        }
        await wait(RETRY_AFTER_MS);
        if (mine !== turn) throw new NoAnswer('ended', 'stopped');
      }
    },
    end() {
      turn += 1;
      lose(new NoAnswer('ended', 'stopped'));
    },
  };
}

/** The worker could not be loaded, or died without a word. */
class LoadFailure extends Error {}
