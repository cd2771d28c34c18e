/** `knot-path export`. */
import { Option } from 'commander';
import { FORMS, leftOutText, settingsFiles } from '../../core/exchange/settings/forms';
import { WHOLES, wholeFile } from '../../core/exchange/wholes';
import type { SwitchId } from '../../core/model/ids';
import { loadDesign, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

interface Options {
  readonly as: string;
  readonly switch?: string[];
  readonly out: string;
  readonly force?: boolean;
}

/** The file that says what a form cannot. */
const LEFT_OUT = 'left-out.txt';

function runExport(file: string, { as, switch: only, out, force = false }: Options): void {
  const design = loadDesign(file);
  const whole = WHOLES.find(({ key }) => key === as);
  if (whole) {
    if (only)
      throw new Unusable(`--switch: found with --as ${as}; allowed: with ${FORMS.map(({ key }) => key).join(', ')}`);
    const { name, text } = wholeFile(design, whole);
    writeAll(out, new Map([[name, text]]), force);
    process.stdout.write(`${name} in ${out}\n`);
    return;
  }
  const form = FORMS.find(({ key }) => key === as)!;
  const unknown = only?.find((id) => !design.switches.some((sw) => sw.id === id));
  if (unknown !== undefined)
    throw new Unusable(
      `--switch: found "${unknown}"; allowed: ${design.switches.map(({ id }) => id).join(', ') || 'none, since the design has no switch'}`,
    );
  const files = settingsFiles(design, form, (only ?? null) as SwitchId[] | null);
  const leftOut = leftOutText(files);
  const all = new Map(files.map(({ name, text }) => [name, text]));
  writeAll(out, leftOut === '' ? all : all.set(LEFT_OUT, leftOut), force);
  const told = files.reduce((sum, each) => sum + each.leftOut.length, 0);
  process.stdout.write(
    `${files.length} ${files.length === 1 ? 'file' : 'files'} in ${out}${told > 0 ? `; ${told} ${told === 1 ? 'thing' : 'things'} that ${form.name} cannot say: ${LEFT_OUT}` : ''}\n`,
  );
}

export const exportCommand: Verb = (program) =>
  void program
    .command('export')
    .description(
      'settings of the switches in an open form, a file for each, or the design as lines or a graph; all files are written or none',
    )
    .argument('<file>', 'design document, - for standard input')
    .addOption(
      new Option('--as <form>', 'the form').choices([...FORMS, ...WHOLES].map(({ key }) => key)).makeOptionMandatory(),
    )
    .option('--switch <id...>', 'these switches alone')
    .requiredOption('--out <directory>', 'where to write them; made where it is not there')
    .option('--force', 'replaces files of the same names')
    .action(runExport);
