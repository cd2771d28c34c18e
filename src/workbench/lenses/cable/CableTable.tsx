'use client';
/** Every link with both its ends. */
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import { useFollowing } from '../../state/context';
import type { Item } from '../../state/selection';
import { ItemTable } from '../shared/ItemTable';
import { cableRows, type CableRow } from '../shared/rows';
import styles from '../../ui/table.module.css';

const COLUMNS: GridColDef<CableRow>[] = [
  { field: 'a', headerName: 'From', width: 160 },
  { field: 'b', headerName: 'To', width: 160 },
  { field: 'cable', headerName: 'Cable', width: 110 },
  { field: 'speed', headerName: 'Speed', width: 110 },
  { field: 'carriesA', headerName: 'Carries, from', width: 230 },
  { field: 'carriesB', headerName: 'Carries, to', width: 230, flex: 1 },
];

const itemOf = (row: CableRow): Item => ({ kind: 'link', link: row.id });

export function CableTable() {
  const design = useFollowing((state) => state.design);
  const rows = useMemo(() => cableRows(design), [design]);
  if (rows.length === 0)
    return (
      <p className={styles.empty}>
        No cables yet. Write one into the line above the map (a 1 = b 1), or pull one from a selected switch.
      </p>
    );
  return <ItemTable label="Cables" what="cables" example="lodge 10" rows={rows} columns={COLUMNS} itemOf={itemOf} />;
}
