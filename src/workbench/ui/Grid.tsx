'use client';
/** The drawer's table: MUI's grid, dense, with the page's style nonce. */
import { means } from './means';
import {
  DataGrid,
  gridSortedRowIdsSelector,
  useGridApiRef,
  type DataGridProps,
  type GridColDef,
  type GridRowId,
  type GridValidRowModel,
} from '@mui/x-data-grid';
import { memo, useMemo, useRef, useState } from 'react';
import { useNonce } from './theme/nonce';
import { termText } from './words/terms';

interface Props<T extends GridValidRowModel> extends Pick<
  DataGridProps<T>,
  'rows' | 'columns' | 'aria-label' | 'processRowUpdate' | 'onProcessRowUpdateError' | 'isCellEditable'
> {
  /** Called with the row that was clicked, or whose cell Enter was pressed on; `more` with Ctrl or Shift. */
  readonly onOpen: (row: T, how: 'alone' | 'more') => void;
  /** Called with a key pressed on a cell; true where it was used up. */
  readonly onKey?: (row: T, field: string, key: string) => boolean;
  /** The rows that are selected. */
  readonly chosen?: ReadonlySet<string>;
}

function PlainGrid<T extends GridValidRowModel>({ onOpen, onKey, chosen, columns, ...props }: Props<T>) {
  const nonce = useNonce();
  const api = useGridApiRef();
  /** The row that was clicked last: Shift takes all between. */
  const last = useRef<GridRowId | null>(null);
  const [keepRows] = useState(rowKeeper<T>);
  const [keepColumns] = useState(columnKeeper<T>);
  const rows = useMemo(() => keepRows(props.rows ?? []), [keepRows, props.rows]);
  const wide = useMemo(() => keepColumns(columns, rows), [keepColumns, columns, rows]);
  return (
    <DataGrid
      apiRef={api}
      density="compact"
      rowHeight={30}
      columnHeaderHeight={32}
      hideFooter
      disableRowSelectionOnClick
      {...(nonce ? { nonce } : {})}
      {...props}
      rows={rows}
      columns={wide}
      {...(chosen
        ? { getRowClassName: ({ id }: { id: string | number }) => (chosen.has(String(id)) ? 'row-chosen' : '') }
        : {})}
      onRowClick={({ row, id }, event) => {
        const from = last.current;
        last.current = id;
        const between = event.shiftKey && chosen && from !== null ? rowsBetween(api, from, id) : null;
        if (!between) return onOpen(row, means(event));
        for (const each of between) if (!chosen!.has(String(each))) onOpen(api.current!.getRow<T>(each)!, 'more');
      }}
      onCellClick={(_, event) => event.shiftKey && globalThis.getSelection()?.removeAllRanges()}
      onCellKeyDown={({ row, field, cellMode, isEditable }, event) => {
        if (cellMode === 'edit' || event.ctrlKey || event.metaKey || event.altKey) return;
        if (onKey?.(row, field, event.key)) {
          event.preventDefault();
          event.defaultMuiPrevented = true; // or the grid would begin to edit
        } else if (event.key === 'Enter' && !isEditable) onOpen(row, means(event));
      }}
      sx={GRID_SX}
    />
  );
}

/** Rows that say the same as before stay the same values: they are not drawn again. */
function rowKeeper<T extends GridValidRowModel>(): (rows: readonly T[]) => readonly T[] {
  let before = new Map<unknown, T>();
  return (rows) => {
    before = new Map(
      rows.map((row) => {
        const old = before.get(row.id);
        return [row.id, old && alike(old, row) ? old : row];
      }),
    );
    // Rows without ids of their own are taken as they are.
    return before.size === rows.length ? [...before.values()] : rows;
  };
}

function alike(a: GridValidRowModel, b: GridValidRowModel): boolean {
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => Object.is(a[key], b[key]));
}

/** So do columns that are as wide as before: with others the whole grid is made anew. */
function columnKeeper<T extends GridValidRowModel>() {
  let before: { readonly columns: readonly GridColDef<T>[]; readonly wide: readonly GridColDef<T>[] } | null = null;
  return (columns: readonly GridColDef<T>[], rows: readonly T[]): readonly GridColDef<T>[] => {
    const wide = columns.map((column) => wideEnough(column, rows));
    const same =
      before?.columns === columns &&
      wide.every(({ width, minWidth }, i) => {
        const old = before!.wide[i]!;
        return old.width === width && old.minWidth === minWidth;
      });
    if (!same) before = { columns, wide };
    return before!.wide;
  };
}

/** The rows from one to another as they are sorted, both included; null where one is no longer there. */
function rowsBetween(api: ReturnType<typeof useGridApiRef>, from: GridRowId, to: GridRowId): GridRowId[] | null {
  const ids = gridSortedRowIdsSelector(api);
  const ends = [ids.indexOf(from), ids.indexOf(to)];
  return ends.includes(-1) ? null : ids.slice(Math.min(...ends), Math.max(...ends) + 1);
}

/** Of a heading: a character, and what stands beside it, with room for the arrow of a sorted column. */
const HEADING = { character: 6.6, rim: 22, arrow: 18 } as const;
/** Of a cell: a character, its rim, rows that are looked at, the widest that a text makes its column, and the steps in which it does. */
const CELL = { character: 7.2, rim: 22, looked: 400, most: 340, step: 12 } as const;

/** A column is as wide as its heading and the texts in its first rows need; its heading explains itself when it is pointed at. */
export function wideEnough<T extends GridValidRowModel>(bare: GridColDef<T>, rows: readonly T[]): GridColDef<T> {
  const says = termText(bare.headerName ?? '');
  const column = says && bare.description === undefined ? { ...bare, description: says } : bare;
  const heading =
    (column.headerName ?? '').length * HEADING.character +
    HEADING.rim +
    (column.sortable === false ? 0 : HEADING.arrow);
  if (column.flex !== undefined) return { ...column, minWidth: Math.max(column.minWidth ?? 50, Math.ceil(heading)) };
  // A cell that shows something else than its value says with its width how much room that takes.
  const plain = !column.renderCell && !column.valueFormatter && !column.valueGetter;
  const longest = plain ? Math.max(0, ...rows.slice(0, CELL.looked).map((row) => textLength(row[column.field]))) : 0;
  const text = Math.min(CELL.most, CELL.step * Math.ceil((longest * CELL.character + CELL.rim) / CELL.step));
  return { ...column, width: Math.max(Math.ceil(heading), longest > 0 ? text : (column.width ?? 100)) };
}

const textLength = (value: unknown): number =>
  typeof value === 'string' ? value.length : typeof value === 'number' ? String(value).length : 0;

const GRID_SX = {
  '& .MuiDataGrid-row': { cursor: 'pointer' },
  '& .row-chosen, & .row-chosen:hover': { background: 'var(--accent-wash)' },
  '& .MuiDataGrid-cell--editing input': { fontFamily: 'var(--mono)', fontSize: 13 },
};

/** Drawn again only when its rows or handlers are others: drawing a grid costs as much as drawing the map. */
export const Grid = memo(PlainGrid) as typeof PlainGrid;
