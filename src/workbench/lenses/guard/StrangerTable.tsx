'use client';
/** A stranger's switch tried at every port: who becomes root, who is cut off, what stops it. A row shows the map as it would be. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { intrude, type Intrusion } from '../../../core/analysis/guards/intruder';
import { namesOf } from '../../../core/model/derive/names';
import { treesName } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import { useAsk } from '../../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { askIntrusions } from '../../state/questions';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';
import { counted } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import { BackToNow, MapShows, switchesText, useKept, useShownRow } from '../shared/lossTable';

export interface StrangerRow {
  readonly id: string;
  readonly switch: string;
  readonly port: string;
  readonly stopped: string;
  readonly roots: string;
  readonly moved: number;
  readonly cutOff: string;
  readonly at: Pick<Intrusion, 'switch' | 'port'>;
}

const COLUMNS: GridColDef<StrangerRow>[] = [
  { field: 'switch', headerName: 'Plugged into', width: 130 },
  {
    field: 'port',
    headerName: 'Port',
    width: 70,
    sortComparator: (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true }),
  },
  { field: 'stopped', headerName: 'What stops it', width: 190 },
  { field: 'roots', headerName: 'Becomes root of', width: 220 },
  { field: 'moved', headerName: 'Ports that change', type: 'number', width: 130 },
  { field: 'cutOff', headerName: 'Cut off', flex: 1, minWidth: 160 },
];

const NOTHING = 'nothing';

/** What each port comes to; the open ones first. */
export function strangerRows(design: Design, all: readonly Intrusion[]): StrangerRow[] {
  const names = namesOf(design);
  return all
    .map(({ switch: sw, port, stoppedBy, roots, moved, cutOff, unseen }, i): StrangerRow => ({
      id: String(i),
      switch: names.switch(sw),
      port,
      stopped: stoppedBy ?? (unseen ? `${NOTHING}: its BPDUs are discarded` : NOTHING),
      roots: roots.length > 0 ? treesName(roots) : 'no tree',
      moved,
      cutOff: switchesText(cutOff, names) || 'nobody',
      at: { switch: sw, port },
    }))
    .sort((a, b) => Number(b.stopped.startsWith(NOTHING)) - Number(a.stopped.startsWith(NOTHING)) || b.moved - a.moved);
}

export function StrangerTable() {
  const store = useWorkbenchStore();
  const present = useWorkbench((state) => state.looking.kind === 'present');
  const design = useFollowing((state) => state.design);
  const { status, stop } = useAsk(useMemo(() => (present ? askIntrusions(design) : null), [design, present]));
  const found = useMemo(
    () => (present && status.kind === 'found' ? strangerRows(design, status.value) : null),
    [design, present, status],
  );
  const rows = useKept(design, found) ?? NO_ROWS;
  const filter = useFilter(rows);
  const [chosen, setShownRow] = useShownRow();
  const show = useCallback(
    ({ id, at, switch: name, port }: StrangerRow) => {
      store.getState().look(null);
      setShownRow(id);
      const { solution: before, revision, look, select } = store.getState();
      const there = before && intrude(before, at.switch, at.port);
      if (!there) return;
      const label = `the design with a stranger at ${name} port ${port}`;
      const moved = movedOf(label, there.moved, 'comparison');
      look({ kind: 'loss', label, revision, design: there.design, solution: there.solution, moved });
      select({ kind: 'switch', switch: there.stranger });
    },
    [store, setShownRow],
  );
  if (present && status.kind !== 'found')
    return <Asking status={status} stop={stop} what="Trying a stranger's switch at every port" />;
  if (present && rows.length === 0)
    return <p className={styles.empty}>Every port that is up has a switch at its other end: no stranger finds one.</p>;
  const open = rows.filter(({ stopped }) => stopped.startsWith(NOTHING)).length;
  return (
    <>
      <p className={styles.summary}>
        {present ? (
          `A switch with better identifiers than any here is stopped at ${rows.length - open} of ${counted(rows.length, 'port')}. A click on a row shows the map as it would be.`
        ) : (
          <>
            <MapShows /> <BackToNow />
          </>
        )}
      </p>
      {rows.length > 0 && (
        <>
          <FilterField {...filter} what="ports" example="lodge nothing" csv={() => csvOf(COLUMNS, filter.rows)} />
          <Grid aria-label="If a stranger comes" rows={filter.rows} columns={COLUMNS} onOpen={show} chosen={chosen} />
        </>
      )}
    </>
  );
}

const NO_ROWS: readonly StrangerRow[] = [];
