'use client';
/** Every failure run by the protocols: how long hosts are cut off from each other, by failure and by pair, as chart and table. */
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo, useState } from 'react';
import { failureText, type Failure } from '../../../core/analysis/failures/failure';
import { WATCHED, worstByPair, type FailureRun } from '../../../core/analysis/failures/outages';
import { VARIANTS } from '../../../core/analysis/failures/variants';
import { namesOf } from '../../../core/model/derive/names';
import type { Design } from '../../../core/model/document';
import type { Names } from '../../../core/model/names';
import type { PairCost } from '../../../core/sim/report/cost';
import { useClockStore } from '../../state/clock';
import { useAsk } from '../../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { Grid } from '../../ui/Grid';
import { Select } from '../../ui/Select';
import { askRuns } from '../../state/questions';
import styles from '../../ui/table.module.css';
import { TextButton } from '../../ui/TextButton';
import { counted, durationText } from '../../../core/base/words';
import { playFailure } from './showFailure';
import { WorstOfPairs } from './WorstOfPairs';
import { SpreadChart } from './SpreadChart';

interface Row {
  readonly id: string;
  readonly failure: string;
  readonly pair: string;
  /** Seconds; to the end of the run counts as for good. */
  readonly longest: number;
  readonly lasting: boolean;
  readonly why: string;
  readonly pairs: number;
  readonly settled: string;
  /** The longest outage in the network that stands beside, in words. */
  readonly beside: string;
  readonly what: Failure;
}

const timeColumn: GridColDef<Row> = {
  field: 'longest',
  headerName: 'Cut off for',
  type: 'number',
  width: 110,
  valueFormatter: (seconds: number, { lasting }) => timeText(seconds, lasting),
};
const BY_FAILURE: GridColDef<Row>[] = [
  { field: 'failure', headerName: 'If', flex: 1, minWidth: 220 },
  timeColumn,
  { field: 'pair', headerName: 'Frames from, to', flex: 1, minWidth: 180 },
  { field: 'why', headerName: 'Because of', width: 140 },
  { field: 'pairs', headerName: 'Pairs cut', type: 'number', width: 90 },
  { field: 'settled', headerName: 'Settled after', width: 110 },
];
const BY_PAIR: GridColDef<Row>[] = [
  { field: 'pair', headerName: 'Frames from, to', flex: 1, minWidth: 200 },
  timeColumn,
  { field: 'failure', headerName: 'at worst, if', flex: 1, minWidth: 220 },
  { field: 'why', headerName: 'Because of', width: 140 },
];

/** The columns with one more, for what stands beside. */
const withBeside = (name: string): GridColDef<Row>[] =>
  BY_FAILURE.flatMap((column) =>
    column === timeColumn
      ? [column, { field: 'beside', headerName: name, width: 150, align: 'right', headerAlign: 'right' }]
      : [column],
  );

const timeText = (seconds: number, lasting: boolean): string => (lasting ? 'for good' : durationText(seconds));
const whyText = ({ by }: PairCost): string => Object.keys(by).join(', ');
const pairText = ({ from, to, vlan }: PairCost, names: Names): string =>
  `${names.host(from)} to ${names.host(to)}, VLAN ${vlan}`;

/** How outages are told. */
const VIEWS = ['failure', 'pair', 'matrix'] as const;

/** The worst first. */
export function runRows(design: Design, runs: readonly FailureRun[]): Row[] {
  const names = namesOf(design);
  return [...runs]
    .sort((a, b) => b.forGood - a.forGood || (b.worst ?? 0) - (a.worst ?? 0) || b.pairs.length - a.pairs.length)
    .map(({ failure, pairs, worst, settledAfter }, i): Row => {
      const first = pairs.find(({ lasting }) => lasting) ?? pairs[0];
      return {
        id: `failure ${i}`,
        failure: failureText(failure, names),
        pair: first ? pairText(first, names) : '',
        longest: worst ?? 0,
        lasting: first?.lasting ?? false,
        why: first ? whyText(first) : '',
        pairs: pairs.length,
        settled: settledAfter === null ? 'not yet' : settledAfter === 0 ? '' : durationText(settledAfter),
        beside: '',
        what: failure,
      };
    });
}

export function pairRows(design: Design, runs: readonly FailureRun[]): Row[] {
  const names = namesOf(design);
  return worstByPair(runs).map(({ pair, run }, i): Row => ({
    id: `pair ${i}`,
    failure: failureText(run.failure, names),
    pair: pairText(pair, names),
    longest: pair.longest,
    lasting: pair.lasting,
    why: whyText(pair),
    pairs: run.pairs.length,
    settled: '',
    beside: '',
    what: run.failure,
  }));
}

