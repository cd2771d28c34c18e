'use client';
/** The drawer's table: MUI's grid, dense, with the page's style nonce. */
import { DataGrid, type DataGridProps, type GridValidRowModel } from '@mui/x-data-grid';
import { memo } from 'react';
import { means } from '../state/selection';
import { useNonce } from '../theme/nonce';

interface Props<T extends GridValidRowModel> extends Pick<DataGridProps<T>, 'rows' | 'columns' | 'aria-label' | 'processRowUpdate' | 'onProcessRowUpdateError' | 'getRowId' | 'initialState'> {
  /** Called with the row that was clicked, or whose cell Enter was pressed on; `more` with Ctrl or Shift. */
  readonly onOpen: (row: T, how: 'alone' | 'more') => void;
  /** The rows that are selected. */
  readonly chosen?: ReadonlySet<string>;
}

function PlainGrid<T extends GridValidRowModel>({ onOpen, chosen, ...props }: Props<T>) {
  const nonce = useNonce();
  return (
    <DataGrid
      density="compact"
      rowHeight={30}
      columnHeaderHeight={32}
      hideFooter
      disableRowSelectionOnClick
      {...(nonce ? { nonce } : {})}
      {...props}
      {...(chosen ? { getRowClassName: ({ id }: { id: string | number }) => (chosen.has(String(id)) ? 'row-chosen' : '') } : {})}
      onRowClick={({ row }, event) => onOpen(row, means(event))}
      onCellKeyDown={({ row, cellMode, isEditable }, event) => event.key === 'Enter' && cellMode !== 'edit' && !isEditable && onOpen(row, means(event))}
      sx={GRID_SX}
    />
  );
}

const GRID_SX = {
  '& .MuiDataGrid-row': { cursor: 'pointer' },
  '& .row-chosen, & .row-chosen:hover': { background: 'var(--accent-wash)' },
  '& .MuiDataGrid-cell--editing input': { fontFamily: 'var(--mono)', fontSize: 13 },
};

/** Drawn again only when its rows or handlers are others: drawing a grid costs as much as drawing the map. */
export const Grid = memo(PlainGrid) as typeof PlainGrid;
