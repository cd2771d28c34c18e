/** A worker that runs a share of a large run, as one in the browser does. */
import * as Comlink from 'comlink';
import { workerData, type MessagePort } from 'node:worker_threads';
import { helpingWorker } from '../src/workers/helpers';

Comlink.expose(helpingWorker(), workerData as MessagePort as unknown as Comlink.Endpoint);
