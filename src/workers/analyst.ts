/** What grows with the design and nobody waits for with the mouse in hand: findings, files that are read. */
import * as Comlink from 'comlink';
import type { Design } from '../core/model/document';
import { readLldp, readObservedCsv, type ObservedImport } from '../core/exchange/observed';
import type { Result } from '../core/base/result';
import type { Finding } from '../core/analysis/findings/finding';
import { findingsOf } from '../core/analysis/findings/findings';
import { solve } from '../core/tree/solve';

const analyst = {
  findings: (design: Design): Finding[] => findingsOf(design, solve(design)),
  /** A table, or what lldpctl printed on a switch, which it does not name. */
  readObserved: (text: string, seenOn: string | null): Result<ObservedImport, string> =>
    seenOn === null ? readObservedCsv(text) : readLldp(text, seenOn),
};

export type AnalystWorker = typeof analyst;

Comlink.expose(analyst);
