'use client';
/** How flows spread over a bundle's members by its hash, and where they go when a member is lost. */
import { useMemo, useState } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { HASH_POLICIES } from '../../../core/model/document';
import type { HashPolicy } from '../../../core/model/document';
import { bucketShares, hostFlows, madeUpFlows, spreadOf, type HostFlows } from '../../../core/analysis/sharing/flows';
import { useFollowing } from '../../state/context';
import { speedText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import own from './bundle.module.css';
import { useChosenEnd } from './useChosenEnd';
import { Select, type Option } from '../../ui/Select';

const COUNTS = [20, 100, 1000] as const;
/** Most flows in the table; the chart counts all. */
const MOST_ROWS = 200;

export function FlowsTable() {
  const { bundles, settled, end, choice } = useChosenEnd();
  const solution = useFollowing((state) => state.solution);
  const [source, setSource] = useState<'hosts' | number>('hosts');
  const [seed, setSeed] = useState(1);
  const [policy, setPolicy] = useState<HashPolicy | null>(null);
  const [lost, setLost] = useState('');
  const between = useMemo(
    () => (source === 'hosts' && solution && end ? hostFlows(solution, end) : null),
    [solution, source, end],
  );
  const flows = useMemo(
    () => (source === 'hosts' ? (between?.sent ?? []) : madeUpFlows(source, seed)),
    [between, source, seed],
  );
  if (!end)
    return <p className={own.hint}>No bundle yet: choose links that join the same two switches, and bundle them.</p>;
  const active = settled.ends[end.index]!.active;
  const hash = policy ?? end.hash;
  const gone = end.members.find((m) => bundles.members[m]!.id === lost && active.includes(m)) ?? null;
  const { rows, members } = spreadOf(bundles, end, active, flows, hash, gone);
  const moved = rows.filter((row) => row.after !== row.member).length;
  const shares = bucketShares(end.members.length);
  const one = bundles.members[active[0] ?? end.members[0]!]!.speed;
  return (
    <div className={own.page}>
      <div className={own.line}>
        {choice}
        <label>
          Flows{' '}
          <Select
            label="Flows"
            value={String(source)}
            options={[
              ['hosts', 'between hosts, where they cross it'],
              ...COUNTS.map((count): Option<string> => [String(count), `${count} made up, as if they crossed it`]),
            ]}
            choose={(to) => setSource(to === 'hosts' ? 'hosts' : Number(to))}
          />
        </label>
        {source !== 'hosts' && (
          <button type="button" className={own.plain} onClick={() => setSeed(seed + 1)}>
            others
          </button>
        )}
        <label>
          Hash{' '}
          <Select
            label="Hash"
            value={hash}
            options={HASH_POLICIES.map((each) => [each, `layer ${each}${each === end.hash ? ', as set' : ''}`])}
            choose={setPolicy}
          />
        </label>
        <label>
          Lost{' '}
          <Select
            label="Lost member"
            value={gone === null ? '' : lost}
            options={[
              ['', 'no member'],
              ...active.map((m): Option<string> => [bundles.members[m]!.id, bundles.members[m]!.id]),
            ]}
            choose={setLost}
          />
        </label>
      </div>
      <p className={own.lead}>
        {active.length === 0
          ? 'No member is active: no flow passes.'
          : `${counted(rows.length, source === 'hosts' ? 'flow' : 'made-up flow')} over ${active.length} of ${end.members.length} members. All frames of a flow take one member, so that they stay in order: a single flow never gets more than ${speedText(one)}.`}
        {between !== null && ` ${elsewhere(between, end.ownerName)}`}
        {gone !== null && ` Without ${lost}, ${moved} flows move and the others stay where they are.`}
        {shares.most > shares.least &&
          ` ${end.members.length} members share ${shares.of} buckets: some get ${shares.most}, some ${shares.least}.`}
      </p>
      <div className={own.split}>
        <div
          role="img"
          aria-label={`Flows by member: ${members.map(({ id, flows: count, after }) => `${id} ${count}${gone !== null ? `, then ${after}` : ''}`).join('; ')}`}
          className={own.chart}
        >
          <ResponsiveContainer width="100%" height={members.length * 30 + 34}>
            <BarChart
              layout="vertical"
              data={[...members]}
              margin={{ top: 2, right: 8, bottom: 0, left: 0 }}
              barSize={9}
              barGap={1}
              accessibilityLayer={false}
            >
              <XAxis type="number" allowDecimals={false} height={24} tick={TICK} stroke="var(--rule-strong)" />
              <YAxis type="category" dataKey="id" width={64} interval={0} tick={TICK} stroke="var(--rule-strong)" />
              <YAxis
                yAxisId="figures"
                orientation="right"
                type="category"
                dataKey="id"
                width={204}
                interval={0}
                tick={{ ...TICK, fill: 'var(--ink)' }}
                axisLine={false}
                tickLine={false}
                tickFormatter={(id: string) =>
                  figure(
                    members.find((each) => each.id === id)!,
                    gone !== null,
                  )
                }
              />
              <Bar dataKey="flows" fill="var(--strand-0)" isAnimationActive={false} />
              {gone !== null && <Bar dataKey="after" fill="none" stroke="var(--strand-1)" isAnimationActive={false} />}
            </BarChart>
          </ResponsiveContainer>
        </div>
        <div className={own.scroll} tabIndex={0} role="region" aria-label="Table of flows">
          <table className={own.flows} aria-label="Flows by member">
            <thead>
              <tr>
                <th scope="col">From</th>
                <th scope="col">To</th>
                <th scope="col">Member</th>
                {gone !== null && <th scope="col">{`Without ${lost}`}</th>}
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, MOST_ROWS).map((row) => (
                <tr key={row.id}>
                  <td>{row.from}</td>
                  <td>{row.to}</td>
                  <td>{row.member ?? 'none'}</td>
                  {gone !== null && <td data-moved={row.after !== row.member || undefined}>{row.after ?? 'none'}</td>}
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > MOST_ROWS && (
            <p className={own.hint}>{`and ${rows.length - MOST_ROWS} more, counted in the chart`}</p>
          )}
        </div>
      </div>
    </div>
  );
}

/** What of the flows between hosts is not in the list. */
function elsewhere({ sent, others }: HostFlows, owner: string): string {
  if (sent.length === 0 && others === 0) return 'No two hosts are in one VLAN.';
  const rest = `${counted(others, 'flow')} between hosts of one VLAN`;
  if (sent.length > 0 && others === 0) return `All flows between hosts of one VLAN leave ${owner} here.`;
  return `${rest} ${others === 1 ? 'does' : 'do'} not leave ${owner} here: ${others === 1 ? 'it takes another way' : 'they take other ways'}, or none, and ${others === 1 ? 'does' : 'do'} not count.`;
}

const figure = (
  { flows, after, buckets }: { flows: number; after: number; buckets: number },
  compared: boolean,
): string => `${flows}${compared ? ` → ${after}` : ''} flows, ${buckets} buckets`;
const TICK = { fill: 'var(--ink-soft)', fontSize: 11.5, fontFamily: 'var(--mono)' };
