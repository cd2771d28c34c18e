/** The simulator in a worker of its own: a run can be stopped, keeping what it has, and is asked about afterwards. */
import * as Comlink from 'comlink';
import { helperBehind, helpersFrom, type WorkingHelper } from './helpers';
import { createRunning } from './running';

function startHelper(lost: () => void): WorkingHelper {
  const worker = new Worker(new URL('./helper.ts', import.meta.url), { type: 'module', name: 'knot-path-helper' });
  const failed = new Promise<never>((_, fail) => {
    worker.onerror = (event) => {
      event.preventDefault();
      lost();
      fail(new Error('A helper of the simulator has stopped.'));
    };
  });
  return helperBehind(worker, failed);
}

const runner = createRunning(
  (answer, buffer) => Comlink.transfer(answer, [buffer]),
  // One processor is the page's and one this worker's: with no more than those a helper takes as much from them as it gives.
  helpersFrom(startHelper, navigator.hardwareConcurrency - 2),
);

export type RunnerWorker = typeof runner;

Comlink.expose(runner);
