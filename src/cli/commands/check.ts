/** `knot-path check`. */
import type { Verb } from '../verb';
import { findingsOf } from '../../core/analysis/findings/findings';
import { loadSolution } from '../input';

function runCheck(file: string, options: { json?: boolean }): void {
  const { design, solution } = loadSolution(file);
  const findings = findingsOf(design, solution);
  process.exitCode = findings.length > 0 ? 1 : 0;
  if (options.json) process.stdout.write(`${JSON.stringify({ findings })}\n`);
  else if (findings.length === 0) process.stdout.write('no findings\n');
  else process.stdout.write(findings.map((finding) => `${finding.rule}: ${finding.text}. ${finding.why}\n`).join(''));
}

/** `knot-path check`. */
export const checkCommand: Verb = (program) =>
  void program
    .command('check')
    .description('findings; exit code 1 where there are any')
    .argument('<file>', 'design document, - for standard input')
    .option('--json', 'as JSON')
    .action(runCheck);
