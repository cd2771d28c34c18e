/** `knot-path draw`: a design of its own from an observation. */
import path from 'node:path';
import { counted } from '../../core/base/words';
import { differenceText } from '../../core/exchange/observation/compare/difference';
import { predict } from '../../core/exchange/observation/predict';
import { namesOf } from '../../core/model/derive/names';
import { writeDesign } from '../../core/model/derive/write';
import { loadObservation, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

interface Options {
  readonly output: string;
  readonly force?: boolean;
}

function runDraw(file: string, { output, force = false }: Options): void {
  const made = predict(loadObservation(file));
  if (!made.ok) throw new Unusable(`${file}: ${made.error}`);
  const { design, doubts, differences, asks, compared } = made.value;
  writeAll(path.dirname(output), new Map([[path.basename(output), writeDesign(design)]]), force);
  const names = namesOf(design);
  for (const doubt of doubts) process.stdout.write(`in doubt: ${doubt}\n`);
  for (const each of differences) process.stdout.write(`told otherwise: ${differenceText(names, each)}\n`);
  for (const ask of asks) process.stdout.write(`to ask for: ${ask}\n`);
  process.stdout.write(
    `${counted(design.switches.length, 'switch', 'switches')} and ${counted(design.links.length, 'cable')} drawn; what their settings come to was held against what they say, ${counted(compared, 'thing')}: ${
      differences.length === 0 ? 'the same' : counted(differences.length, 'difference')
    }.\n`,
  );
}

export const drawCommand: Verb = (program) =>
  void program
    .command('draw')
    .description('draws a design from what its network tells, and says what is in doubt and what is told otherwise')
    .argument('<observation>', 'file that observe has written')
    .requiredOption('-o, --output <file>', 'where to write the design')
    .option('--force', 'replaces a file of that name')
    .action(runDraw);
