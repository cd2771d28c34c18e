'use client';
/** Guards under every single failure: whom a root guard would cut off that has another way, which loop guard can never act. A row shows the map after it. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { failed, failureText, type Failure } from '../../../core/analysis/failures/failure';
import type { UnderFailures } from '../../../core/analysis/guards/failures';
import { namesOf } from '../../../core/model/derive/names';
import { treesName } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import { movedEnds } from '../../../core/tree/moved';
import { useAsk } from '../../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { askGuardsUnderFailures } from '../../state/questions';
import { solvedOf } from '../../state/revisions';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';
import { Asking } from '../shared/Asking';
import { BackToNow, MapShows, switchesText, useKept, useShownRow } from '../shared/lossTable';

interface Row {
  readonly id: string;
  readonly failure: string;
  readonly guard: string;
  readonly trees: string;
  readonly cutOff: string;
  readonly what: Failure | null;
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'failure', headerName: 'If', width: 290 },
  { field: 'guard', headerName: 'Guard', width: 230 },
  { field: 'trees', headerName: 'in', width: 190 },
  { field: 'cutOff', headerName: 'Cuts off', flex: 1, minWidth: 200 },
];

export function failureRows(design: Design, { severed, idle }: UnderFailures): Row[] {
  const names = namesOf(design);
  return [
    ...severed.map(({ switch: sw, port, failure, trees, cutOff }, i): Row => ({
      id: String(i),
      failure: failureText(failure, names),
      guard: `root guard at ${names.end({ switch: sw, port })}`,
      trees: treesName(trees),
      cutOff: switchesText(cutOff, names),
      what: failure,
    })),
    ...idle.map((at, i): Row => ({
      id: `idle ${i}`,
      failure: 'anything at all fails',
      guard: `loop guard at ${names.end(at)}`,
      trees: '',
      cutOff: 'nobody: it can never act',
      what: null,
    })),
  ];
}

export function FailureTable() {
  const store = useWorkbenchStore();
  const present = useWorkbench((state) => state.looking.kind === 'present');
  const design = useFollowing((state) => state.design);
  const guarded = design.switches.some((sw) => sw.ports.some(hasGuard)) || design.bundles.some(hasGuard);
  const asks = present && guarded;
  const { status, stop } = useAsk(useMemo(() => (asks ? askGuardsUnderFailures(design) : null), [design, asks]));
  const found = asks && status.kind === 'found' ? status.value : null;
  const kept = useKept(
    design,
    useMemo(() => found && { count: found.failures, rows: failureRows(design, found) }, [design, found]),
  );
  const [chosen, setShownRow] = useShownRow();
  const show = useCallback(
    ({ id, what, failure }: Row) => {
      store.getState().look(null);
      const { solution, revision, look } = store.getState();
      if (!what || !solution) return;
      setShownRow(id);
      const label = `the design if ${failure}`;
      const there = solvedOf(failed(solution.network.design, what), revision, label);
      look({ ...there, kind: 'loss', moved: movedOf(label, movedEnds(solution, there.solution), 'comparison') });
    },
    [store, setShownRow],
  );
  if (present && !guarded)
    return <p className={styles.empty}>No port has root guard or loop guard: no failure makes one act.</p>;
  if (asks && status.kind !== 'found') return <Asking status={status} stop={stop} what="Trying every failure" />;
  const rows = kept?.rows ?? [];
  return (
    <>
      <p className={styles.summary}>
        {!present ? (
          <>
            <MapShows /> <BackToNow />
          </>
        ) : rows.length === 0 ? (
          `Under none of ${kept?.count} failures does a guard cut anybody off who has another way, and every loop guard may come to act.`
        ) : (
          `Of ${kept?.count} failures, one thing at a time. A click on a row shows the map after it.`
        )}
      </p>
      {rows.length > 0 && (
        <Grid aria-label="Guards under failures" rows={rows} columns={COLUMNS} onOpen={show} chosen={chosen} />
      )}
    </>
  );
}

const hasGuard = ({ rootGuard, loopGuard }: { readonly rootGuard: boolean; readonly loopGuard: boolean }): boolean =>
  rootGuard || loopGuard;
