/** A worker that runs a share of a large run, for the simulator's worker. */
import * as Comlink from 'comlink';
import { helpingWorker } from './helpers';

Comlink.expose(helpingWorker());
