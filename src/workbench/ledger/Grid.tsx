'use client';
/** The drawer's table: MUI's grid, dense, with the page's style nonce. */
import { DataGrid, type DataGridProps, type GridValidRowModel } from '@mui/x-data-grid';
import { memo } from 'react';
import { useNonce } from '../theme/nonce';

interface Props<T extends GridValidRowModel> extends Pick<DataGridProps<T>, 'rows' | 'columns' | 'aria-label'> {
  /** Called with the row that was clicked, or whose cell Enter was pressed on. */
  readonly onOpen: (row: T) => void;
}

function PlainGrid<T extends GridValidRowModel>({ onOpen, ...props }: Props<T>) {
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
      onRowClick={({ row }) => onOpen(row)}
      onCellKeyDown={({ row }, event) => event.key === 'Enter' && onOpen(row)}
      sx={GRID_SX}
    />
  );
}

const GRID_SX = { '& .MuiDataGrid-row': { cursor: 'pointer' } };

/** Drawn again only when its rows or handlers are others: drawing a grid costs as much as drawing the map. */
export const Grid = memo(PlainGrid) as typeof PlainGrid;
