/** A report as a question: the way from an earlier revision, every failure, then the page itself. */
import { joined } from '../../../core/analysis/failures/everyFailure';
import { failuresOf } from '../../../core/analysis/failures/failure';
import { fail, ok, type Result } from '../../../core/base/result';
import { CHAPTERS } from '../../../core/exchange/report/chapters';
import { reportHtml, type Wanted } from '../../../core/exchange/report/html';
import type { Earlier, Subject } from '../../../core/exchange/report/report';
import type { Design } from '../../../core/model/document';
import { solve } from '../../../core/tree/solve';
import { cssOfPage } from '../../map/picture/save';
import type { Ask, Asked } from '../../state/ask';
import { askChange, askEveryFailure } from '../../state/questions';

interface ReportOn {
  readonly design: Design;
  readonly revision: number | null;
  readonly wanted: readonly Wanted[];
  readonly before: { readonly label: string; readonly design: Design } | null;
}

/** Answers with the text of an HTML file. */
export const askReport = ({ design, revision, wanted, before }: ReportOn): Ask<string> => ({
  of: design,
  begin(tell) {
    let running: Asked<unknown> | null = null;
    let stopped = false;
    const part = async <T>(ask: Ask<T>, from: number, to: number): Promise<Result<T, string>> => {
      if (stopped) return fail('Stopped.');
      const asked = ask.begin((share) => tell(from + share * (to - from)));
      running = asked;
      return asked.found;
    };
    const has = (fact: 'ofChange' | 'ofFailures'): boolean =>
      wanted.some(({ chapter }) => CHAPTERS.find(({ key }) => key === chapter)?.[fact]);
    const found = async (): Promise<Result<string, string>> => {
      let earlier: Earlier | null = null;
      if (before) {
        const change = has('ofChange') ? await part(askChange(before.design, design, {}), 0, 0.4) : fail('');
        if (stopped) return fail('Stopped.');
        earlier = { ...before, change: change.ok ? change.value : change.error };
      }
      let failures: Subject['failures'] = null;
      if (has('ofFailures')) {
        const outcomes = await part(askEveryFailure(design, failuresOf(solve(design))), 0.4, 0.9);
        if (!outcomes.ok) return outcomes;
        failures = joined(outcomes.value.pieces);
      }
      const [{ drawer }, css] = await Promise.all([import('../../map/picture/drawer'), cssOfPage(':root', false)]);
      if (stopped) return fail('Stopped.');
      const subject = { design, revision, at: new Date().toISOString(), before: earlier, failures };
      return ok(reportHtml(subject, wanted, drawer(design, before?.design ?? null), css));
    };
    return {
      found: found(),
      stop() {
        stopped = true;
        running?.stop();
      },
    };
  },
});
