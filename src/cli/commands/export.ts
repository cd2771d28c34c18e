/** `knot-path export`. */
import { planChange } from '../../core/analysis/plans/changePlan';
import { counted } from '../../core/base/words';
import type { SettingsForm } from '../../core/exchange/settings/form';
import {
  FORMS,
  LEFT_OUT,
  leftOutText,
  settingsFiles,
  type NamedFile,
  type SwitchFiles,
} from '../../core/exchange/settings/forms';
import { templateKey } from '../../core/exchange/templates/atHand';
import { STEPS, stepFiles } from '../../core/exchange/settings/stepFiles';
import { CSV, csvTables, spreadsheetName, XLSX } from '../../core/exchange/tables/files';
import { tablesOf } from '../../core/exchange/tables/tables';
import { WHOLES, wholeFile } from '../../core/exchange/wholes';
import type { Design } from '../../core/model/document';
import type { SwitchId } from '../../core/model/ids';
import { loadDesign, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

interface Options {
  readonly as: string;
  readonly switch?: string[];
  readonly from?: string;
  readonly out: string;
  readonly force?: boolean;
}

async function runExport(file: string, options: Options): Promise<void> {
  const design = loadDesign(file);
  const whole = WHOLES.find(({ key }) => key === options.as);
  if (whole) {
    const { name, text } = wholeFile(design, whole);
    exportWhole(new Map([[name, text]]), options);
  } else if (options.as === CSV) exportWhole(new Map(csvTables(design).map(({ name, text }) => [name, text])), options);
  else if (options.as === XLSX)
    exportWhole(
      new Map([[spreadsheetName(design), await (await spreadsheets()).writeSpreadsheet(tablesOf(design))]]),
      options,
    );
  else exportSettings(design, await formCalled(design, options.as), file, options);
}

/** What only some ask for is loaded only then. */
const templates = () => import('../../core/exchange/templates/form');
const spreadsheets = () => import('../../core/exchange/tables/spreadsheet');

/** A form by its key; a template also by its name. */
async function formCalled(design: Design, asked: string): Promise<SettingsForm> {
  const plain = FORMS.find(({ key }) => key === asked);
  if (plain) return plain;
  const { formsOf } = await templates();
  const forms = formsOf(design);
  const form =
    forms.find(({ key }) => key === asked) ??
    forms.find(({ key, name }) => key.startsWith(templateKey('')) && templateKey(name) === asked);
  if (form) return form;
  throw new Unusable(
    `--as: found "${asked}"; allowed: ${[...forms, ...WHOLES].map(({ key }) => key).join(', ')}, ${CSV}, ${XLSX}`,
  );
}

/** Of the whole design: what is about switches or differences has no place there. */
function exportWhole(
  files: ReadonlyMap<string, string | Uint8Array>,
  { as, switch: only, from, out, force }: Options,
): void {
  for (const [option, given] of [
    ['--switch', only],
    ['--from', from],
  ] as const)
    if (given)
      throw new Unusable(`${option}: found with --as ${as}; allowed: with ${FORMS.map(({ key }) => key).join(', ')}`);
  writeAll(out, files, force === true);
  process.stdout.write(`${files.size === 1 ? [...files.keys()][0]! : counted(files.size, 'file')} in ${out}\n`);
}

function exportSettings(design: Design, form: SettingsForm, file: string, options: Options): void {
  const { switch: only, from, out, force = false } = options;
  const unknown = only?.find((id) => !design.switches.some((sw) => sw.id === id));
  if (unknown !== undefined)
    throw new Unusable(
      `--switch: found "${unknown}"; allowed: ${design.switches.map(({ id }) => id).join(', ') || 'none, since the design has no switch'}`,
    );
  const { files, leftOut, order } = written(() =>
    settingsToWrite(design, form, options.from, (only ?? null) as SwitchId[] | null, file),
  );
  if (files.length === 0) {
    process.stdout.write(
      `nothing to write: ${from === undefined ? 'there is no switch' : `nothing that ${form.name} can say differs`}\n`,
    );
    return;
  }
  const text = leftOutText(leftOut);
  const all = new Map(files.map((each) => [each.name, each.text]));
  writeAll(out, text === '' ? all : all.set(LEFT_OUT, text), force);
  const told = leftOut.reduce((sum, each) => sum + each.leftOut.length, 0);
  process.stdout.write(
    `${counted(files.length, 'file')} in ${out}${order}${told > 0 ? `; ${counted(told, 'thing')} that ${form.name} cannot say: ${LEFT_OUT}` : ''}\n`,
  );
}

/** A faulty template is told in one line. */
function written<T>(write: () => T): T {
  try {
    return write();
  } catch (error) {
    throw error instanceof Error && error.name === 'TemplateError' ? new Unusable(`--as: ${error.message}`) : error;
  }
}

interface ToWrite {
  readonly files: readonly NamedFile[];
  readonly leftOut: readonly Pick<SwitchFiles, 'of' | 'leftOut'>[];
  /** What is said of their order. */
  readonly order: string;
}

/** The whole; or, from another revision on, what differs, in the order of a plan where all switches are asked for. */
function settingsToWrite(
  design: Design,
  form: SettingsForm,
  from: string | undefined,
  only: readonly SwitchId[] | null,
  file: string,
): ToWrite {
  const before = from === undefined ? null : loadDesign(from);
  const plainly = (order: string): ToWrite => {
    const leftOut = settingsFiles(design, form, { only, from: before });
    return { files: leftOut.flatMap(({ files }) => files), leftOut, order };
  };
  if (!before || only) return plainly('');
  const change = planChange(before, design);
  if (!change.ok) return plainly(`; in no order: ${change.error}`);
  const { plan, judged } = change.value;
  const steps = stepFiles(before, plan, judged, form, `From ${from!} to ${file}`);
  if (!steps.ok) throw new Unusable(`--from ${from!}: ${steps.error}`);
  return { ...steps.value, order: `, in the order of their numbers: ${STEPS}` };
}

export const exportCommand: Verb = (program) =>
  void program
    .command('export')
    .description(
      'settings of the switches in an open form, a file for each, or the design as lines or a graph; all files are written or none',
    )
    .argument('<file>', 'design document, - for standard input')
    .requiredOption(
      '--as <form>',
      `${[...FORMS, ...WHOLES].map(({ key }) => key).join(', ')}, ${CSV}, ${XLSX}, or template:NAME`,
    )
    .option('--switch <id...>', 'these switches alone')
    .option('--from <revision>', 'what leads from this design document to the other one, in the order of a plan')
    .requiredOption('--out <directory>', 'where to write them; made where it is not there')
    .option('--force', 'replaces files of the same names')
    .action(runExport);
