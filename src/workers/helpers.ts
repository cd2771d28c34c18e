/** Workers that run shares of large runs: both sides of what is said between them. */
import * as Comlink from 'comlink';
import { buffersOf, createHelping, type Helper } from '../core/sim/helper';

/** Ports x trees of a run from which on helpers gain more than their start and sending cost. */
const WORTH_SHARING = 100_000;
/** Beyond these, what a run takes is memory that all of them wait for. */
const MOST_HELPERS = 3;

/** What a helper's worker exposes: buffers are handed over instead of copied. */
export function helpingWorker() {
  const helping = createHelping();
  const handedOver = <T extends object>(answer: T): T => Comlink.transfer(answer, buffersOf(answer));
  return {
    ...helping,
    written: (views: boolean) => handedOver(helping.written(views)),
    words: () => handedOver(helping.words()),
  };
}

/** A worker as a helper; everything asked of it fails when `failed` does. */
export function helperBehind(endpoint: Comlink.Endpoint, failed: Promise<never>): Helper {
  failed.catch(() => undefined); // nobody may be asking
  const remote = Comlink.wrap<ReturnType<typeof helpingWorker>>(endpoint) as unknown as Helper;
  return new Proxy(remote, {
    get: (_, method) => {
      const asked = remote[method as keyof Helper] as (...given: readonly unknown[]) => Promise<unknown>;
      return (...given: readonly unknown[]) => Promise.race([failed, asked(...given)]);
    },
  });
}

/** Gives helpers for a run of a size, as many as there are processors beside the asking one; each is started once. */
export function helpersFrom(start: () => Helper, processors: number): (size: number) => readonly Helper[] {
  let helpers: readonly Helper[] | null = null;
  const count = Math.max(0, Math.min(MOST_HELPERS, processors - 1));
  return (size) => (size < WORTH_SHARING ? [] : (helpers ??= Array.from({ length: count }, start)));
}
