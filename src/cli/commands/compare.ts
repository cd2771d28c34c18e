/** `knot-path compare`. */
import { counted } from '../../core/base/words';
import { compareObserved } from '../../core/exchange/observation/compare/compare';
import { differenceText } from '../../core/exchange/observation/compare/difference';
import { namesOf } from '../../core/model/derive/names';
import { loadObservation, loadSolution } from '../input';
import type { Verb } from '../verb';

function runCompare(file: string, observed: string, options: { readonly json?: boolean }): void {
  const { design, solution } = loadSolution(file);
  const comparison = compareObserved(solution, loadObservation(observed));
  const { differences, compared, matches } = comparison;
  process.exitCode = differences.length > 0 ? 1 : 0;
  if (options.json) {
    process.stdout.write(`${JSON.stringify({ compared, differences })}\n`);
    return;
  }
  const names = namesOf(design);
  for (const difference of differences)
    process.stdout.write(`${difference.harm}: ${differenceText(names, difference)}\n`);
  process.stdout.write(
    `${counted(matches.pairs.length, 'switch', 'switches')} held against the design, ${counted(compared, 'thing')} compared: ${
      differences.length === 0 ? 'all as designed' : counted(differences.length, 'difference')
    }.\n`,
  );
}

export const compareCommand: Verb = (program) =>
  void program
    .command('compare')
    .description(
      'holds the design against what its network tells: differences, the worst first; exit code 1 where there are any',
    )
    .argument('<design>', 'design document, - for standard input')
    .argument('<observation>', 'file that observe has written')
    .option('--json', 'as JSON')
    .action(runCompare);
