/** Spreadsheet files (Office Open XML, ECMA-376): each table a sheet of its own; what looks like a formula is text, in both directions. */
import readXlsx from 'read-excel-file/universal';
import writeXlsx from 'write-excel-file/universal';
import { fail, ok, type Result } from '../../base/result';
import { MOST } from '../csv';
import type { Cell } from './cells';
import type { Sheet } from './readBack';
import type { DesignTable } from './table';

/** What such a file is called by browsers. */
export const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** Widest column, in characters. */
const WIDEST = 40;

/** The octets of a file with these tables. */
export async function writeSpreadsheet(tables: readonly DesignTable[]): Promise<Uint8Array<ArrayBuffer>> {
  const sheets = tables.map(({ name, columns, rows }) => ({
    sheet: name,
    stickyRowsCount: 1,
    columns: columns.map(({ head }, c) => ({
      width: Math.min(
        WIDEST,
        2 + rows.reduce((most, { cells }) => Math.max(most, String(cells[c] ?? '').length), head.length),
      ),
    })),
    data: [
      columns.map(({ head }) => ({ value: head, type: String, fontWeight: 'bold' as const })),
      ...rows.map(({ cells }) => columns.map((_, c) => written(cells[c] ?? null))),
    ],
  }));
  const file = writeXlsx(sheets);
  return new Uint8Array(await (await file.toBlob()).arrayBuffer());
}

/** Characters that XML has no place for are left away. */
const written = (cell: Cell) =>
  typeof cell === 'number'
    ? { value: cell, type: Number }
    : cell === null
      ? null
      : // eslint-disable-next-line no-control-regex -- they are what is taken out
        { value: String(cell).replaceAll(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, ''), type: String };

/** Reads every sheet; of a formula what it came to when the file was saved. The error is a sentence. */
export async function readSpreadsheet(octets: Uint8Array<ArrayBuffer>): Promise<Result<Sheet[], string>> {
  try {
    const sheets = await readXlsx(new Blob([octets]));
    const large = sheets.find(({ data }) => data.length > MOST.lines || data.some((row) => row.length > MOST.columns));
    if (large)
      return fail(
        `The sheet ${large.sheet} is too large: ${MOST.lines} lines of ${MOST.columns} columns are the limit.`,
      );
    return ok(sheets.map(({ sheet, data }) => ({ name: sheet, rows: data.map((row) => row.map(cellRead)) })));
  } catch {
    return fail('This is no spreadsheet file that can be read.');
  }
}

const cellRead = (value: unknown): Cell =>
  value === null || value === undefined
    ? null
    : typeof value === 'number' || typeof value === 'boolean'
      ? value
      : value instanceof Date
        ? value.toISOString().slice(0, 10)
        : String(value as string);
