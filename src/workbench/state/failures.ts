/** What every failure does to the present design: worked out beside the page, shown wherever it is asked for. */
import type { EveryFailure } from '../../core/analysis/failures/everyFailure';
import type { Design } from '../../core/model/document';

export interface Failures {
  /** Nothing was asked; it is being worked out; it is there; it could not be, with why. */
  readonly kind: 'none' | 'busy' | 'found' | 'refused';
  readonly share: number;
  readonly why: string;
  /** The last that was found, and of which design: kept while newer is worked out. */
  readonly found: { readonly of: Design; readonly all: EveryFailure } | null;
  readonly stop: () => void;
}

export const NO_FAILURES: Failures = { kind: 'none', share: 0, why: '', found: null, stop: () => undefined };
