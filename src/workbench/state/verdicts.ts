/** Verdicts on intents, with the change that broke those that held before it. */
import type { Verdict } from '../../core/analysis/intents/intents';

export interface Judged {
  readonly intent: string;
  readonly verdict: Verdict;
  /** What was done when it broke; null where it holds, or was broken already when the page was opened. */
  readonly brokenBy: string | null;
}

/** `label`: what was done last. */
export function judgedSince(
  before: readonly Judged[],
  now: readonly (readonly [intent: string, Verdict])[],
  label: string | null,
): Judged[] {
  const known = new Map(before.map((each) => [each.intent, each]));
  return now.map(([intent, verdict]) => {
    const was = known.get(intent);
    const brokenBy = verdict.is !== 'broken' ? null : was?.verdict.is === 'holds' ? label : (was?.brokenBy ?? null);
    return { intent, verdict, brokenBy };
  });
}
