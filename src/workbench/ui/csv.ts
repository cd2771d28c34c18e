/** A table's rows as CSV, as its columns have them. */
import type { GridColDef, GridValidRowModel } from '@mui/x-data-grid';
import { writeCsv } from '../../core/exchange/csv';

/** The rows under their headings; columns without a value of their own hold buttons. Numbers are plain. */
export function csvOf<T extends GridValidRowModel>(columns: readonly GridColDef<T>[], rows: readonly T[]): string {
  const told = columns.filter(({ headerName, field }) => headerName && rows[0] && field in rows[0]);
  const textOf = (value: unknown): string =>
    typeof value === 'string' || typeof value === 'number' ? String(value) : '';
  return writeCsv(
    told.map(({ headerName }) => headerName!),
    rows.map((row) => told.map(({ field }) => textOf(row[field]))),
  );
}
