/** `knot-path report`. */
import path from 'node:path';
import { everyFailure } from '../../core/analysis/failures/everyFailure';
import { planChange } from '../../core/analysis/plans/changePlan';
import { CHAPTERS } from '../../core/exchange/report/chapters';
import { reportHtml, wholeReport, type Wanted } from '../../core/exchange/report/html';
import type { Earlier } from '../../core/exchange/report/report';
import type { Design } from '../../core/model/document';
import { solve } from '../../core/tree/solve';
import { FONT_FACES } from '../fonts';
import { loadDesign, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

interface Options {
  readonly output: string;
  readonly chapters?: string;
  readonly from?: string;
  readonly force?: boolean;
}

async function runReport(file: string, { output, chapters, from, force = false }: Options): Promise<void> {
  const design = loadDesign(file);
  const before = from === undefined ? null : earlier(loadDesign(from), design, path.basename(from));
  const wanted = chapters === undefined ? asKept(design, before) : named(chapters);
  const solution = solve(design);
  const asks = wanted.some(({ chapter }) => CHAPTERS.find(({ key }) => key === chapter)?.ofFailures);
  const subject = {
    design,
    revision: null,
    at: new Date().toISOString(),
    before,
    failures: asks ? everyFailure(solution) : null,
  };
  const { drawer } = await import('../../workbench/map/picture/drawer');
  const { pageTokens } = await import('../../workbench/map/picture/svgText');
  const html = reportHtml(
    subject,
    wanted,
    drawer(design, before?.design ?? null),
    `${FONT_FACES}${pageTokens(TOKENS)}`,
  );
  writeAll(path.dirname(output), new Map([[path.basename(output), html]]), force);
}

function earlier(before: Design, design: Design, label: string): Earlier {
  const change = planChange(before, design);
  return { label, design: before, change: change.ok ? change.value : change.error };
}

/** The chapters that the design has been given, else all. */
const asKept = (design: Design, before: Earlier | null): readonly Wanted[] =>
  design.report ?? wholeReport(before !== null);

function named(list: string): Wanted[] {
  return list.split(',').map((key) => {
    if (!CHAPTERS.some((chapter) => chapter.key === key))
      throw new Unusable(`--chapters: found "${key}"; allowed: ${CHAPTERS.map((chapter) => chapter.key).join(', ')}`);
    return { chapter: key, note: '' };
  });
}

export const reportCommand: Verb = (program) =>
  void program
    .command('report')
    .description('a report of the design as one HTML file that prints well and needs nothing from outside')
    .argument('<file>', 'design document, - for standard input')
    .requiredOption('-o, --output <file>', 'where to write it')
    .option('--chapters <list>', `in this order, with commas between: ${CHAPTERS.map(({ key }) => key).join(',')}`)
    .option('--from <revision>', 'an earlier state of the design: what has changed since, and the way from there')
    .option('--force', 'replaces a file of that name')
    .action(runReport);
