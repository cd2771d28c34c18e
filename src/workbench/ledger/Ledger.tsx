'use client';
/** Every port in every shown tree as a table: all that the map shows, in words. */
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import { useWorkbench } from '../state/context';
import { useFarEnds } from '../state/farEnds';
import { groupText } from '../words/units';
import { FilterField, useFilter } from './FilterField';
import { Grid } from './Grid';
import { ledgerRows, type LedgerRow } from './rows';

const number = (value: number | null): string => (value === null ? '' : groupText(value));

const COLUMNS: GridColDef<LedgerRow>[] = [
  { field: 'tree', headerName: 'Tree', width: 96, sortComparator: (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true }) },
  { field: 'switch', headerName: 'Switch', width: 120 },
  { field: 'port', headerName: 'Port', width: 64, sortComparator: (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true }) },
  { field: 'to', headerName: 'To', width: 160 },
  { field: 'role', headerName: 'Role', width: 98 },
  { field: 'state', headerName: 'State', width: 98 },
  { field: 'cost', headerName: 'Cost', type: 'number', width: 80, valueFormatter: number },
  { field: 'rootPathCost', headerName: 'Root path cost', type: 'number', width: 118, valueFormatter: number },
  { field: 'designatedBridge', headerName: 'Designated bridge', flex: 1, minWidth: 130 },
  { field: 'designatedPort', headerName: 'Des. port', description: 'Designated port', width: 84 },
];

export function Ledger() {
  const solution = useWorkbench((state) => state.solution);
  const shown = useWorkbench((state) => state.shownTrees);
  const select = useWorkbench((state) => state.select);
  const farEnd = useFarEnds();
  const all = useMemo(() => (solution ? ledgerRows(solution, shown, (sw, port) => farEnd(sw, port)?.text ?? '') : []), [solution, shown, farEnd]);
  const filter = useFilter(all);
  return (
    <>
      <FilterField {...filter} what="ends" />
      <Grid
        aria-label="Ledger: every port in every shown tree"
        rows={filter.rows}
        columns={COLUMNS}
        onRowClick={({ row }) => select({ kind: 'port', switch: row.switchId, port: row.portId })}
      />
    </>
  );
}
