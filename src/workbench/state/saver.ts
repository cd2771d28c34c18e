/**
 * Sends writes one after another, each naming the revision before it. A write that the network lost is tried again;
 * a write that the server refuses stops the queue, with everything unsent kept.
 */
import type { Write } from '../../contract/api';
import type { Result } from '../../core/result';
import type { ApiFailure } from './api';

export type SaveState =
  | { readonly is: 'saved' }
  | { readonly is: 'saving' }
  | { readonly is: 'offline'; readonly message: string }
  | { readonly is: 'conflict'; readonly failure: ApiFailure }
  | { readonly is: 'refused'; readonly failure: ApiFailure };

export interface Saver {
  send(write: Write): void;
  /** Writes not yet acknowledged. */
  readonly unsent: () => number;
  /** Drops them. */
  abandon(): void;
}

const RETRY_AFTER_MS = 2000;
/** The screen is redrawn before the network is bothered. */
const SEND_AFTER_MS = 120;

/** A saver that posts through `post` and reports through `report`. */
export function createSaver(
  post: (write: Write) => Promise<Result<{ revision: number }, ApiFailure>>,
  report: (state: SaveState) => void,
  wait: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
): Saver {
  const queue: Write[] = [];
  let running = false;
  let stopped = false;

  async function run(): Promise<void> {
    running = true;
    await wait(SEND_AFTER_MS);
    while (!stopped) {
      const [write] = queue;
      if (!write) break;
      const saved = await post(write);
      if (saved.ok) queue.shift();
      else if (saved.error.status === 0 || saved.error.status >= 500) {
        report({ is: 'offline', message: saved.error.message });
        await wait(RETRY_AFTER_MS);
      } else {
        stopped = true;
        report({ is: saved.error.status === 409 ? 'conflict' : 'refused', failure: saved.error });
      }
    }
    running = false;
    if (!stopped) report({ is: 'saved' });
  }

  return {
    send(write) {
      queue.push(write);
      if (stopped) return;
      report({ is: 'saving' });
      if (!running) void run();
    },
    unsent: () => queue.length,
    abandon() {
      stopped = true;
      queue.length = 0;
    },
  };
}
