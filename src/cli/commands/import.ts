/** `knot-path import`: tables that were saved and changed, read back into their design. */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { counted } from '../../core/base/words';
import { sheetsIn } from '../../core/exchange/tables/files';
import { cellFaultText, readTables, type Sheet } from '../../core/exchange/tables/readBack';
import { MAX_FILE, tooLarge } from '../../core/exchange/text';
import { sentences } from '../../core/analysis/plans/judge';
import { writeDesign } from '../../core/model/derive/write';
import { loadDesign, Unusable } from '../input';
import { writeAll } from '../output';
import type { Verb } from '../verb';

interface Options {
  readonly into: string;
  readonly out?: string;
  readonly force?: boolean;
}

async function runImport(from: string, { into, out, force = false }: Options): Promise<void> {
  const design = loadDesign(into);
  const sheets: Sheet[] = [];
  for (const file of filesIn(from)) {
    const read = await sheetsIn(path.basename(file), octetsOf(file));
    if (!read.ok) throw new Unusable(`${file}: ${read.error}`);
    sheets.push(...read.value);
  }
  const { design: changed, faults, passed } = readTables(design, sheets);
  for (const sentence of passed) process.stderr.write(`knot-path: ${sentence}\n`);
  if (faults.length > 0) {
    for (const fault of faults) process.stdout.write(`${cellFaultText(fault)}\n`);
    throw new Unusable(`${from}: ${counted(faults.length, 'cell')} cannot be read; nothing is changed`);
  }
  const changes = changed === design ? [] : sentences(design, changed);
  for (const change of changes) process.stdout.write(`${change}\n`);
  process.stdout.write(
    `${counted(changes.length, 'change')}${out === undefined ? '; --out FILE writes the design with them' : ` in ${out}`}\n`,
  );
  if (out !== undefined) writeAll(path.dirname(out), new Map([[path.basename(out), writeDesign(changed)]]), force);
}

/** A file, or the tables of a directory in the order of their names. */
function filesIn(from: string): string[] {
  if (!existsSync(from)) throw new Unusable(`${from}: is not there`);
  if (!statSync(from).isDirectory()) return [from];
  const files = readdirSync(from)
    .filter((name) => /\.(csv|xlsx)$/i.test(name))
    .sort()
    .map((name) => path.join(from, name));
  if (files.length === 0) throw new Unusable(`${from}: found no table; allowed: files that end with .csv or .xlsx`);
  return files;
}

function octetsOf(file: string): Uint8Array<ArrayBuffer> {
  const { size } = statSync(file);
  if (size > MAX_FILE) throw new Unusable(`${file}: ${tooLarge(size)}`);
  return new Uint8Array(readFileSync(file));
}

export const importCommand: Verb = (program) =>
  void program
    .command('import')
    .description(
      'reads tables back that export wrote and people have changed, as edits of their design; tells them, writes the design with --out',
    )
    .argument('<tables>', 'a .csv or .xlsx file, or a directory of them')
    .requiredOption('--into <design>', 'the design document whose switches, ports and cables they name')
    .option('--out <file>', 'where to write the changed design')
    .option('--force', 'replaces a file of that name')
    .action(runImport);