export function RunsTable() {
  const store = useWorkbenchStore();
  const clock = useClockStore();
  const runs = useFollowing((state) => state.runs);
  const wanted = useWorkbench((state) => state.runsWanted);
  const [by, setBy] = useState<(typeof VIEWS)[number]>('failure');
  const found = runs.found;
  const rows = useMemo(
    () => (found ? (by === 'pair' ? pairRows : runRows)(found.of, found.all.runs) : []),
    [found, by],
  );
  const [variant, setVariant] = useState('');
  const beside = VARIANTS.find(({ key }) => key === variant) ?? null;
  const asked = useMemo(
    () =>
      beside && found
        ? askRuns(
            beside.of(found.of),
            found.all.runs.map(({ failure }) => failure),
          )
        : null,
    [beside, found],
  );
  const other = useAsk(asked);
  const others = useMemo(
    () =>
      new Map(
        other.status.kind === 'found'
          ? other.status.value.pieces
              .flat()
              .flatMap((each) => (each.ok ? [[JSON.stringify(each.value.failure), each.value] as const] : []))
          : [],
      ),
    [other.status],
  );
  const shown = useMemo(
    () =>
      rows.map((row) => {
        const run = others.get(JSON.stringify(row.what));
        return run ? { ...row, beside: run.worst === null ? 'none' : timeText(run.worst, run.forGood > 0) } : row;
      }),
    [rows, others],
  );
  const columns = useMemo(
    () => (by === 'pair' ? BY_PAIR : beside ? withBeside(beside.name) : BY_FAILURE),
    [by, beside],
  );
  const simulate = () => store.setState({ runsWanted: true });
  if (runs.kind === 'busy')
    return (
      <p className={styles.empty} role="status">
        Running every failure, {Math.round(runs.share * 100)} %…{' '}
        <TextButton does="plain" onClick={runs.stop}>
          stop
        </TextButton>
      </p>
    );
  if (!found)
    return (
      <div className={styles.empty}>
        <p>
          {runs.kind === 'refused'
            ? runs.why
            : `Each failure is run by the protocols and watched for ${WATCHED} s: which hosts are cut off from each other, for how long, and why.`}
        </p>
        <Button variant="outlined" size="small" onClick={simulate}>
          Simulate every failure
        </Button>
      </div>
    );
  const { refused } = found.all;
  return (
    <>
      <div className={styles.filter}>
        <span>
          {found.whole ? '' : 'Stopped: some were not run. '}
          {summaryOf(found.all.runs)}
          {refused.length > 0 && ` ${refused[0]}`}
        </span>
        {VIEWS.map((each) => (
          <TextButton key={each} does="plain" aria-pressed={by === each} onClick={() => setBy(each)}>
            {each === 'matrix' ? 'matrix' : `by ${each}`}
          </TextButton>
        ))}
        <Select
          label="Beside it"
          value={variant}
          options={[
            ['', 'nothing beside it'],
            ...VARIANTS.map(({ key, name }) => [key, `beside it: ${name}`] as const),
          ]}
          choose={setVariant}
        />
        {other.status.kind === 'busy' && <span role="status">{Math.round(other.status.share * 100)} %…</span>}
        {beside && others.size > 0 && (
          <span>
            {beside.name}: {summaryOf([...others.values()])}
          </span>
        )}
        <span>A click plays it on the timeline.</span>
        {!wanted && (
          <TextButton does="plain" onClick={simulate}>
            simulate every kind of failure
          </TextButton>
        )}
      </div>
      {by === 'matrix' ? (
        <WorstOfPairs design={found.of} runs={found.all.runs} onOpen={(what) => playFailure(store, clock, what)} />
      ) : (
        <>
          <SpreadChart runs={found.all.runs} />
          <Grid
            aria-label={by === 'failure' ? 'Outages by failure' : 'Outages by pair'}
            rows={shown}
            columns={columns}
            onOpen={({ what }) => playFailure(store, clock, what)}
          />
        </>
      )}
    </>
  );
}

function summaryOf(runs: readonly FailureRun[]): string {
  const cut = runs.filter(({ pairs }) => pairs.length > 0);
  const forGood = runs.filter((run) => run.forGood > 0).length;
  const times = cut.flatMap(({ worst, forGood: lasting }) => (lasting > 0 || worst === null ? [] : [worst]));
  const longest = times.length > 0 ? `; the longest that is over lasts ${durationText(Math.max(...times))}` : '';
  return `${cut.length} of ${counted(runs.length, 'failure')} cut${cut.length === 1 ? 's' : ''} hosts off for a while${forGood > 0 ? `, ${forGood} for good` : ''}${longest}.`;
}
