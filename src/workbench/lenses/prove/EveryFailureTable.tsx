'use client';
/** Every single failure, the worst first: what moves, who is cut off, who becomes root, how full links get, which intents break. A row shows the map after it. */
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import {
  byHarm,
  unneededIn,
  type EveryFailure,
  type FailureOutcome,
} from '../../../core/analysis/failures/everyFailure';
import { actionsOf, failureText, MOST_PAIRS, type Failure } from '../../../core/analysis/failures/failure';
import { intentText } from '../../../core/analysis/intents/intents';
import { namesOf } from '../../../core/model/derive/names';
import type { Design } from '../../../core/model/document';
import type { HostId } from '../../../core/model/ids';
import { treesName } from '../../../core/model/ids';
import { useClockStore } from '../../state/clock';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';
import { BackToNow, MapShows, useShownRow } from '../shared/lossTable';
import own from './prove.module.css';
import { playFailure, showFailure } from './showFailure';

interface Row {
  readonly id: string;
  readonly failure: string;
  readonly broken: string;
  readonly breaks: readonly string[];
  readonly cutOff: string;
  readonly lost: string;
  readonly moves: string;
  readonly ends: number;
  readonly roots: string;
  readonly peak: number | null;
  readonly what: Failure;
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'failure', headerName: 'If', flex: 1, minWidth: 220 },
  {
    field: 'broken',
    headerName: 'Breaks',
    description: 'Intents that it breaks, and how many of them must hold',
    width: 100,
  },
  {
    field: 'cutOff',
    headerName: 'Cut off',
    description: 'Hosts that no longer reach some they reached before',
    width: 140,
  },
  { field: 'lost', headerName: 'Went with it', description: 'Hosts that hang on nothing else', width: 150 },
  { field: 'roots', headerName: 'New root', width: 110 },
  {
    field: 'peak',
    headerName: 'Fullest link',
    description: 'Its load in the busy hour, per cent of its speed',
    type: 'number',
    width: 100,
    valueFormatter: (value: number | null) => (value === null ? '' : `${value} %`),
  },
  {
    field: 'ends',
    headerName: 'Ports',
    description: 'Ports of others that change their role',
    type: 'number',
    width: 70,
  },
  { field: 'moves', headerName: 'change in', width: 110 },
];

/** So many hosts or trees are named, more are counted. */
const FEW = 1;

/** The worst first. */
export function failureRows(design: Design, { outcomes }: Pick<EveryFailure, 'outcomes'>): Row[] {
  const names = namesOf(design);
  const hostsText = (hosts: readonly HostId[]): string =>
    hosts.length > FEW ? counted(hosts.length, 'host') : hosts.map((id) => names.host(id)).join(', ');
  const intents = new Map(design.intents.map((intent) => [intent.id, intent]));
  const musts = (broken: FailureOutcome['broken']): number =>
    broken.filter(({ intent }) => intents.get(intent)?.severity === 'must').length;
  return [...outcomes]
    .sort(byHarm(design))
    .map(({ failure, broken, cutOff, lost, moves, ends, roots, peak }, i): Row => ({
      id: String(i),
      failure: failureText(failure, names),
      broken: broken.length === 0 ? '' : `${broken.length}${musts(broken) > 0 ? `, ${musts(broken)} must` : ''}`,
      breaks: broken.map(({ intent, why }) => `${intentText(design, intents.get(intent)!)}: ${why}`),
      cutOff: hostsText(cutOff),
      lost: hostsText(lost),
      moves: moves.length > FEW ? counted(moves.length, 'tree') : moves.length === 0 ? '' : treesName(moves),
      ends,
      roots: [...new Set(roots.map(({ root }) => (root === null ? 'none left' : names.switch(root))))].join(', '),
      peak: peak && Math.round(peak.share * 100),
      what: failure,
    }));
}

export function EveryFailureTable() {
  const store = useWorkbenchStore();
  const clock = useClockStore();
  const present = useWorkbench((state) => state.looking.kind === 'present');
  const failures = useFollowing((state) => state.failures);
  const design = failures.found?.of ?? null;
  const rows = useMemo(
    () => (failures.found ? failureRows(failures.found.of, failures.found.all) : []),
    [failures.found],
  );
  const twos = useWorkbench((state) => state.pairsWanted);
  const filter = useFilter(rows);
  const [chosen, setShownRow] = useShownRow();
  const shown = rows.find(({ id }) => chosen.has(id)) ?? null;
  const show = useCallback(
    ({ id, what }: Row) => {
      showFailure(store, what);
      setShownRow(id);
    },
    [store, setShownRow],
  );
  if (!design)
    return (
      <p className={styles.empty} role="status">
        {failures.kind === 'refused' ? failures.why : `Trying every failure, ${Math.round(failures.share * 100)} %…`}{' '}
        {failures.kind === 'busy' && (
          <TextButton does="plain" onClick={failures.stop}>
            stop
          </TextButton>
        )}
      </p>
    );
  return (
    <>
      <FilterField {...filter} what="failures" example="ridge power" csv={() => csvOf(COLUMNS, filter.rows)}>
        <span>
          {failures.kind === 'busy' ? (
            <>
              Trying them again after the change, {Math.round(failures.share * 100)} %…{' '}
              <TextButton does="plain" onClick={failures.stop}>
                stop
              </TextButton>
            </>
          ) : present ? (
            `${failures.found!.whole ? '' : 'Stopped: some were not tried. '}${summaryOf(design, failures.found!.all)}`
          ) : (
            <>
              <MapShows /> <BackToNow />
            </>
          )}
        </span>
        <TextButton
          does="plain"
          aria-pressed={twos}
          onClick={() => store.setState({ pairsWanted: !twos })}
          title={`two cables or switches at once, ${MOST_PAIRS} pairs at most`}
        >
          {twos ? 'one thing at a time' : 'two at a time, too'}
        </TextButton>
        {shown && actionsOf(shown.what).length > 0 && (
          <Button size="small" variant="outlined" onClick={() => playFailure(store, clock, shown.what)}>
            Play it on the timeline
          </Button>
        )}
      </FilterField>
      {shown && shown.breaks.length > 0 && (
        <ul className={own.breaks} aria-label="Intents that it breaks">
          {shown.breaks.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <Grid aria-label="Every failure" rows={filter.rows} columns={COLUMNS} onOpen={show} chosen={chosen} />
    </>
  );
}

function summaryOf(design: Design, all: EveryFailure): string {
  const pairs = all.outcomes.filter(({ failure }) => failure.kind === 'two').length;
  const cut = all.outcomes.filter(({ cutOff }) => cutOff.length > 0).length;
  const names = namesOf(design);
  const unneeded = unneededIn(design, all);
  const spare =
    unneeded.length === 0
      ? ''
      : ` No failure needs ${unneeded.length > 2 ? counted(unneeded.length, 'link') : unneeded.map((id) => names.link(id)).join(' or ')}.`;
  const bounded = pairs === MOST_PAIRS ? ` Of pairs, the first ${MOST_PAIRS} were tried.` : '';
  return `${cut === 0 ? 'None cuts' : cut === 1 ? '1 cuts' : `${cut} cut`} off hosts for good.${spare}${bounded}`;
}
