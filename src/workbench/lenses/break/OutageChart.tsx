'use client';
/** The time that pairs were cut off as bars, a part for each cause. */
import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { PairCost } from '../../../core/sim/report/cost';
import { OUTAGE_CAUSES } from '../../../core/sim/traffic/reach';
import { NameTick } from '../../ui/NameTick';
import { CAUSE_FILLS } from '../shared/causeFills';
import styles from '../shared/clock.module.css';
import { durationText } from '../../../core/base/words';

export interface OutageRow {
  readonly id: string;
  readonly pair: string;
  readonly vlan: number;
  readonly longest: number;
  readonly total: number;
  readonly cuts: number;
  readonly why: string;
  readonly by: PairCost['by'];
  readonly cost: PairCost;
}

const MOST_BARS = 30;
const ROW = 21;

export function OutageChart({
  rows,
  onOpen,
}: {
  readonly rows: readonly OutageRow[];
  readonly onOpen: (row: OutageRow) => void;
}) {
  const drawn = [...rows].sort((a, b) => b.total - a.total).slice(0, MOST_BARS);
  const most = Math.max(...drawn.map((row) => row.total));
  const unit = most < 1 ? 1000 : 1;
  const figures = new Map(drawn.map((row) => [row.id, durationText(row.total)]));
  const names = new Map(drawn.map((row) => [row.id, row.pair]));
  return (
    <div
      role="img"
      aria-label={`Time cut off in all, pair by pair. The most: ${drawn[0]?.pair}, ${durationText(drawn[0]?.total ?? 0)}. The table has the figures.`}
    >
      <ResponsiveContainer width="100%" height={drawn.length * ROW + 24}>
        <BarChart
          layout="vertical"
          data={drawn}
          margin={{ top: 0, right: 0, bottom: 0, left: 0 }}
          barSize={12}
          accessibilityLayer={false}
        >
          <XAxis
            type="number"
            height={20}
            tick={TICK}
            stroke="var(--rule-strong)"
            tickFormatter={(value: number) => `${Number((value * unit).toPrecision(3))} ${unit === 1 ? 's' : 'ms'}`}
          />
          <YAxis
            type="category"
            dataKey="id"
            width={228}
            interval={0}
            tick={<NameTick most={31} size={11} nameOf={(id) => names.get(id) ?? id} />}
            stroke="var(--rule-strong)"
          />
          <YAxis
            yAxisId="figures"
            orientation="right"
            type="category"
            dataKey="id"
            width={74}
            interval={0}
            tick={{ ...TICK, fill: 'var(--ink)' }}
            tickFormatter={(id: string) => figures.get(id) ?? ''}
            axisLine={false}
            tickLine={false}
          />
          <Tooltip
            isAnimationActive={false}
            cursor={{ fill: 'var(--accent-wash)' }}
            content={({ payload }) => <Tip row={payload[0]?.payload as OutageRow | undefined} />}
          />
          {OUTAGE_CAUSES.map((cause) => (
            <Bar
              key={cause}
              dataKey={(row: OutageRow) => row.by[cause] ?? 0}
              name={cause}
              stackId="time"
              fill={CAUSE_FILLS[cause]}
              isAnimationActive={false}
              cursor="pointer"
              onClick={(_, at) => drawn[at] && onOpen(drawn[at])}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}

const TICK = { fill: 'var(--ink-soft)', fontSize: 11, fontFamily: 'var(--mono)' };

function Tip({ row }: { readonly row: OutageRow | undefined }) {
  if (!row) return null;
  return (
    <div className={styles.tip}>
      <b>{row.pair}</b>, VLAN {row.vlan}
      {Object.entries(row.by).map(([cause, seconds]) => (
        <div key={cause}>
          {cause}: {durationText(seconds)}
        </div>
      ))}
    </div>
  );
}
