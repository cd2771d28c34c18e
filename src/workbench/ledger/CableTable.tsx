'use client';
/** Every link with both its ends. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useDeferredValue, useMemo } from 'react';
import { useWorkbench } from '../state/context';
import { FilterField, useFilter } from './FilterField';
import { Grid } from './Grid';
import { cableRows, type CableRow } from './rows';
import styles from './drawer.module.css';

const COLUMNS: GridColDef<CableRow>[] = [
  { field: 'a', headerName: 'From', width: 160 },
  { field: 'b', headerName: 'To', width: 160 },
  { field: 'cable', headerName: 'Cable', width: 110 },
  { field: 'speed', headerName: 'Speed', width: 110 },
  { field: 'carriesA', headerName: 'Carries, from', width: 230 },
  { field: 'carriesB', headerName: 'Carries, to', width: 230, flex: 1 },
];

export function CableTable() {
  const design = useDeferredValue(useWorkbench((state) => state.design));
  const select = useWorkbench((state) => state.select);
  const filter = useFilter(useMemo(() => cableRows(design), [design]));
  const open = useCallback((row: CableRow) => select({ kind: 'link', link: row.id }), [select]);
  if (design.links.length === 0) return <p className={styles.empty}>No cables yet. Select a switch and use “Cable to” to join it to another.</p>;
  return (
    <>
      <FilterField {...filter} what="cables" example="lodge 10" />
      <Grid aria-label="Cables" rows={filter.rows} columns={COLUMNS} onOpen={open} />
    </>
  );
}
