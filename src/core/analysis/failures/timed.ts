/** Claims about the time that a failure takes, judged by runs. */
import type { Solution } from '../../tree/settled';
import type { Breach } from '../intents/claim';
import type { Meant } from '../intents/intents';
import { Settled } from '../intents/settled';
import { deadIn, isOf, type Failure } from './failure';
import type { FailureRun } from './outages';

/** A failure that breaks an intent, and how. */
export interface Break {
  readonly failure: Failure;
  readonly breach: Breach;
}

/** The runs in which a claim about times does not hold; `solution`: of the network before. */
export const brokenInRuns = (solution: Solution, { whatever, claim }: Meant, runs: readonly FailureRun[]): Break[] =>
  runs.flatMap(({ failure, ...run }) => {
    if (!isOf(failure, whatever ?? [])) return [];
    const breach = claim.judgeRun?.({ failure, ...run }, new Settled(solution, deadIn(failure)));
    return breach ? [{ failure, breach }] : [];
  });
