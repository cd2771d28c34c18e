'use client';
/** The load of each link as a bar, stacked by tree; what it was before a proposal as an outline. */
import {
  Bar,
  BarChart,
  LabelList,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
  type LabelProps,
} from 'recharts';
import { treeName, type LinkId, type TreeId } from '../../../core/model/ids';
import { NameTick } from '../../ui/NameTick';
import { strandStyle } from '../../ui/strandStyle';
import { percentText, shortName, type LoadRow } from './loadRows';
import styles from './steering.module.css';

/** Most links in the chart; the table has all. */
export const MOST_BARS = 40;
const ROW = 22;
const NAMES = 190;
const FIGURES = 132;

interface Props {
  readonly rows: readonly LoadRow[];
  readonly trees: readonly TreeId[];
  readonly onOpen: (link: LinkId) => void;
}

export function LoadChart({ rows, trees, onOpen }: Props) {
  const drawn = rows.slice(0, MOST_BARS);
  const compared = drawn.some((row) => row.was !== null);
  const figures = new Map(
    drawn.map((row) => [row.id, row.percent > 0 ? `${percentText(row.percent)}, ${row.load}` : 'none']),
  );
  const figuresOf = (id: LinkId): string => figures.get(id) ?? '';
  const most = Math.max(1, ...drawn.map((row) => Math.max(row.percent, row.was ?? 0)));
  const loaded = trees
    .map((id, index) => ({ id, index }))
    .filter(({ id }) => drawn.some((row) => (row.byTree[id] ?? 0) > 0));
  return (
    <div
      className={styles.chart}
      role="img"
      aria-label={`Load of ${drawn.length} links in per cent of their speed. The most loaded: ${drawn[0] ? `${drawn[0].link}, ${percentText(drawn[0].percent)}` : 'none'}. The table has the figures.`}
    >
      <ResponsiveContainer width="100%" height={drawn.length * ROW + 26}>
        <BarChart
          layout="vertical"
          data={[...drawn]}
          margin={{ top: 2, right: 0, bottom: 0, left: 0 }}
          barSize={13}
          barGap={-13}
          accessibilityLayer={false}
        >
          <XAxis
            type="number"
            domain={[0, most > 100 ? Math.ceil(most / 50) * 50 : Math.min(100, Math.ceil(most / 5) * 5)]}
            unit=" %"
            height={22}
            tick={TICK}
            stroke="var(--rule-strong)"
          />
          <YAxis
            type="category"
            dataKey="link"
            width={NAMES}
            interval={0}
            tick={<NameTick most={25} />}
            stroke="var(--rule-strong)"
          />
          <YAxis
            yAxisId="figures"
            orientation="right"
            type="category"
            dataKey="id"
            width={FIGURES}
            interval={0}
            tick={{ ...TICK, fill: 'var(--ink)' }}
            tickFormatter={figuresOf}
            axisLine={false}
            tickLine={false}
          />
          <Tooltip
            isAnimationActive={false}
            cursor={{ fill: 'var(--accent-wash)' }}
            content={({ payload }) => <Tip row={payload[0]?.payload as LoadRow | undefined} />}
          />
          {most > 100 && (
            <ReferenceLine
              x={100}
              stroke="var(--warn)"
              strokeDasharray="4 3"
              label={{ value: 'full', position: 'insideBottomLeft', fill: 'var(--warn)', fontSize: 11 }}
            />
          )}
          {compared && (
            <Bar dataKey="was" fill="none" stroke="var(--ink-soft)" strokeDasharray="3 2" isAnimationActive={false} />
          )}
          {loaded.map(({ id, index }) => (
            <Bar
              key={id}
              dataKey={(row: LoadRow) => row.byTree[id] ?? 0}
              name={treeName(id)}
              stackId="load"
              fill={strandStyle(index).colour}
              stroke="var(--paper)"
              isAnimationActive={false}
              onClick={(_, at) => drawn[at] && onOpen(drawn[at].id)}
              cursor="pointer"
            >
              <LabelList content={(props) => <Inside {...props} text={shortName(id)} />} />
            </Bar>
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}

const TICK = { fill: 'var(--ink-soft)', fontSize: 11.5, fontFamily: 'var(--mono)' };

/** The tree's number where its part of a bar has room: colour is not the only way to tell it. */
function Inside({ x, y, width, height, text }: LabelProps & { readonly text: string }) {
  if (Number(width) < text.length * 7 + 6) return null;
  return (
    <text
      x={Number(x) + Number(width) / 2}
      y={Number(y) + Number(height) / 2 + 3.6}
      textAnchor="middle"
      fontSize={10.5}
      fontWeight={700}
      fontFamily="var(--mono)"
      fill="var(--paper)"
    >
      {text}
    </text>
  );
}

function Tip({ row }: { readonly row: LoadRow | undefined }) {
  if (!row) return null;
  return (
    <div className={styles.tip}>
      <b>{row.link}</b>, {row.speed}
      <br />
      {row.percent > 0 ? `${percentText(row.percent)}: ${row.trees}` : row.state}
      {row.was !== null && (
        <>
          <br />
          before: {percentText(row.was)}
        </>
      )}
    </div>
  );
}
