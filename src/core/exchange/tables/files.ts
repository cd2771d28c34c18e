/** Tables as files: a CSV file each, or all of them as sheets of one spreadsheet. */
import { fileStemOf } from '../../model/derive/write';
import type { Design } from '../../model/document';
import { ok, type Result } from '../../base/result';
import { readCsv, writeCsv } from '../csv';
import { decodeText } from '../text';
import type { Sheet } from './readBack';
import type { DesignTable } from './table';
import { tablesOf } from './tables';

/** In commands and addresses. */
export const CSV = 'csv';
export const XLSX = 'xlsx';

export const csvText = ({ columns, rows }: DesignTable): string =>
  writeCsv(
    columns.map(({ head }) => head),
    rows.map(({ cells }) => cells.map((cell) => String(cell ?? ''))),
  );

/** `cables.csv` and so on. */
export const csvTables = (design: Design): { readonly name: string; readonly text: string }[] =>
  tablesOf(design).map((table) => ({ name: `${table.key}.csv`, text: csvText(table) }));

export const spreadsheetName = (design: Design): string => `${fileStemOf(design)}.xlsx`;

/** What zip archives begin with, which spreadsheet files are. */
const ZIP = [0x50, 0x4b];

/** The tables in a file, whichever of the two it is; the error is a sentence. */
export async function sheetsIn(name: string, octets: Uint8Array<ArrayBuffer>): Promise<Result<Sheet[], string>> {
  if (ZIP.every((octet, i) => octets[i] === octet)) {
    // Loaded by those alone who read or write one.
    const { readSpreadsheet } = await import('./spreadsheet');
    return readSpreadsheet(octets);
  }
  const text = decodeText(octets);
  if (!text.ok) return text;
  const table = readCsv(text.value);
  if (!table.ok) return table;
  const { columns, rows } = table.value;
  // Where lines are empty, what follows keeps its number.
  const last = rows.at(-1)?.line ?? 1;
  const sheet: (readonly string[])[] = Array.from({ length: last }, () => []);
  sheet[0] = columns;
  for (const { line, values } of rows) sheet[line - 1] = columns.map((column) => values[column] ?? '');
  return ok([{ name, rows: sheet }]);
}
