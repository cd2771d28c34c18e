'use client';
/** Every link with both its ends. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useDeferredValue, useMemo } from 'react';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { itemsOf, selectionOf, type Item } from '../state/selection';
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

const itemOf = (row: CableRow): Item => ({ kind: 'link', link: row.id });

export function CableTable() {
  const design = useDeferredValue(useWorkbench((state) => state.design));
  const selection = useWorkbench((state) => state.selection);
  const { pick, goTo, select } = useWorkbenchStore().getState();
  const filter = useFilter(useMemo(() => cableRows(design), [design]));
  const open = useCallback((row: CableRow, how: 'alone' | 'more') => (how === 'more' ? pick(itemOf(row), how) : goTo(itemOf(row))), [pick, goTo]);
  const chosen = useMemo(() => new Set<string>(itemsOf(selection).flatMap((item) => (item.kind === 'link' ? [item.link] : []))), [selection]);
  if (design.links.length === 0) return <p className={styles.empty}>No cables yet. Write one into the line above the map (a 1 = b 1), or pull one from a selected switch.</p>;
  return (
    <>
      <FilterField {...filter} what="cables" example="lodge 10" onSelect={() => select(selectionOf(filter.rows.map(itemOf)))} />
      <Grid aria-label="Cables" rows={filter.rows} columns={COLUMNS} onOpen={open} chosen={chosen} />
    </>
  );
}
