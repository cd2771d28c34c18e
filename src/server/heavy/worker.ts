/** The worker's side: one task, one answer. Bundled to `dist/server/worker.cjs` by the set-up. */
import { parentPort, workerData } from 'node:worker_threads';
import { runTask, type Task } from './task';

parentPort?.postMessage(runTask(workerData as Task));
