/** The solver in a web worker: keeps its own copy of the design, follows patches, answers with what they moved. */
import * as Comlink from 'comlink';
import { applyChange, type Patch } from '../core/edit/edit';
import type { BridgePortId, SwitchId, TreeId } from '../core/model/ids';
import { problemText } from '../core/model/problem';
import { readDesign } from '../core/model/read';
import type { Design } from '../core/model/document';
import { leanDesign } from '../core/model/derive/write';
import { judged, type Verdict } from '../core/analysis/intents/intents';
import { Settled } from '../core/analysis/intents/settled';
import { portMargins, type PortMargins } from '../core/analysis/steering/margin';
import type { SettledTree, Solution } from '../core/tree/settled';
import { resolve } from '../core/tree/resolve';
import { solve } from '../core/tree/solve';
import { packTrees, type PackedTrees } from './packing';

/**
 * What the worker answers: the trees that were solved, by the indices of the design it was told of, and whether they
 * are all; or why there are none.
 */
export type SolverAnswer = { readonly trees: PackedTrees; readonly all: boolean } | { readonly problem: string };

let design: Design | null = null;
let solution: Solution | null = null;

const solver = {
  /** Starts over with a design. */
  open(next: Design): SolverAnswer {
    const read = readDesign(leanDesign(next));
    if (!read.ok) return { problem: read.error.map(problemText).join('; ') };
    design = next;
    return fromScratch(next);
  },
  /** Follows an edit, an undo or a redo. */
  change(patches: readonly Patch[]): SolverAnswer {
    if (!design) return { problem: 'The solver has no design yet.' };
    design = applyChange(design, patches);
    if (!solution) return fromScratch(design);
    const again = resolve(solution, design);
    return answer(again.solution, again.changed);
  },
  /** Whether each intent holds in the network as it is. */
  verdicts: (): [intent: string, Verdict][] =>
    design && solution ? [...judged(new Settled(solution), design.intents)] : [],
  /** How far a port's cost, and its rival's, can move in a tree before some end takes another role; null where it is not in the tree. */
  margin(tree: TreeId, sw: SwitchId, port: BridgePortId): PortMargins | null {
    return design && solution ? portMargins(design, tree, sw, port) : null;
  },
};

export type SolverWorker = typeof solver;

/** What was solved, to be sent on. */
function answer(solved: Solution, changed: readonly SettledTree[]): SolverAnswer {
  solution = solved;
  const { network, trees } = solved;
  const packed = packTrees(changed, network.switches.length, network.ports.length);
  return Comlink.transfer({ trees: packed, all: changed === trees }, [packed.buffer]);
}

function fromScratch(current: Design): SolverAnswer {
  const solved = solve(current);
  return answer(solved, solved.trees);
}

Comlink.expose(solver);
