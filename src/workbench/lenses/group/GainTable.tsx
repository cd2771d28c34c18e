'use client';
/** What instances gain: trees to keep, BPDUs to send and links to share, between one tree for all and one tree a VLAN. */
import { isMultiple } from '../../../core/model/document';
import { useMemo, useState, type ReactNode } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Command } from '../../../core/edit/commands';
import type { Design } from '../../../core/model/document';
import type { GainRow } from '../../../core/analysis/regions/grouping';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import { askGain, askGoals } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { LoadChart } from '../shared/LoadChart';
import { loadRows, percentText } from '../shared/loadRows';
import { Asking } from '../shared/Asking';
import { GoalChoice } from './GoalChoice';
import styles from '../shared/group.module.css';

const KINDS: Readonly<Record<GainRow['kind'], string>> = {
  one: 'one tree for all',
  instances: 'instances',
  vlans: 'one tree a VLAN',
};

export function GainTable() {
  const design = useFollowing((state) => state.design);
  const multiple = design.switches.some((sw) => sw.up && isMultiple(sw));
  return multiple ? (
    <Gain design={design} commands={AS_IT_IS} heading="As it is, beside one tree for all and one tree a VLAN" />
  ) : (
    <GainOfGoals design={design} />
  );
}

const AS_IT_IS: readonly Command[] = [];

/** Where no switch runs MSTP yet: what a grouping would gain. */
function GainOfGoals({ design }: { readonly design: Design }) {
  const { status, stop } = useAsk(useMemo(() => askGoals(design), [design]));
  const [key, setKey] = useState('');
  if (status.kind !== 'found') return <Asking status={status} stop={stop} what="Looking for ways to group the VLANs" />;
  const goal = status.value.find((each) => each.key === key) ?? status.value[0]!;
  return (
    <Gain
      design={design}
      commands={goal.commands}
      heading={
        <>
          Once grouped: <GoalChoice label="Grouping" goals={status.value} chosen={goal} choose={setKey} />
        </>
      }
    />
  );
}

interface GainProps {
  readonly design: Design;
  /** What makes the instances; nothing where they are there. */
  readonly commands: readonly Command[];
  readonly heading: ReactNode;
}

function Gain({ design, commands, heading }: GainProps) {
  const store = useWorkbenchStore();
  const { status, stop } = useAsk(useMemo(() => askGain(design, commands), [design, commands]));
  const rows = status.kind === 'found' ? status.value : NONE;
  const [instances, vlans] = [rows.find((row) => row.kind === 'instances'), rows.find((row) => row.kind === 'vlans')];
  const bars = useMemo(
    () =>
      instances && vlans
        ? loadRows(design, instances.loads, vlans.loads).filter((row) => row.percent > 0 || (row.was ?? 0) > 0)
        : [],
    [design, instances, vlans],
  );
  if (rows.length < 3 || !instances || !vlans)
    return <Asking status={status} stop={stop} what="Solving the network in other modes" />;
  return (
    <div className={styles.gain}>
      <section aria-label="Figures">
        <h3>{heading}</h3>
        <div className={styles.bars}>
          <Figure title="Trees a switch keeps" rows={rows} value={(row) => row.cost.trees} text={String} />
          <Figure title="BPDUs a second, all switches" rows={rows} value={(row) => row.cost.sent} text={rate} />
          <Figure title="Idle links" rows={rows} value={(row) => row.loads.idle.length} text={String} />
          <Figure
            title="Most loaded link"
            rows={rows}
            value={(row) => (row.loads.peak?.share ?? 0) * 100}
            text={percentText}
          />
        </div>
        <p className={styles.verdict}>
          {vlans.cost.trees} trees become {instances.cost.trees} a switch, and {rate(vlans.cost.sent)} BPDUs a second{' '}
          {rate(instances.cost.sent)}; {sharingText(rows)}.
        </p>
      </section>
      <section aria-label="Sharing by link">
        <h3>Load of the links with instances, in per cent of their speed; outlines: one tree a VLAN</h3>
        <div className={styles.chartRoom}>
          <LoadChart
            rows={bars}
            trees={instances.trees}
            onOpen={(link) => store.getState().goTo({ kind: 'link', link })}
          />
        </div>
      </section>
    </div>
  );
}

const NONE: readonly GainRow[] = [];
const rate = (value: number): string => String(Math.round(value * 10) / 10);

/** How much of the sharing that a tree for each VLAN allows is left. */
function sharingText(rows: readonly GainRow[]): string {
  const idle = (kind: GainRow['kind']): number => rows.find((row) => row.kind === kind)!.loads.idle.length;
  const [one, is, all] = [idle('one'), idle('instances'), idle('vlans')];
  if (is === all) return `as many links idle as with a tree for each VLAN, ${is}`;
  if (is < all) return `${is} links idle instead of ${all}`;
  return is < one
    ? `${is} links idle, ${all} would with a tree for each VLAN, ${one} with one for all`
    : `as many links idle as with one tree for all, ${is}`;
}

interface FigureProps {
  readonly title: string;
  readonly rows: readonly GainRow[];
  readonly value: (row: GainRow) => number;
  readonly text: (value: number) => string;
}

const TICK = { fill: 'var(--ink-soft)', fontSize: 11.5, fontFamily: 'var(--sans)' };

/** Three bars with their figures. */
function Figure({ title, rows, value, text }: FigureProps) {
  const data = rows.map((row) => ({ name: KINDS[row.kind], value: value(row), text: `${text(value(row))}` }));
  const figures = new Map(data.map((each) => [each.name, each.text]));
  return (
    <figure
      className={styles.figure}
      aria-label={`${title}: ${data.map((each) => `${each.name} ${each.text}`).join(', ')}`}
    >
      <figcaption>{title}</figcaption>
      <ResponsiveContainer width="100%" height={70}>
        <BarChart
          layout="vertical"
          data={data}
          margin={{ top: 0, right: 0, bottom: 0, left: 0 }}
          barSize={11}
          accessibilityLayer={false}
        >
          <XAxis type="number" hide domain={[0, Math.max(1e-9, ...data.map((each) => each.value))]} />
          <YAxis
            type="category"
            dataKey="name"
            width={104}
            interval={0}
            tick={TICK}
            axisLine={false}
            tickLine={false}
          />
          <YAxis
            yAxisId="figures"
            orientation="right"
            type="category"
            dataKey="name"
            width={54}
            interval={0}
            tick={{ ...TICK, fill: 'var(--ink)', fontFamily: 'var(--mono)' }}
            tickFormatter={(name: string) => figures.get(name) ?? ''}
            axisLine={false}
            tickLine={false}
          />
          <Bar dataKey="value" fill="var(--ink-soft)" isAnimationActive={false} minPointSize={1} />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}
