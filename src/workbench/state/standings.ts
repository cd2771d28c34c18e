/** How each intent stands: by the network as it is, or by what failures do to it. */
import { useMemo, useState } from 'react';
import type { Finding } from '../../core/analysis/findings/finding';
import { failureText, type Failure } from '../../core/analysis/failures/failure';
import { brokenInRuns, type Break } from '../../core/analysis/failures/timed';
import type { Way } from '../../core/analysis/intents/claim';
import { intentText, readIntent } from '../../core/analysis/intents/intents';
import { namesOf } from '../../core/model/derive/names';
import type { Intent } from '../../core/model/document';
import type { Solution } from '../../core/tree/settled';
import type { Beside } from './beside';
import { useFollowing, useWorkbench } from './context';
import type { FailureRuns, Failures } from './failures';
import type { Judged } from './verdicts';

export interface Standing {
  readonly intent: Intent;
  /** In words, with names. */
  readonly text: string;
  /** `waits`: it is being worked out. */
  readonly is: 'holds' | 'broken' | 'waits' | 'unreadable';
  readonly why: string;
  readonly at: Finding['at'];
  readonly way: Way | null;
  readonly brokenBy: string | null;
  /** The failure that breaks it, where one does. */
  readonly failure: Failure | null;
  /** It is about the time that this takes. */
  readonly timed: boolean;
}

/** In the order of the design. */
export function standingsOf(
  solution: Solution,
  verdicts: Beside<Judged>,
  failures: Failures,
  runs: FailureRuns,
  design = solution.network.design,
): Standing[] {
  const byId = new Map(verdicts.list.map((each) => [each.intent, each]));
  const names = namesOf(design);
  return design.intents.map((intent): Standing => {
    const judged = byId.get(intent.id);
    const plain = {
      ...{ intent, text: intentText(design, intent), why: '', at: {}, way: null },
      ...{ failure: null, timed: false, brokenBy: judged?.brokenBy ?? null },
    };
    if (!judged) return { ...plain, is: 'waits' };
    const { verdict } = judged;
    switch (verdict.is) {
      case 'holds':
        return { ...plain, is: 'holds' };
      case 'broken':
        return { ...plain, is: 'broken', why: verdict.why, at: verdict.at, way: verdict.way };
      case 'unreadable':
        return { ...plain, is: 'unreadable', why: verdict.why };
      case 'later': {
        const meant = readIntent(design, intent.line, true);
        const timed = meant.ok && meant.value.claim.judgeRun ? meant.value : null;
        const from = timed ? runs : failures;
        if (from.found?.of !== design) return { ...plain, is: 'waits', why: from.kind === 'refused' ? from.why : '' };
        const breaks = timed
          ? brokenInRuns(solution, timed, runs.found!.all.runs)
          : failures.found!.all.outcomes.flatMap(({ failure, broken }) => {
              const breach = broken.find((each) => each.intent === intent.id);
              return breach ? [{ failure, breach }] : [];
            });
        const [first] = breaks;
        if (first) return { ...plain, is: 'broken', timed: timed !== null, ...whyUnder(first, breaks.length, names) };
        const gap = timed ? (runs.found!.all.refused[0] ?? null) : null;
        if (!from.found.whole || gap !== null)
          return { ...plain, is: 'waits', why: gap ?? 'Stopped before every failure was tried.' };
        return { ...plain, is: 'holds' };
      }
    }
  });
}

function whyUnder(
  { failure, breach: { why, at } }: Break,
  count: number,
  names: ReturnType<typeof namesOf>,
): Pick<Standing, 'why' | 'at' | 'failure'> {
  const more = count === 1 ? '' : ` ${count - 1} more ${count === 2 ? 'failure breaks' : 'failures break'} it, too.`;
  return { why: `If ${failureText(failure, names)}: ${inside(why)}${more}`, at, failure };
}

/** How the intents of the present design stand. */
export function useStandings(): readonly Standing[] {
  const solution = useFollowing((state) => state.solution);
  const design = useFollowing((state) => state.design);
  const verdicts = useFollowing((state) => state.verdicts);
  const failures = useFollowing((state) => state.failures);
  const runs = useFollowing((state) => state.runs);
  const present = useFollowing((state) => state.looking.kind === 'present');
  const now = useMemo(
    () => (present && solution ? standingsOf(solution, verdicts, failures, runs, design) : null),
    [present, solution, verdicts, failures, runs, design],
  );
  // While another state is looked at, those of the present stay.
  const [kept, keep] = useState<readonly Standing[]>([]);
  if (now && now !== kept) keep(now);
  return now ?? kept;
}

/** A sentence that goes on after a colon. */
const inside = (why: string): string => why.replace(/^(The|In) /, (word) => word.toLowerCase());

/** How far what intents wait for is, 0 to 1; null while nothing is worked out. */
export function useWaiting(): number | null {
  return useWorkbench(({ failures, runs }) => {
    const busy = [failures, runs].filter(({ kind }) => kind === 'busy');
    return busy.length === 0 ? null : Math.min(...busy.map(({ share }) => share));
  });
}
