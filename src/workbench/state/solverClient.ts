/** The workbench's side of the solver worker. */
import * as Comlink from 'comlink';
import type { Patch } from '../../core/design/edit';
import type { PortId, SwitchId, TreeId } from '../../core/design/ids';
import type { Design } from '../../core/design/schema';
import type { PortMargins } from '../../core/study/margin';
import type { SolverAnswer, SolverWorker } from '../../workers/solver';

/** Something that solves a design and follows its changes, in the order in which they are told. */
export interface SolverClient {
  open(design: Design): Promise<SolverAnswer>;
  change(patches: readonly Patch[]): Promise<SolverAnswer>;
  /** Answered after the changes told before it. */
  margin(tree: TreeId, sw: SwitchId, port: PortId): Promise<PortMargins | null>;
  close(): void;
}

/** A solver in a worker that starts when it is first told of a design, in a browser. */
export function workerSolver(): SolverClient {
  let worker: Worker | null = null;
  let remote: Comlink.Remote<SolverWorker> | null = null;
  return {
    open(design) {
      worker ??= new Worker(new URL('../../workers/solver.ts', import.meta.url), { type: 'module', name: 'knot-path-solver' });
      remote ??= Comlink.wrap<SolverWorker>(worker);
      return remote.open(design);
    },
    change: (patches) => remote?.change(patches as Patch[]) ?? Promise.resolve({ problem: 'The solver is not running.' }),
    margin: (tree, sw, port) => remote?.margin(tree, sw, port) ?? Promise.resolve(null),
    close() {
      worker?.terminate();
      worker = remote = null;
    },
  };
}
