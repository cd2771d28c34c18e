/** The workbench's side of the simulator's worker. */
import type { Scenario } from '../../core/model/scenario';
import type { Design } from '../../core/model/document';
import { fail, type Result } from '../../core/base/result';
import type { Trace } from '../../core/sim/trace/trace';
import type { FrameRow } from '../../core/sim/report/frameRows';
import type { BridgePortId, SwitchId, TreeId } from '../../core/model/ids';
import type { RunnerWorker } from '../../workers/runner';
import type { FrameScope } from '../../workers/running';
import { tellWaiting } from '../ui/loading';
import { whileAsked } from './progress';
import { workerLink } from './workerLink';

/** Something that runs scenarios, one at a time, and answers about the last one. */
export interface Runner {
  /** `tell` is told how far it is, 0 to 1. */
  run(design: Design, scenario: Scenario, tell: (share: number) => void): Promise<Result<Trace, string>>;
  /** Gets ready: the next run is not the first. */
  warm(design: Design): void;
  /** Ends the run that is under way; it keeps what it has. */
  stop(): void;
  why(
    tree: TreeId,
    sw: SwitchId,
    port: BridgePortId,
    t: number,
  ): Promise<{ readonly t: number; readonly text: string } | null>;
  frames(
    scope: FrameScope,
    trees: readonly TreeId[] | null,
    most: number,
  ): Promise<Result<{ readonly rows: readonly FrameRow[]; readonly left: number }, string>>;
  capture(scope: FrameScope): Promise<Result<Uint8Array<ArrayBuffer>, string>>;
  /** Another one, for runs that are to leave this one's alone. */
  another(): Runner;
  /** Ends the worker. */
  close(): void;
}

/** A runner in a worker that starts with the first run. */
export function workerRunner(): Runner {
  const link = workerLink<RunnerWorker>(
    () => new Worker(new URL('../../workers/runner.ts', import.meta.url), { type: 'module', name: 'knot-path-runner' }),
    (waits) => tellWaiting('runner', waits),
  );
  const quietly = (asked: Promise<unknown>): void => void asked.catch(() => undefined);
  return {
    run: (design, scenario, tell) =>
      whileAsked(tell, (told) => link.ask(async (remote) => await remote.run(design, scenario, told))).catch(() =>
        fail('The simulator has stopped.'),
      ),
    warm: (design) => quietly(link.ask((remote) => remote.warm(design))),
    stop: () => quietly(link.ask((remote) => remote.stop())),
    why: (tree, sw, port, t) => link.ask((remote) => remote.why(tree, sw, port, t)),
    frames: (scope, trees, most) =>
      link.ask(async (remote) => await remote.frames(scope, trees as TreeId[] | null, most)),
    capture: (scope) => link.ask(async (remote) => await remote.capture(scope)),
    another: workerRunner,
    close: () => link.end(),
  };
}
