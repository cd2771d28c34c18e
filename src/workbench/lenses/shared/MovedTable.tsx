'use client';
/** The ends that the last change moved. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { useFollowing, useWorkbench } from '../../state/context';
import { farEndsOf } from '../../state/farEnds';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import { useOfSelection } from './ofSelection';
import { movedRows, switchesOfEnd, type MovedRow } from './rows';
import styles from '../../ui/table.module.css';

const COLUMNS: GridColDef<MovedRow>[] = [
  { field: 'tree', headerName: 'Tree', width: 110 },
  { field: 'switch', headerName: 'Switch', width: 140 },
  { field: 'port', headerName: 'Port', width: 70 },
  { field: 'to', headerName: 'To', width: 190 },
  { field: 'before', headerName: 'Role before', width: 130 },
  { field: 'after', headerName: 'Role now', width: 130, flex: 1 },
];

export function MovedTable() {
  const moved = useFollowing((state) => state.moved);
  const design = useFollowing((state) => state.design);
  const goTo = useWorkbench((state) => state.goTo);
  const showTree = useWorkbench((state) => state.showTree);
  const all = useMemo(() => {
    const farEnd = farEndsOf(design);
    return movedRows(moved, design, (sw, port) => farEnd(sw, port)?.text ?? '');
  }, [moved, design]);
  const { rows, choice } = useOfSelection(all, switchesOfEnd);
  const filter = useFilter(rows);
  const open = useCallback(
    (row: MovedRow) => {
      showTree(row.treeId, 'alone');
      goTo({ kind: 'port', switch: row.switchId, port: row.portId });
    },
    [goTo, showTree],
  );
  if (!moved || moved.ends.length === 0) {
    return (
      <p className={styles.empty}>
        {moved
          ? `“${moved.label}” changed no port.`
          : 'After a change, the ports whose role it changed are listed here.'}
      </p>
    );
  }
  return (
    <>
      <FilterField {...filter} what="changed ports" example="ridge root" csv={() => csvOf(COLUMNS, filter.rows)}>
        {choice}
      </FilterField>
      <Grid aria-label="Ports whose role the last change changed" rows={filter.rows} columns={COLUMNS} onOpen={open} />
    </>
  );
}
