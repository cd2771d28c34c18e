/** What grows with the design and nobody waits for with the mouse in hand: findings, files that are read. */
import * as Comlink from 'comlink';
import type { Design } from '../core/model/document';
import { readNeighbours } from '../core/exchange/neighbours/formats';
import type { Finding } from '../core/analysis/findings/finding';
import { findingsOf } from '../core/analysis/findings/findings';
import { solve } from '../core/tree/solve';

const analyst = {
  findings: (design: Design): Finding[] => findingsOf(design, solve(design)),
  readObserved: readNeighbours,
};

export type AnalystWorker = typeof analyst;

Comlink.expose(analyst);
