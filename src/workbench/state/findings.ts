/** The findings on the design that is shown: looked for beside the page, after the map has been redrawn. */
import type { Finding } from '../../core/analysis/findings/finding';
import type { Solution } from '../../core/tree/settled';
import { NoAnswer } from './workerLink';

/** `late`: looking for them took too long and was stopped. */
export interface Findings {
  readonly kind: 'none' | 'busy' | 'found' | 'late' | 'failed';
  readonly list: readonly Finding[];
}

export const NO_FINDINGS: Findings = { kind: 'none', list: [] };
/** Several edits in a row are looked at once. */
const CALM_MS = 150;

export interface FindingsWatch {
  /** Tells of the solution that is shown now. */
  see(solution: Solution | null): void;
  /** Looks again, after it was too late. */
  again(): void;
  stop(): void;
}

/** `ask` looks for findings, `show` takes them: the last ones stay on the screen until newer ones are there. */
export function watchFindings(
  ask: (solution: Solution) => Promise<readonly Finding[]>,
  show: (findings: (before: Findings) => Findings) => void,
  calm = CALM_MS,
): FindingsWatch {
  let seen: Solution | null = null;
  let busy: Solution | null = null;
  let soon: ReturnType<typeof setTimeout> | null = null;
  async function look(): Promise<void> {
    soon = null;
    const of = seen;
    if (busy || !of) return;
    busy = of;
    const found = await ask(of).then(
      (list): Findings => ({ kind: 'found', list }),
      (error: unknown): Findings | null =>
        error instanceof NoAnswer && error.kind === 'ended'
          ? null
          : { kind: error instanceof NoAnswer ? 'late' : 'failed', list: [] },
    );
    busy = null;
    if (found && of === seen) show(() => found);
    else if (seen && seen !== of) void look();
  }
  return {
    see(solution) {
      if (solution === seen) return;
      seen = solution;
      show((before) => (solution ? { kind: 'busy', list: before.list } : NO_FINDINGS));
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
