/** Comma-separated values, by RFC 4180 and as spreadsheets vary it: semicolons, tabs or bars between, quotation marks around. */
import Papa from 'papaparse';
import { fail, ok, type Result } from '../base/result';

export interface Table {
  readonly columns: readonly string[];
  /** The rows' values by column name; `line` counts from 1, the heading included. */
  readonly rows: readonly { readonly line: number; readonly values: Readonly<Record<string, string>> }[];
}

/** Most columns and lines of a table. */
export const MOST = { columns: 200, lines: 50_000 } as const;

/** Reads a table with a heading; the error is a sentence. */
export function readCsv(text: string): Result<Table, string> {
  const heads = headingOf(text);
  if (heads > MOST.columns) return fail(`The heading has ${heads} columns; ${MOST.columns} is the limit.`);
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), {
    skipEmptyLines: false,
    delimitersToGuess: [',', ';', '\t', '|'],
    preview: MOST.lines + 2,
  });
  if (data.length > MOST.lines + 1)
    return fail(`The table has more than ${MOST.lines} lines under its heading; that is the limit.`);
  const torn = errors.find((error) => error.type === 'Quotes');
  if (torn) return fail(`Line ${(torn.row ?? 0) + 1}: a quotation mark has no partner.`);
  const [heading, ...rest] = data;
  if (!heading || heading.every((cell) => cell.trim() === ''))
    return fail('The file is empty: a heading such as "switch,port,neighbour,neighbour port" is expected.');
  const columns = heading.map((cell) => cell.trim());
  const rows = rest.flatMap((cells, i) =>
    cells.slice(0, columns.length).every((cell) => cell.trim() === '')
      ? []
      : [{ line: i + 2, values: Object.fromEntries(columns.map((column, j) => [column, plain(cells[j] ?? '')])) }],
  );
  return ok({ columns, rows });
}

/** A cell as it was before `writeCsv` kept a spreadsheet from taking it for a formula. */
const plain = (cell: string): string => cell.trim().replace(/^'(?=[=+\-@\t\r])/, '');

/** About how many columns the first line has, before anything is taken apart. */
function headingOf(text: string): number {
  const end = text.search(/[\r\n]/);
  const line = end < 0 ? text : text.slice(0, end);
  let most = 0;
  for (const delimiter of [',', ';', '\t', '|']) {
    let count = 1;
    for (let at = line.indexOf(delimiter); at >= 0; at = line.indexOf(delimiter, at + 1)) count += 1;
    most = Math.max(most, count);
  }
  return most;
}

/** Writes a table; what a spreadsheet would take for a formula is made plain text. */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse({ fields: [...columns], data: rows.map((row) => [...row]) }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
