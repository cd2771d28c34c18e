/** What the workbench's component tests share: a store over the demo with the real solver in this thread. */
import { act, render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { fernhollow } from '../core/demo/demos';
import { applyChange } from '../core/edit/edit';
import type { Design } from '../core/model/document';
import { readNeighbours } from '../core/exchange/neighbours/formats';
import { judged } from '../core/analysis/intents/intents';
import { Settled } from '../core/analysis/intents/settled';
import { findingsOf } from '../core/analysis/findings/findings';
import { portMargins } from '../core/analysis/steering/margin';
import { solve } from '../core/tree/solve';
import { packTrees } from '../workers/packing';
import type { SolverAnswer } from '../workers/solver';
import { createRunning } from '../workers/running';
import { clockOf } from './state/clock';
import { StoreProvider } from './state/context';
import type { Runner } from './state/runner';
import type { Saver } from './state/saver';
import type { SolverClient } from './state/solverClient';
import { createWorkbench, type WorkbenchStore } from './state/store';

const solutionFindings = (design: Design) => findingsOf(design, solve(design));

/** Answers at once with every tree, as the worker would. */
export function inlineSolver(): SolverClient {
  let design: Design | null = null;
  const answer = (): Promise<SolverAnswer> => {
    const solved = design ? solve(design) : null;
    if (!solved) return Promise.resolve({ problem: 'no design' });
    const { network, trees } = solved;
    return Promise.resolve({ trees: packTrees(trees, network.switches.length, network.ports.length), all: true });
  };
  return {
    open(next) {
      design = next;
      return answer();
    },
    change(patches) {
      design = design && applyChange(design, patches);
      return answer();
    },
    readObserved: (text, seenOn) => Promise.resolve(readNeighbours(text, seenOn)),
    verdicts: () => Promise.resolve(design ? [...judged(new Settled(solve(design)), design.intents)] : []),
    findings: (of) => Promise.resolve(solutionFindings(of)),
    margin: (tree, sw, port) => Promise.resolve(design && portMargins(design, tree, sw, port)),
    close: () => undefined,
  };
}

/** Runs in this thread what the simulator's worker would. */
export function inlineRunner(): Runner {
  const running = createRunning((answer) => answer);
  const later = <T,>(value: T): Promise<T> => Promise.resolve(value);
  return {
    run: running.run,
    warm: () => undefined,
    stop: running.stop,
    why: (...of) => later(running.why(...of)),
    frames: running.frames,
    capture: running.capture,
    another: inlineRunner,
    close: () => undefined,
  };
}

/** Sends nothing anywhere. */
export const noSaver = (): Saver => ({
  send: () => undefined,
  hold: () => undefined,
  amend: () => false,
  hurry: () => undefined,
  unsent: () => [],
  replace: () => undefined,
  refuse: () => undefined,
  abandon: () => undefined,
});

/** Lets promises and the state changes that they bring run to their end. */
export const settle = async (): Promise<void> => {
  const task = () => new Promise<void>((done) => setTimeout(done, 0));
  for (let round = 0; round < 3; round += 1) await act(task);
  // What is not the map follows in the task after the frame.
  await act(() => new Promise<void>((done) => requestAnimationFrame(() => void task().then(done))));
};

/** Renders a part of the workbench over a design, solved. */
export async function renderWith(part: ReactElement, design: Design = fernhollow()): Promise<WorkbenchStore> {
  const store = createWorkbench(
    { id: 'test', revision: 0, design, undo: [], redo: [], damage: null },
    inlineSolver(),
    noSaver,
    0,
  );
  clockOf(store, inlineRunner, 0);
  store.getState().start();
  render(<StoreProvider value={store}>{part}</StoreProvider>);
  await settle();
  return store;
}
