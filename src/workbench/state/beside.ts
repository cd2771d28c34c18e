/** What is looked for beside the page, after the map has been redrawn: findings on what is shown, whether intents hold. */
import type { Finding } from '../../core/analysis/findings/finding';
import { NoAnswer } from './workerLink';

/** `late`: looking for them took too long and was stopped. */
export interface Beside<T> {
  readonly kind: 'none' | 'busy' | 'found' | 'late' | 'failed';
  readonly list: readonly T[];
}
export type Findings = Beside<Finding>;

export const NOTHING_FOUND: Beside<never> = { kind: 'none', list: [] };
/** Several edits in a row are looked at once. */
const CALM_MS = 150;

export interface Watch<K> {
  /** Tells what is to be looked at now; null for nothing. */
  see(of: K | null): void;
  /** Looks again, after it was too late. */
  again(): void;
  stop(): void;
}

/** `ask` looks, `show` takes what was found: the last stays on the screen until newer is there. */
export function watchBeside<K extends object, T>(
  ask: (of: K) => Promise<readonly T[]>,
  show: (found: (before: Beside<T>) => Beside<T>) => void,
  calm = CALM_MS,
): Watch<K> {
  let seen: K | null = null;
  let busy: K | null = null;
  let soon: ReturnType<typeof setTimeout> | null = null;
  async function look(): Promise<void> {
    soon = null;
    const of = seen;
    if (busy || !of) return;
    busy = of;
    const found = await ask(of).then(
      (list): Beside<T> => ({ kind: 'found', list }),
      (error: unknown): Beside<T> | null =>
        error instanceof NoAnswer && error.kind === 'ended'
          ? null
          : { kind: error instanceof NoAnswer ? 'late' : 'failed', list: [] },
    );
    busy = null;
    if (found && of === seen) show(() => found);
    else if (seen && seen !== of) void look();
  }
  return {
    see(of) {
      if (of === seen) return;
      seen = of;
      show((before) => (of ? { kind: 'busy', list: before.list } : NOTHING_FOUND));
      if (soon !== null) clearTimeout(soon);
      soon = setTimeout(() => void look(), calm);
    },
    again() {
      show(() => ({ kind: 'busy', list: [] }));
      void look();
    },
    stop() {
      if (soon !== null) clearTimeout(soon);
      seen = null;
    },
  };
}
