/** The workbench's side of the steering worker: one search at a time, which can be stopped. */
import * as Comlink from 'comlink';
import type { TreeId } from '../../core/design/ids';
import type { Design } from '../../core/design/schema';
import { fail, type Result } from '../../core/result';
import type { Proposal } from '../../core/study/steer';
import type { Wish } from '../../core/study/wishes';
import type { SteererWorker } from '../../workers/steerer';

export interface Search {
  readonly found: Promise<Result<Proposal[], string>>;
  stop(): void;
}

/** Starts a search in a worker of its own. */
export function startSearch(design: Design, wishes: readonly Wish[], trees: readonly TreeId[], tell: (share: number) => void): Search {
  const worker = new Worker(new URL('../../workers/steerer.ts', import.meta.url), { type: 'module', name: 'knot-path-steerer' });
  const remote = Comlink.wrap<SteererWorker>(worker);
  const found = remote
    .search(design, [...wishes], [...trees], Comlink.proxy(tell))
    .catch(() => fail('The search has stopped.'))
    .finally(() => worker.terminate());
  return { found, stop: () => worker.terminate() };
}
