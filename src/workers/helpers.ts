/** Workers that run shares of large runs: both sides of what is said between them. */
import * as Comlink from 'comlink';
import type { Design } from '../core/model/document';
import type { Scenario } from '../core/model/scenario';
import { buffersOf, createHelping, type Helper } from '../core/sim/helper';
import { rehearse } from './rehearsal';

/** Ports x trees of a run from which on helpers gain more than their start and sending cost. */
const WORTH_SHARING = 30_000;
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
    rehearse(design: Design, scenario: Scenario): void {
      const steps = rehearse(design, scenario);
      while (!steps.next(true).done);
    },
  };
}

/** A helper that can also get ready. */
export interface WorkingHelper extends Helper {
  readonly rehearse?: (design: Design, scenario: Scenario) => Promise<void>;
}

/** A worker as a helper; everything asked of it fails when `failed` does. */
export function helperBehind(endpoint: Comlink.Endpoint, failed: Promise<never>): WorkingHelper {
  failed.catch(() => undefined); // nobody may be asking
  const remote = Comlink.wrap<ReturnType<typeof helpingWorker>>(endpoint) as WorkingHelper;
  return new Proxy(remote, {
    get: (_, method) => {
      const asked = remote[method as keyof Helper] as (...given: readonly unknown[]) => Promise<unknown>;
      return (...given: readonly unknown[]) => Promise.race([failed, asked(...given)]);
    },
  });
}

/** Gives helpers for a run of a size, as many as there are processors to spare; each is started once, and not asked again once it is lost. */
export function helpersFrom(
  start: (lost: () => void) => WorkingHelper,
  spare: number,
): (size: number) => readonly WorkingHelper[] {
  let helpers: readonly WorkingHelper[] | null = null;
  const count = Math.max(0, Math.min(MOST_HELPERS, spare));
  const begin = (): WorkingHelper => {
    const helper = start(() => (helpers = helpers?.filter((each) => each !== helper) ?? null));
    return helper;
  };
  return (size) => (size < WORTH_SHARING ? [] : (helpers ??= Array.from({ length: count }, begin)));
}
