/** What a run of a whole plan says of it. */

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
  { times, until }: { readonly times: readonly number[]; readonly until: number },
  { outages, storms }: Ran,
): StepOutcome[] {
  return times.map((at, i) => {
    const to = times[i + 1] ?? until;
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
