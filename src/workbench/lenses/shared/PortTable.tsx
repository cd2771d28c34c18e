'use client';
/** Every port in every shown tree as a table: all that the map shows, in words. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import type { TreeId } from '../../../core/model/ids';
import type { Solution } from '../../../core/tree/settled';
import { useFollowing, useWorkbench } from '../../state/context';
import { farEndsOf } from '../../state/farEnds';
import { groupText } from '../../ui/words/units';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import styles from '../../ui/table.module.css';
import { Grid } from '../../ui/Grid';
import { useOfSelection } from './ofSelection';
import { portRows, switchesOfEnd, type PortRow } from './rows';

const number = (value: number | null): string => (value === null ? '' : groupText(value));

const COLUMNS: GridColDef<PortRow>[] = [
  {
    field: 'tree',
    headerName: 'Tree',
    width: 84,
    sortComparator: (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true }),
  },
  { field: 'switch', headerName: 'Switch', width: 104 },
  {
    field: 'port',
    headerName: 'Port',
    width: 64,
    sortComparator: (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true }),
  },
  { field: 'to', headerName: 'To', width: 130 },
  { field: 'role', headerName: 'Role', width: 90 },
  { field: 'state', headerName: 'State', width: 94 },
  { field: 'cost', headerName: 'Cost', type: 'number', width: 70, valueFormatter: number },
  {
    field: 'rootPathCost',
    headerName: 'Root path cost',
    type: 'number',
    width: 118,
    valueFormatter: (value: number, { internal }) =>
      internal > 0 ? `${groupText(value)} / ${groupText(internal)}` : groupText(value),
  },
  { field: 'designatedBridge', headerName: 'Designated bridge', flex: 1, minWidth: 130 },
  { field: 'designatedPort', headerName: 'Des. port', description: 'Designated port', width: 84 },
];

function rowsOf(solution: Solution, shown: readonly TreeId[]): PortRow[] {
  const farEnd = farEndsOf(solution.network.design);
  return portRows(solution, shown, (sw, port) => farEnd(sw, port)?.text ?? '');
}

export function PortTable() {
  // The map is drawn first, this table when there is time.
  const solution = useFollowing((state) => state.solution);
  const shown = useFollowing((state) => state.shownTrees);
  const goTo = useWorkbench((state) => state.goTo);
  const all = useMemo(() => (solution ? rowsOf(solution, shown) : []), [solution, shown]);
  const { rows, choice } = useOfSelection(all, switchesOfEnd);
  const filter = useFilter(rows);
  const open = useCallback((row: PortRow) => goTo({ kind: 'port', switch: row.switchId, port: row.portId }), [goTo]);
  if (all.length === 0)
    return (
      <p className={styles.empty}>No port is in a shown tree yet: add switches and join them in the Cable view.</p>
    );
  return (
    <>
      <FilterField {...filter} what="ports" example="dome alternate" csv={() => csvOf(COLUMNS, filter.rows)}>
        {choice}
      </FilterField>
      <Grid aria-label="Ports: role and cost in every shown tree" rows={filter.rows} columns={COLUMNS} onOpen={open} />
    </>
  );
}
