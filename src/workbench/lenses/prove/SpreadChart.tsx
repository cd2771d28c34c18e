'use client';
/** How many failures cut some pair of hosts off for how long, a part of each bar for each cause. */
import { Bar, BarChart, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { FailureRun } from '../../../core/analysis/failures/outages';
import { OUTAGE_CAUSES, type OutageCause } from '../../../core/sim/traffic/reach';
import { CAUSE_FILLS } from '../shared/causeFills';
import own from './prove.module.css';

/** Up to so many seconds. */
const BUCKETS: readonly (readonly [label: string, upTo: number])[] = [
  ['not at all', 0],
  ['to 10 ms', 0.01],
  ['to 100 ms', 0.1],
  ['to 1 s', 1],
  ['to 3 s', 3],
  ['to 10 s', 10],
  ['to 30 s', 30],
  ['longer', Infinity],
];
const FOR_GOOD = 'for good';

type Bucket = { readonly label: string; readonly none: number } & Readonly<Record<OutageCause, number>>;

/** The failures by how long they cut the worst pair off; each is counted under what cut that pair off longest. */
export function spreadOf(runs: readonly FailureRun[]): Bucket[] {
  const empty = {
    none: 0,
    ...(Object.fromEntries(OUTAGE_CAUSES.map((cause) => [cause, 0])) as Record<OutageCause, number>),
  };
  const buckets = new Map([...BUCKETS.map(([label]) => label), FOR_GOOD].map((label) => [label, { label, ...empty }]));
  for (const { pairs } of runs) {
    const worst = pairs.find(({ lasting }) => lasting) ?? pairs[0];
    const label = worst?.lasting ? FOR_GOOD : BUCKETS.find(([, upTo]) => (worst?.longest ?? 0) <= upTo)![0];
    const bucket = buckets.get(label)!;
    const cause = worst && OUTAGE_CAUSES.reduce((a, b) => ((worst.by[b] ?? 0) > (worst.by[a] ?? 0) ? b : a));
    bucket[cause ?? 'none'] += 1;
  }
  return [...buckets.values()];
}

const TICK = { fontSize: 11, fill: 'var(--ink-soft)' };

export function SpreadChart({ runs }: { readonly runs: readonly FailureRun[] }) {
  const spread = spreadOf(runs);
  const said = spread
    .map(({ label, none, ...by }) => [label, none + OUTAGE_CAUSES.reduce((sum, cause) => sum + by[cause], 0)] as const)
    .filter(([, count]) => count > 0)
    .map(([label, count]) => `${label}: ${count}`)
    .join(', ');
  return (
    <div role="img" aria-label={`Failures by how long they cut somebody off. ${said}.`}>
      <ResponsiveContainer width="100%" height={126}>
        <BarChart
          data={spread}
          margin={{ top: 6, right: 8, bottom: 0, left: 0 }}
          barSize={26}
          accessibilityLayer={false}
        >
          <XAxis dataKey="label" tick={TICK} interval={0} height={20} stroke="var(--rule-strong)" />
          <YAxis tick={TICK} allowDecimals={false} width={34} stroke="var(--rule-strong)" />
          <Legend
            verticalAlign="top"
            align="right"
            height={18}
            iconSize={9}
            wrapperStyle={{ fontSize: 12 }}
            formatter={(text: string) => <span className={own.legend}>{text}</span>}
          />
          <Tooltip
            cursor={{ fill: 'var(--accent-wash)' }}
            contentStyle={{ background: 'var(--raised)', border: '1px solid var(--rule-strong)', fontSize: 12 }}
            wrapperStyle={{ zIndex: 5 }}
            labelStyle={{ color: 'var(--ink)' }}
            itemStyle={{ color: 'var(--ink)' }}
          />
          <Bar dataKey="none" name="nobody cut off" stackId="all" fill="var(--rule-strong)" isAnimationActive={false} />
          {OUTAGE_CAUSES.map((cause) => (
            <Bar key={cause} dataKey={cause} stackId="all" fill={CAUSE_FILLS[cause]} isAnimationActive={false} />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
