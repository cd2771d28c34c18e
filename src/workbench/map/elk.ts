/** ELK in a worker of its own, which can be stopped. */
import ElkApi, { type ELK } from 'elkjs/lib/elk-api';

export interface Stoppable {
  readonly elk: ELK;
  stop(): void;
}

/** Starts a worker with ELK. */
export function startElk(): Stoppable {
  const elk = new ElkApi({
    workerFactory: () =>
      new Worker(new URL('elkjs/lib/elk-worker.min.js', import.meta.url), { name: 'knot-path-layout' }),
  });
  return { elk, stop: () => elk.terminateWorker() };
}
