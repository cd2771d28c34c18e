/** How each intent stands: by the network as it is, or by what failures do to it. */
import { useMemo, useState } from 'react';
import type { Finding } from '../../core/analysis/findings/finding';
import type { FailureOutcome } from '../../core/analysis/failures/everyFailure';
import { failureText, type Failure } from '../../core/analysis/failures/failure';
import type { Way } from '../../core/analysis/intents/claim';
import { intentText } from '../../core/analysis/intents/intents';
import { namesOf } from '../../core/model/derive/names';
import type { Design, Intent } from '../../core/model/document';
import type { Beside } from './beside';
import { useFollowing } from './context';
import type { Failures } from './failures';
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
}

/** In the order of the design. */
export function standingsOf(design: Design, verdicts: Beside<Judged>, failures: Failures): Standing[] {
  const byId = new Map(verdicts.list.map((each) => [each.intent, each]));
  const names = namesOf(design);
  const outcomes = failures.found?.of === design ? failures.found.all.outcomes : null;
  return design.intents.map((intent): Standing => {
    const judged = byId.get(intent.id);
    const plain = {
      ...{ intent, text: intentText(design, intent), why: '', at: {}, way: null },
      ...{ failure: null, brokenBy: judged?.brokenBy ?? null },
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
        if (!outcomes) return { ...plain, is: 'waits', why: failures.kind === 'refused' ? failures.why : '' };
        const breaks = outcomes.filter(({ broken }) => broken.some((each) => each.intent === intent.id));
        const [first] = breaks;
        if (!first) return { ...plain, is: 'holds' };
        return { ...plain, is: 'broken', ...whyUnder(first, breaks.length, intent, names) };
      }
    }
  });
}

function whyUnder(
  { failure, broken }: FailureOutcome,
  count: number,
  intent: Intent,
  names: ReturnType<typeof namesOf>,
): Pick<Standing, 'why' | 'at' | 'failure'> {
  const { why, at } = broken.find((each) => each.intent === intent.id)!;
  const more = count === 1 ? '' : ` ${count - 1} more ${count === 2 ? 'failure breaks' : 'failures break'} it, too.`;
  return { why: `If ${failureText(failure, names)}: ${inside(why)}${more}`, at, failure };
}

/** How the intents of the present design stand. */
export function useStandings(): readonly Standing[] {
  const design = useFollowing((state) => state.design);
  const verdicts = useFollowing((state) => state.verdicts);
  const failures = useFollowing((state) => state.failures);
  const present = useFollowing((state) => state.looking.kind === 'present');
  const now = useMemo(
    () => (present ? standingsOf(design, verdicts, failures) : null),
    [present, design, verdicts, failures],
  );
  // While another state is looked at, those of the present stay.
  const [kept, keep] = useState<readonly Standing[]>([]);
  if (now && now !== kept) keep(now);
  return now ?? kept;
}

/** A sentence that goes on after a colon. */
const inside = (why: string): string => why.replace(/^(The|In) /, (word) => word.toLowerCase());
