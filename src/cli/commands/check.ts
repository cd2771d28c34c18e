/** `knot-path check`. */
import type { Verb } from '../verb';
import { decidedText } from '../../core/model/decision';
import { decisionOn, openFirst } from '../../core/analysis/findings/decided';
import { findingsOf } from '../../core/analysis/findings/findings';
import { loadSolution } from '../input';

function runCheck(file: string, options: { json?: boolean }): void {
  const { design, solution } = loadSolution(file);
  const findings = findingsOf(design, solution);
  const { open, staying } = openFirst(design, findings);
  process.exitCode = open.length > 0 ? 1 : 0;
  const all = [...open, ...staying].map((finding) => ({ ...finding, decision: decisionOn(design, finding) }));
  if (options.json) process.stdout.write(`${JSON.stringify({ findings: all })}\n`);
  else if (findings.length === 0) process.stdout.write('no findings\n');
  else
    process.stdout.write(
      all
        .map(
          ({ rule, text, why, decision }) =>
            `${rule}: ${text}. ${why}${decision ? ` ${decidedText(decision).replace(/\.$/, '')}.` : ''}\n`,
        )
        .join(''),
    );
}

/** `knot-path check`. */
export const checkCommand: Verb = (program) =>
  void program
    .command('check')
    .description(
      'findings, with what was decided about each; exit code 1 where there are any but those that are to stay',
    )
    .argument('<file>', 'design document, - for standard input')
    .option('--json', 'as JSON')
    .action(runCheck);
