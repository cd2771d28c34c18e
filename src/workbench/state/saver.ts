/**
 * Sends writes one after another, each naming the revision before it and carrying a name of its own, so that one whose answer
 * was lost is done once. A write that the network lost is tried again; one that the server refuses stops the queue, with
 * everything unsent kept. Where others were faster the page follows them (`follow`).
 */
import type { Write } from '../../contract/api';
import type { Result } from '../../core/base/result';
import type { ApiFailure } from './api';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly message: string; readonly short: string }
  | { readonly kind: 'conflict'; readonly failure: ApiFailure }
  | { readonly kind: 'refused'; readonly failure: ApiFailure };

/** What the server did with a write: the revision that it is now, or that it was dropped. */
export interface Overtaken {
  /** Numbers that the page had given, and what they are on the server. */
  readonly renamed: ReadonlyMap<number, number>;
  /** An undo, redo or restore that no longer was the next in line. */
  readonly dropped: Write | null;
}

export interface SaverRoom {
  post(write: Write): Promise<Result<{ revision: number; replayed: boolean }, ApiFailure>>;
  report(state: SaveState): void;
  /** Takes in what others did, and puts the unsent writes on top (`replace`); false where the server cannot be asked now. */
  follow(overtaken: Overtaken): Promise<boolean>;
  /** Keeps what is unsent where a crash does not reach it. */
  keep(unsent: readonly Write[]): void;
  /** Told of the server's newest revision that this page knows. */
  acknowledged(revision: number): void;
}

export interface Saver {
  send(write: Write): void;
  /** Sends a write that more may be added to: it waits until nobody has for a while, or something else follows it. */
  hold(write: Write): void;
  /** Puts `write` in the place of the one that is held; false where none is, or it is on its way already. */
  amend(write: Write): boolean;
  /** Waits for nothing more. */
  hurry(): void;
  /** Writes not yet acknowledged. */
  unsent(): readonly Write[];
  /** Puts others in their place, after the page has followed what others did. */
  replace(writes: readonly Write[]): void;
  /** Stops, keeping everything unsent. */
  refuse(kind: 'conflict' | 'refused', failure: ApiFailure): void;
  /** Drops them. */
  abandon(): void;
}

const RETRY_AFTER_MS = 2000;
/** The screen is redrawn before the network is bothered. */
const SEND_AFTER_MS = 120;
/** How often, and how many times, one looks whether more is added to a write that is held. */
const HELD = { look: 200, times: 10 } as const;

export function createSaver(
  room: SaverRoom,
  wait: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
): Saver {
  let queue: Write[] = [];
  let running = false;
  let stopped = false;
  /** The name of the write that is held, and how many looks are left before it goes. */
  let held: { readonly name: string; left: number } | null = null;

  function put(next: Write[]): void {
    queue = next;
    room.keep(queue);
  }

  function refuse(kind: 'conflict' | 'refused', failure: ApiFailure): void {
    stopped = true;
    room.report({ kind, failure });
  }

  async function offline(failure: ApiFailure): Promise<void> {
    room.report({
      kind: 'offline',
      message: failure.message,
      short: SHORT[failure.status] ?? 'the server is in trouble',
    });
    await wait(RETRY_AFTER_MS);
  }

  async function follow(overtaken: Overtaken): Promise<void> {
    while (!stopped && !(await room.follow(overtaken))) await offline({ status: 0, message: NO_ANSWER, details: [] });
  }

  async function sendFirst(write: Write): Promise<void> {
    const saved = await room.post(write);
    if (stopped) return;
    if (saved.ok) {
      const { revision, replayed } = saved.value;
      put(queue.slice(1));
      if (replayed) await follow({ renamed: new Map([[write.base + 1, revision]]), dropped: null });
      else room.acknowledged(revision);
      return;
    }
    const { status } = saved.error;
    if (status === 0 || status === 401 || status >= 500) return offline(saved.error);
    if (status !== 409 || write.kind === 'edit') return refuse(status === 409 ? 'conflict' : 'refused', saved.error);
    put(queue.slice(1));
    await follow({ renamed: new Map(), dropped: write });
  }

  async function run(): Promise<void> {
    running = true;
    await wait(SEND_AFTER_MS);
    for (let [write] = queue; write && !stopped; [write] = queue) {
      if (held && held.name === write.write && queue.length === 1 && held.left > 0) {
        held.left -= 1;
        await wait(HELD.look);
        continue;
      }
      if (held?.name === write.write) held = null;
      await sendFirst(write);
    }
    running = false;
    if (!stopped) room.report({ kind: 'saved' });
  }

  function send(write: Write): void {
    put([...queue, { ...write, write: write.write ?? freshName() }]);
    if (stopped) return;
    room.report({ kind: 'saving' });
    if (!running) void run();
  }

  return {
    send,
    hold(write) {
      const name = freshName();
      held = { name, left: HELD.times };
      send({ ...write, write: name });
    },
    amend(write) {
      const last = queue.at(-1);
      if (!held || last?.write !== held.name) return false;
      held.left = HELD.times;
      put([...queue.slice(0, -1), { ...write, base: last.base, write: held.name }]);
      return true;
    },
    hurry() {
      if (held) held.left = 0;
    },
    unsent: () => queue,
    replace: (writes) => put([...writes]),
    refuse,
    abandon() {
      stopped = true;
      put([]);
    },
  };
}

const NO_ANSWER = 'The Knot Path server does not answer. Is it still running?';
const SHORT: Readonly<Record<number, string>> = { 0: 'no answer', 401: 'signed out', 507: 'the disk is full' };

/** A name that no other write has. */
export const freshName = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((octet) => octet.toString(16).padStart(2, '0')).join('');
