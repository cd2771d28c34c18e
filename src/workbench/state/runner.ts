/** The workbench's side of the simulator's worker. */
import * as Comlink from 'comlink';
import type { Scenario } from '../../core/design/scenario';
import type { Design } from '../../core/design/schema';
import { fail, type Result } from '../../core/result';
import type { Film } from '../../core/sim/film';
import type { FrameRow } from '../../core/sim/frameRows';
import type { PortId, SwitchId, TreeId } from '../../core/design/ids';
import type { RunnerWorker } from '../../workers/runner';
import type { FrameScope } from '../../workers/running';

/** Something that runs scenarios, one at a time, and answers about the last one. */
export interface Runner {
  /** `tell` is told how far it is, 0 to 1. */
  run(design: Design, scenario: Scenario, tell: (share: number) => void): Promise<Result<Film, string>>;
  /** Gets ready: the next run is not the first. */
  warm(design: Design): void;
  /** Ends the run that is under way; it keeps what it has. */
  stop(): void;
  why(tree: TreeId, sw: SwitchId, port: PortId, t: number): Promise<{ readonly t: number; readonly text: string } | null>;
  frames(scope: FrameScope, trees: readonly TreeId[] | null, most: number): Promise<Result<{ readonly rows: readonly FrameRow[]; readonly left: number }, string>>;
  capture(scope: FrameScope): Promise<Result<Uint8Array<ArrayBuffer>, string>>;
  /** Another one, for runs that are to leave this one's alone. */
  another(): Runner;
  /** Ends the worker. */
  close(): void;
}

/** A runner in a worker that starts with the first run. */
export function workerRunner(): Runner {
  let worker: Worker | null = null;
  let remote: Comlink.Remote<RunnerWorker> | null = null;
  const there = (): Comlink.Remote<RunnerWorker> => {
    worker ??= new Worker(new URL('../../workers/runner.ts', import.meta.url), { type: 'module', name: 'knot-path-runner' });
    return (remote ??= Comlink.wrap<RunnerWorker>(worker));
  };
  return {
    run: (design, scenario, tell) => there().run(design, scenario, Comlink.proxy(tell)).catch(() => fail('The simulator has stopped.')),
    warm: (design) => void there().warm(design),
    stop: () => void remote?.stop(),
    why: (tree, sw, port, t) => there().why(tree, sw, port, t),
    frames: (scope, trees, most) => there().frames(scope, trees as TreeId[] | null, most),
    capture: (scope) => there().capture(scope),
    another: workerRunner,
    close() {
      worker?.terminate();
      worker = remote = null;
    },
  };
}
