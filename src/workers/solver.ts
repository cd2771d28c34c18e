/** The solver in a web worker: keeps its own copy of the design, follows patches, answers with arrays that are handed over, not copied. */
import * as Comlink from 'comlink';
import { applyChange, type Patch } from '../core/design/edit';
import { problemText } from '../core/design/problem';
import { readDesign } from '../core/design/read';
import type { Design } from '../core/design/schema';
import { leanDesign } from '../core/design/write';
import type { SettledTree } from '../core/tree/settled';
import { solve } from '../core/tree/solve';

/** What the worker answers: every tree's arrays by the indices of the design it was told of, or why there are none. */
export type SolverAnswer = { readonly trees: readonly SettledTree[] } | { readonly problem: string };

let design: Design | null = null;

const solver = {
  /** Starts over with a design. */
  open(next: Design): SolverAnswer {
    const read = readDesign(leanDesign(next));
    if (!read.ok) return { problem: read.error.map(problemText).join('; ') };
    design = next;
    return answerFor(design);
  },
  /** Follows an edit, an undo or a redo. */
  change(patches: readonly Patch[]): SolverAnswer {
    if (!design) return { problem: 'The solver has no design yet.' };
    design = applyChange(design, patches);
    return answerFor(design);
  },
};

export type SolverWorker = typeof solver;

function answerFor(current: Design): SolverAnswer {
  const solution = solve(current);
  if (!solution.ok) return { problem: problemText(solution.error) };
  const { trees } = solution.value;
  const buffers = trees.flatMap((t) => [t.root, t.rootPathCost, t.rootPort, t.rank, t.role, t.cost, t.designated].map((array) => array.buffer));
  return Comlink.transfer({ trees }, buffers as Transferable[]);
}

Comlink.expose(solver);
