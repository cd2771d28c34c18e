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
import { memo, useMemo, useRef } from 'react';
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
  const wide = useMemo(() => columns.map(withWholeHeading), [columns]);
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

/** The rows from one to another as they are sorted, both included; null where one is no longer there. */
function rowsBetween(api: ReturnType<typeof useGridApiRef>, from: GridRowId, to: GridRowId): GridRowId[] | null {
  const ids = gridSortedRowIdsSelector(api);
  const ends = [ids.indexOf(from), ids.indexOf(to)];
  return ends.includes(-1) ? null : ids.slice(Math.min(...ends), Math.max(...ends) + 1);
}

/** Of a heading: a character, and what stands beside it, with room for the arrow of a sorted column. */
const HEADING = { character: 6.6, rim: 22, arrow: 18 } as const;

/** A column is never too narrow for its heading, and its heading explains itself when it is pointed at. */
function withWholeHeading<T extends GridValidRowModel>(bare: GridColDef<T>): GridColDef<T> {
  const says = termText(bare.headerName ?? '');
  const column = says && bare.description === undefined ? { ...bare, description: says } : bare;
  const least =
    (column.headerName ?? '').length * HEADING.character +
    HEADING.rim +
    (column.sortable === false ? 0 : HEADING.arrow);
  return column.flex === undefined
    ? { ...column, width: Math.max(column.width ?? 100, Math.ceil(least)) }
    : { ...column, minWidth: Math.max(column.minWidth ?? 50, Math.ceil(least)) };
}

const GRID_SX = {
  '& .MuiDataGrid-row': { cursor: 'pointer' },
  '& .row-chosen, & .row-chosen:hover': { background: 'var(--accent-wash)' },
  '& .MuiDataGrid-cell--editing input': { fontFamily: 'var(--mono)', fontSize: 13 },
};

/** Drawn again only when its rows or handlers are others: drawing a grid costs as much as drawing the map. */
export const Grid = memo(PlainGrid) as typeof PlainGrid;
