/** The workbench's side of the solver worker, and of the one that looks for findings. */
import type { Patch } from '../../core/edit/edit';
import type { BridgePortId, SwitchId, TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import type { ObservedImport } from '../../core/exchange/neighbours/format';
import { fail, type Result } from '../../core/base/result';
import type { Finding } from '../../core/analysis/findings/finding';
import type { Verdict } from '../../core/analysis/intents/intents';
import type { PortMargins } from '../../core/analysis/steering/margin';
import type { AnalystWorker } from '../../workers/analyst';
import type { SolverAnswer, SolverWorker } from '../../workers/solver';
import { workerLink, type WorkerLink } from './workerLink';

/** How long findings may take, seconds. */
export const FINDINGS_SECONDS = 10;
/** How long reading a file may take, seconds. */
const READING_SECONDS = 20;

/** Something that solves a design and follows its changes, in the order in which they are told. */
export interface SolverClient {
  open(design: Design): Promise<SolverAnswer>;
  /** `design` is what the patches lead to. */
  change(patches: readonly Patch[], design: Design): Promise<SolverAnswer>;
  /** Answered after the changes told before it. */
  margin(tree: TreeId, sw: SwitchId, port: BridgePortId): Promise<PortMargins | null>;
  /** Whether the intents of the design hold as it is, by their ids; answered after the changes told before. */
  verdicts(): Promise<readonly (readonly [intent: string, Verdict])[]>;
  /** Rejected with a `NoAnswer` where that takes too long, or the client is closed. */
  findings(design: Design): Promise<readonly Finding[]>;
  /** Reads what switches reported; the error is a sentence. */
  readObserved(text: string, seenOn: string | null): Promise<Result<ObservedImport, string>>;
  close(): void;
}

/** A solver in a worker that starts when it is first told of a design, in a browser; `told` hears when it cannot be loaded. */
export function workerSolver(told: (waits: boolean) => void = () => undefined): SolverClient {
  let started = 0;
  const solver = workerLink<SolverWorker>(() => {
    started += 1;
    return new Worker(new URL('../../workers/solver.ts', import.meta.url), {
      type: 'module',
      name: 'knot-path-solver',
    });
  }, told);
  const [analyst, reader] = [1, 2].map(() =>
    workerLink<AnalystWorker>(
      () =>
        new Worker(new URL('../../workers/analyst.ts', import.meta.url), { type: 'module', name: 'knot-path-analyst' }),
    ),
  ) as [WorkerLink<AnalystWorker>, WorkerLink<AnalystWorker>];
  let latest: Design | null = null;
  /** Asks the worker that was told of everything so far; one that had to be started over begins with the latest design. */
  const inOrder = <T>(
    ask: Parameters<typeof solver.ask<T>>[0],
    over: Parameters<typeof solver.ask<T>>[0],
  ): Promise<T> => {
    const mine = Math.max(1, started);
    return solver.ask<T>((remote) => (started === mine ? ask(remote) : over(remote)));
  };
  const anew = (remote: Parameters<Parameters<typeof solver.ask<SolverAnswer>>[0]>[0]): Promise<SolverAnswer> =>
    remote.open(latest!);
  return {
    open(design) {
      latest = design;
      return solver.ask(anew);
    },
    change(patches, design) {
      latest = design;
      return inOrder((remote) => remote.change(patches as Patch[]), anew);
    },
    margin: (tree, sw, port) => solver.ask((remote) => remote.margin(tree, sw, port)),
    verdicts: () => solver.ask(async (remote) => await remote.verdicts(), FINDINGS_SECONDS),
    findings: (design) => analyst.ask((remote) => remote.findings(design), FINDINGS_SECONDS),
    readObserved: (text, seenOn) =>
      reader
        .ask(async (remote) => await remote.readObserved(text, seenOn), READING_SECONDS)
        .catch(() => fail(`Reading this took longer than ${READING_SECONDS} seconds and was stopped.`)),
    close() {
      solver.end();
      analyst.end();
      reader.end();
    },
  };
}
