/** `knot-path prove`. */
import type { Verb } from '../verb';
import { everyFailure, watchedIn } from '../../core/analysis/failures/everyFailure';
import { failureText, failuresOf } from '../../core/analysis/failures/failure';
import { runFailure } from '../../core/analysis/failures/outages';
import { brokenInRuns } from '../../core/analysis/failures/timed';
import { intentText, judged } from '../../core/analysis/intents/intents';
import { Settled } from '../../core/analysis/intents/settled';
import { namesOf } from '../../core/model/derive/names';
import { loadSolution } from '../input';

interface Proved {
  readonly intent: string;
  readonly severity: string;
  readonly holds: boolean;
  /** Why it does not; of one held against failures, the failure too, each that breaks it. */
  readonly why: readonly string[];
}

function runProve(file: string, options: { json?: boolean }): void {
  const { design, solution } = loadSolution(file);
  const verdicts = judged(new Settled(solution), design.intents);
  const watched = watchedIn(design);
  const kinds = [...new Set(watched.flatMap(({ meant }) => meant.whatever ?? []))];
  const outcomes = kinds.length === 0 ? [] : everyFailure(solution, failuresOf(solution, kinds)).outcomes;
  const timed = new Map(watched.flatMap(({ id, meant }) => (meant.claim.judgeRun ? [[id, meant] as const] : [])));
  const run = failuresOf(
    solution,
    [...timed.values()].flatMap(({ whatever }) => whatever ?? []),
  ).map((failure) => runFailure(design, failure));
  const runs = run.flatMap((each) => (each.ok ? [each.value] : []));
  const refused = run.flatMap((each) => (each.ok ? [] : [each.error]));
  const names = namesOf(design);
  const proved = design.intents.map((intent): Proved => {
    const verdict = verdicts.get(intent.id)!;
    const meant = timed.get(intent.id);
    const why = meant
      ? [
          ...refused,
          ...brokenInRuns(solution, meant, runs).map(
            ({ failure, breach }) => `if ${failureText(failure, names)}: ${breach.why}`,
          ),
        ]
      : verdict.is === 'later'
        ? outcomes.flatMap(({ failure, broken }) =>
            broken
              .filter((each) => each.intent === intent.id)
              .map((each) => `if ${failureText(failure, names)}: ${each.why}`),
          )
        : 'why' in verdict
          ? [verdict.why]
          : [];
    return { intent: intentText(design, intent), severity: intent.severity, holds: why.length === 0, why };
  });
  process.exitCode = proved.some(({ holds, severity }) => !holds && severity === 'must') ? 1 : 0;
  if (options.json) process.stdout.write(`${JSON.stringify({ intents: proved })}\n`);
  else if (proved.length === 0) process.stdout.write('no intents\n');
  else
    for (const { intent, severity, holds, why } of proved)
      process.stdout.write(
        `${holds ? 'holds' : `broken (${severity})`}: ${intent}\n${why.map((text) => `  ${text}\n`).join('')}`,
      );
}

/** `knot-path prove`. */
export const proveCommand: Verb = (program) =>
  void program
    .command('prove')
    .description('whether the intents hold, whatever fails included; exit code 1 where a must does not')
    .argument('<file>', 'design document, - for standard input')
    .option('--json', 'as JSON')
    .action(runProve);
