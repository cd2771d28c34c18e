'use client';
/** Every port with where it leads, the guards that it has, and what comes of them. */
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import {
  protectionCounts,
  protectionOf,
  type Lead,
  type Protection,
  type Verdict,
} from '../../../core/analysis/guards/protection';
import { hasLoopProbe } from '../../../core/model/guard';
import type { Network } from '../../../core/topology/network';
import { switchName } from '../../../core/tree/explain/phrases';
import { useFollowing } from '../../state/context';
import { farEndsOf } from '../../state/farEnds';
import type { Item } from '../../state/selection';
import styles from '../../ui/table.module.css';
import { ItemTable } from '../shared/ItemTable';

interface Row {
  readonly id: string;
  readonly switch: string;
  readonly port: string;
  readonly leads: string;
  readonly to: string;
  readonly verdict: string;
  readonly guards: string;
  readonly why: string;
  readonly item: Item;
}

const numeric = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });

const COLUMNS: GridColDef<Row>[] = [
  { field: 'switch', headerName: 'Switch', width: 104 },
  { field: 'port', headerName: 'Port', width: 64, sortComparator: numeric },
  { field: 'leads', headerName: 'Leads', width: 126 },
  { field: 'verdict', headerName: 'Verdict', width: 82 },
  { field: 'guards', headerName: 'Guards', width: 190 },
  { field: 'why', headerName: 'Why', flex: 1, minWidth: 400 },
  { field: 'to', headerName: 'To', width: 140 },
];
const itemOf = (row: Row): Item => row.item;

export const VERDICTS: Readonly<Record<Verdict, string>> = {
  guarded: 'guarded',
  open: 'open',
  harms: 'harms',
  idle: 'idle',
  plain: '',
};
export const LEADS: Readonly<Record<Lead, string>> = {
  edge: 'to an edge',
  free: 'nowhere yet',
  'toward the root': 'toward the root',
  'away from the root': 'away from the root',
};

function rowOf(network: Network, to: string, { p, switch: sw, port, lead, bpduGuard, verdict, why }: Protection): Row {
  const own = network.ports[p]!;
  const guards = [
    bpduGuard && (own.bpduGuard === undefined ? 'BPDU guard, by its switch' : 'BPDU guard'),
    own.bpduGuard === false && 'no BPDU guard',
    hasLoopProbe(own, network.switches[network.owner[p]!]!) && 'loop probe',
    own.rootGuard && 'root guard',
    own.loopGuard && 'loop guard',
    own.restrictedTcn && 'restricted topology change',
    !own.bpduRx && 'takes no BPDU in',
    !own.bpduTx && 'sends no BPDU',
  ];
  return {
    id: String(p),
    switch: switchName(network.switches[network.owner[p]!]!),
    port,
    leads: LEADS[lead],
    to,
    verdict: VERDICTS[verdict],
    guards: guards.filter(Boolean).join(', '),
    why,
    item: { kind: 'port', switch: sw, port },
  };
}

export function GuardTable() {
  const solution = useFollowing((state) => state.solution);
  const all = useMemo(() => (solution ? protectionOf(solution) : []), [solution]);
  const rows = useMemo(() => {
    if (!solution) return [];
    const farEnd = farEndsOf(solution.network.design);
    const order = [...all].sort((a, b) => URGENT.indexOf(a.verdict) - URGENT.indexOf(b.verdict));
    return order.map((each) => rowOf(solution.network, farEnd(each.switch, each.port)?.text ?? '', each));
  }, [solution, all]);
  if (rows.length === 0)
    return <p className={styles.empty}>No switch runs spanning tree yet: there is nothing to guard.</p>;
  return (
    <>
      <p className={styles.summary}>{countsText(all)}</p>
      <ItemTable label="Guards" what="ports" example="lodge open" rows={rows} columns={COLUMNS} itemOf={itemOf} />
    </>
  );
}

/** What wants looking at comes first. */
const URGENT: readonly Verdict[] = ['harms', 'open', 'idle', 'guarded', 'plain'];

/** `Edges: 6 guarded, 4 open. Toward the root: 2 of 14 guarded.` */
export function countsText(all: readonly Protection[]): string {
  const counts = protectionCounts(all);
  const said = (lead: Lead, name: string): string[] => {
    const own = counts.get(lead);
    if (!own) return [];
    const parts = (['guarded', 'open', 'harms', 'idle', 'plain'] as const).flatMap((verdict) => {
      const count = own.get(verdict);
      return count ? [`${count} ${verdict === 'plain' ? 'without a guard' : VERDICTS[verdict]}`] : [];
    });
    return [`${name}: ${parts.join(', ')}.`];
  };
  return [
    ...said('edge', 'Edges'),
    ...said('free', 'Ports that lead nowhere yet'),
    ...said('toward the root', 'Toward the root'),
    ...said('away from the root', 'Away from it'),
  ].join(' ');
}
