'use client';
/** The drawer's table: MUI's grid, dense, with the page's style nonce. */
import { DataGrid, type DataGridProps, type GridValidRowModel } from '@mui/x-data-grid';
import { useNonce } from '../theme/nonce';

export function Grid<T extends GridValidRowModel>(props: DataGridProps<T>) {
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
      sx={{ '& .MuiDataGrid-row': { cursor: 'pointer' } }}
    />
  );
}
