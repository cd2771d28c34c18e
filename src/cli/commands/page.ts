/** `knot-path page`. */
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { pageHtml } from '../../core/exchange/page';
import { loadDesign, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

/** Beside the command line, as it was built. */
const PARTS = path.join(__dirname, '../page');

function writePage(
  file: string,
  { output, force = false }: { readonly output: string; readonly force?: boolean },
): void {
  const design = loadDesign(file);
  if (!existsSync(PARTS)) throw new Unusable('the page is not built: npm start builds it');
  const part = (name: string): string => readFileSync(path.join(PARTS, name), 'utf8');
  const html = pageHtml(design, null, { script: part('page.js'), style: part('page.css') });
  writeAll(path.dirname(output), new Map([[path.basename(output), html]]), force);
}

export const pageCommand: Verb = (program) =>
  void program
    .command('page')
    .description('the design as one HTML file to look at: the map, trees and tables, live, without a server')
    .argument('<file>', 'design document, - for standard input')
    .requiredOption('-o, --output <file>', 'where to write it')
    .option('--force', 'replaces a file of that name')
    .action(writePage);
