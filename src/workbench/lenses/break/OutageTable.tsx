'use client';
/** What the run cost: the time that each pair of hosts was cut off, as chart and table. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import type { SwitchId } from '../../../core/model/ids';
import { SECOND } from '../../../core/modes/entity';
import { costOf, type PairCost } from '../../../core/sim/report/cost';
import { Grid } from '../../ui/Grid';
import { useClock, useClockStore } from '../../state/clock';
import { useWorkbenchStore } from '../../state/context';
import styles from '../shared/clock.module.css';
import { useOfSelection } from '../shared/ofSelection';
import { OutageChart, type OutageRow } from './OutageChart';
import { NoRun } from './NoRun';
import { durationText } from '../../../core/base/words';

/** A pair, and the switches that its hosts are plugged into. */
interface Row extends OutageRow {
  readonly switches: readonly SwitchId[];
}
const switchesOfPair = ({ switches }: Row): readonly SwitchId[] => switches;

const COLUMNS: GridColDef<OutageRow>[] = [
  { field: 'pair', headerName: 'Frames from, to', flex: 1.5, minWidth: 150 },
  { field: 'vlan', headerName: 'VLAN', type: 'number', width: 60 },
  {
    field: 'longest',
    headerName: 'Longest',
    type: 'number',
    width: 80,
    valueFormatter: (seconds: number) => durationText(seconds),
  },
  {
    field: 'total',
    headerName: 'In all',
    type: 'number',
    width: 80,
    valueFormatter: (seconds: number) => durationText(seconds),
  },
  { field: 'cuts', headerName: 'Cuts', type: 'number', width: 56 },
  { field: 'why', headerName: 'Because of', flex: 1, minWidth: 90 },
];

export function OutageTable() {
  const trace = useClock((clock) => clock.player?.trace ?? null);
  const store = useClockStore();
  const workbench = useWorkbenchStore();
  const cost = useMemo(() => trace && costOf(trace.outages, trace.until / SECOND), [trace]);
  const rows = useMemo(() => {
    const names = new Map(trace?.design.hosts.map((host) => [host.id, host.name ?? host.id]));
    const at = new Map(trace?.design.hosts.map((host) => [host.id, host.attach.map((end) => end.switch)]));
    return (cost?.pairs ?? []).map((pair): Row => ({
      id: `${pair.from}\n${pair.to}\n${pair.vlan}`,
      pair: `${names.get(pair.from) ?? pair.from} to ${names.get(pair.to) ?? pair.to}`,
      vlan: pair.vlan,
      longest: pair.longest,
      total: pair.total,
      cuts: pair.cuts,
      why: `${Object.keys(pair.by).join(', ')}${pair.lasting ? ', to the end' : ''}`,
      by: pair.by,
      cost: pair,
      switches: [at.get(pair.from) ?? [], at.get(pair.to) ?? []].flat(),
    }));
  }, [cost, trace]);
  const show = useCallback(
    ({ cost: { from, to, first } }: { readonly cost: PairCost }) => {
      store.getState().follow({ from, to });
      store.getState().seek(Math.round(first * SECOND));
      workbench.getState().openDrawer('clock');
    },
    [store, workbench],
  );
  const { rows: wanted, choice } = useOfSelection(rows, switchesOfPair);
  if (!trace || !cost) return <NoRun />;
  return (
    <div className={styles.grid}>
      <p className={styles.sum} role="status">
        {cost.pairs.length === 0 ? (
          'Nobody was cut off.'
        ) : (
          <>
            <strong>
              {cost.pairs.length} of {trace.pairs.length}
            </strong>{' '}
            directed pairs of hosts were cut off: the longest for <strong>{durationText(cost.longest)}</strong>, all
            together <strong>{durationText(cost.total)}</strong>.
          </>
        )}
        {trace.unfollowed > 0 && ` ${trace.unfollowed} more pairs are not followed: there are too many.`}
        {choice}
        {trace.storms.length > 0 &&
          ` Frames circled in ${trace.storms.length === 1 ? 'one VLAN' : `${trace.storms.length} places`}.`}
      </p>
      {cost.pairs.length > 0 && (
        <div className={styles.split}>
          <OutageChart rows={wanted} onOpen={show} />
          <Grid rows={wanted} columns={COLUMNS} onOpen={show} aria-label="Outages by pair of hosts" />
        </div>
      )}
    </div>
  );
}
