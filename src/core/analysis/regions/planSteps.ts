/** Steps of a plan that a running network goes through, and what a simulation of them says of each. */
import { isClassic } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';

export interface PlanStep {
  /** The switch at which it is done; null where it is a cable. */
  readonly switch: SwitchId | null;
  readonly text: string;
  readonly why: string;
  /** Seconds since the plan's start. */
  readonly at: number;
}

/** Seconds between two steps, in which all comes to rest: more where ports take two forward delays. */
export const pauseIn = ({ switches }: Design): number => (switches.some((sw) => sw.up && isClassic(sw)) ? 60 : 10);

/** What a step did, of a run of the plan's actions. */
export interface StepOutcome {
  /** The longest outage of any pair of hosts that began in the step, seconds; Infinity where it never ended. */
  readonly outage: number;
  /** Pairs of hosts that were cut off. */
  readonly pairs: number;
  /** Frames circled without end, or came back or came twice. */
  readonly frames: 'circle' | 'come twice' | null;
}

interface Ran {
  readonly outages: readonly { readonly start: number; readonly end: number | null }[];
  readonly storms: readonly { readonly start: number; readonly end: number | null; readonly endless: boolean }[];
}

/** Reads a run step by step; times in seconds since its start. */
export function outcomesOf(
  { steps, until }: { readonly steps: readonly { readonly at: number }[]; readonly until: number },
  { outages, storms }: Ran,
): StepOutcome[] {
  return steps.map(({ at }, i) => {
    const to = steps[i + 1]?.at ?? until;
    const begun = outages.filter(({ start }) => start >= at && start < to);
    const forwardingLoops = storms.filter(({ start, end }) => start < to && (end ?? Infinity) > at);
    return {
      outage: Math.max(0, ...begun.map(({ start, end }) => (end === null ? Infinity : end - start))),
      pairs: begun.length,
      frames: forwardingLoops.some(({ endless }) => endless)
        ? 'circle'
        : forwardingLoops.length > 0
          ? 'come twice'
          : null,
    };
  });
}
