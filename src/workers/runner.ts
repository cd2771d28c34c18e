/** The simulator in a worker of its own: a run can be stopped, keeping what it has, and is asked about afterwards. */
import * as Comlink from 'comlink';
import { createRunning } from './running';

const runner = createRunning((answer, buffer) => Comlink.transfer(answer, [buffer]));

export type RunnerWorker = typeof runner;

Comlink.expose(runner);
