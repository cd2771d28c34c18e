/** Comma-separated values, by RFC 4180 and as spreadsheets vary it: semicolons, tabs or bars between, quotation marks around. */
import Papa from 'papaparse';
import { fail, ok, type Result } from '../result';

export interface Table {
  readonly columns: readonly string[];
  /** The rows' values by column name; `line` counts from 1, the heading included. */
  readonly rows: readonly { readonly line: number; readonly values: Readonly<Record<string, string>> }[];
}

/** Reads a table with a heading; the error is a sentence. */
export function readCsv(text: string): Result<Table, string> {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), { skipEmptyLines: false, delimitersToGuess: [',', ';', '\t', '|'] });
  const torn = errors.find((error) => error.type === 'Quotes');
  if (torn) return fail(`Line ${(torn.row ?? 0) + 1}: a quotation mark has no partner.`);
  const [heading, ...rest] = data;
  if (!heading || heading.every((cell) => cell.trim() === '')) return fail('The file is empty: a heading such as "switch,port,neighbour,neighbour port" is expected.');
  const columns = heading.map((cell) => cell.trim());
  const rows = rest.flatMap((cells, i) =>
    cells.every((cell) => cell.trim() === '') ? [] : [{ line: i + 2, values: Object.fromEntries(columns.map((column, j) => [column, (cells[j] ?? '').trim()])) }],
  );
  return ok({ columns, rows });
}

/** Writes a table; what a spreadsheet would take for a formula is made plain text. */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse({ fields: [...columns], data: rows.map((row) => [...row]) }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
