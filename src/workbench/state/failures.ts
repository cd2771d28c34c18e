/** What failures do to the present design: worked out beside the page, shown wherever it is asked for. */
import type { EveryFailure } from '../../core/analysis/failures/everyFailure';
import type { FailureRun } from '../../core/analysis/failures/outages';
import type { Design } from '../../core/model/document';

/** Something that is worked out in the background. */
export interface Background<T> {
  /** Nothing was asked; it is being worked out; it is there; it could not be, with why. */
  readonly kind: 'none' | 'busy' | 'found' | 'refused';
  readonly share: number;
  readonly why: string;
  /** The last that was found, of which design, and whether it is all: kept while newer is worked out. */
  readonly found: { readonly of: Design; readonly all: T; readonly whole: boolean } | null;
  readonly stop: () => void;
}

export type Failures = Background<EveryFailure>;
/** Failures run by the protocols, and why some could not be, in sentences. */
export interface FailedRuns {
  readonly runs: readonly FailureRun[];
  readonly refused: readonly string[];
}
export type FailureRuns = Background<FailedRuns>;

export const NOT_ASKED: Background<never> = { kind: 'none', share: 0, why: '', found: null, stop: () => undefined };
