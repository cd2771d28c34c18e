'use client';
/** The drawer's table: MUI's grid, dense, with the page's style nonce. */
import { DataGrid, type DataGridProps, type GridValidRowModel } from '@mui/x-data-grid';
import { memo } from 'react';
import { useNonce } from '../theme/nonce';

function PlainGrid<T extends GridValidRowModel>(props: DataGridProps<T>) {
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
      sx={GRID_SX}
    />
  );
}

const GRID_SX = { '& .MuiDataGrid-row': { cursor: 'pointer' } };

/** Drawn again only when its rows or handlers are others: drawing a grid costs as much as drawing the map. */
export const Grid = memo(PlainGrid) as typeof PlainGrid;
