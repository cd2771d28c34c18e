/** The search for ways to steer, in a worker of its own: it may take seconds, and stopping it is ending the worker. */
import * as Comlink from 'comlink';
import type { TreeId } from '../core/design/ids';
import { problemText } from '../core/design/problem';
import type { Design } from '../core/design/schema';
import { fail, type Result } from '../core/result';
import { steer, type Proposal } from '../core/study/steer';
import type { Wish } from '../core/study/wishes';
import { solve } from '../core/tree/solve';

const steerer = {
  /** Searches; `tell` is told how far it is, 0 to 1. */
  search(design: Design, wishes: readonly Wish[], trees: readonly TreeId[], tell: (share: number) => void): Result<Proposal[], string> {
    const solution = solve(design);
    if (!solution.ok) return fail(problemText(solution.error));
    return steer(solution.value, wishes, trees, (share) => {
      tell(share);
      return true;
    });
  },
};

export type SteererWorker = typeof steerer;

Comlink.expose(steerer);
