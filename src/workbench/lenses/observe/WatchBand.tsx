'use client';
/** The band of time of a watch: who was root when, who was silent, what changed; played as the clock plays a run, each instant on the map. */
import { memo, useEffect, useMemo, useState, type ReactNode } from 'react';
import type { WatchView } from '../../../contract/observe';
import { bandOf, type Mark, type PortLane, type Span } from '../../../core/exchange/observation/watch/band';
import { rootsOf, standsText } from '../../../core/exchange/observation/watch/events';
import { observationSchema, type Observation } from '../../../core/exchange/observation/observation';
import { api } from '../../state/api';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { strandStyle } from '../../ui/strandStyle';
import { TextButton } from '../../ui/TextButton';
import styles from '../shared/clock.module.css';
import { Hand } from '../shared/time/Hand';
import { LaneList, LaneName, ROW } from '../shared/time/LaneList';
import type { Scale, ScaleKind } from '../shared/time/scale';
import { PortBar } from '../shared/time/StateBar';
import { Transport, type SpeedChoice } from '../shared/time/Transport';
import { placeOf, useObservedTime, type ObservedTime } from './observedTime';
import room from './observe.module.css';
import { timeText } from './timeText';
import { laneText, watchLanesOf, type WatchLane } from './watchLanes';

/** How wide the lanes' names are. */
const NAMES = 216;

const SPEEDS: readonly SpeedChoice[] = [
  [1, '×1', 'as fast as life'],
  [60, '×60', 'a minute each second'],
  [600, '×600', 'ten minutes each second'],
  ['changes', 'by change', 'a change each second'],
];

/** How the band is drawn. */
interface Drawn {
  /** Ports of all trees, not of those shown alone. */
  readonly all: boolean;
  readonly kind: ScaleKind;
}

interface TransportProps {
  readonly time: ObservedTime;
  readonly drawn: Drawn;
  readonly draw: (drawn: Drawn) => void;
}

function WatchTransport({ time, drawn, draw }: TransportProps) {
  const store = useWorkbenchStore();
  return (
    <div className={styles.transport}>
      <Transport time={time} speeds={SPEEDS} />
      <label className={styles.tick}>
        <input
          type="checkbox"
          checked={drawn.all}
          onChange={(event) => draw({ ...drawn, all: event.target.checked })}
        />{' '}
        all trees
      </label>
      <label
        className={styles.tick}
        title="every second as wide as any other; without it, quiet stretches are drawn shorter"
      >
        <input
          type="checkbox"
          checked={drawn.kind === 'even'}
          onChange={(event) => draw({ ...drawn, kind: event.target.checked ? 'even' : 'busy' })}
        />{' '}
        even time scale
      </label>
      {time.shown !== null && (
        <TextButton does="plain" onClick={() => store.getState().look(null)}>
          go back to now
        </TextButton>
      )}
    </div>
  );
}

/** `beside`: what happened, in sentences. */
export function WatchBand({
  view,
  beside,
}: {
  readonly view: WatchView;
  readonly beside: (time: ObservedTime) => ReactNode;
}) {
  // Of what came before the events that are known, nothing can be said.
  const [known] = view.events;
  const start = known && known.id !== view.oldest ? known.at : view.first!;
  const time = useObservedTime(view, start);
  const [drawn, draw] = useState<Drawn>({ all: false, kind: 'busy' });
  return (
    <>
      <WatchTransport time={time} drawn={drawn} draw={draw} />
      <div className={room.happened}>
        <BandLanes view={view} from={start} time={time} drawn={drawn} />
        {beside(time)}
      </div>
    </>
  );
}

interface LanesProps {
  readonly view: WatchView;
  readonly from: number;
  readonly time: ObservedTime;
  readonly drawn: Drawn;
}

function BandLanes({ view, from, time, drawn: { all, kind } }: LanesProps) {
  // Since the last event nothing has changed.
  const last = useReadingAt(view.events.at(-1)?.at ?? view.first!);
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const to = Math.max(view.last!, from + 1000);
  const switches = useWorkbench((state) => state.design.switches);
  const band = useMemo(() => {
    const events = view.events.map((event) => ({ at: event.at, event }));
    // A root that does not answer at the end is known from the design.
    const names = new Map<string | null, string>([
      ...switches.map((sw) => [sw.mac, sw.name ?? sw.id] as const),
      ...(last?.switches ?? []).map((sw) => [sw.mac, sw.name || sw.source] as const),
    ]);
    const roots = new Map(last ? [...rootsOf(last)].map(([tree, mac]) => [tree, names.get(mac) ?? mac]) : []);
    return bandOf(events, roots, from, to);
  }, [view.events, last, switches, from, to]);
  const trees = all || shownTrees.length === 0 ? null : shownTrees;
  const lanes = useMemo(() => watchLanesOf(band, last, trees), [band, last, trees]);
  const go = useGo(last);
  return (
    <section className={room.band} aria-label="Band of time">
      <LaneList
        lanes={lanes}
        names={NAMES}
        moments={time.moments}
        until={time.until}
        from={timeOfDay(from)}
        kind={kind}
        head="time of day"
        tick={(t) => timeText(from + t / 1000)}
        name={(lane) => (
          <LaneName label={lane.label} more={lane.more} width={NAMES} go={lane.place && go(lane.place)} />
        )}
        bars={(lane, { scale, axis }) => <WatchBars lane={lane} scale={scale} axis={axis} start={from} end={to} />}
        hand={(laneRoom) => <Hand time={time} room={laneRoom} />}
        empty="Nothing has been read yet."
      />
    </section>
  );
}

/** Where on a clock's face a moment is, microseconds since midnight. */
function timeOfDay(at: number): number {
  const midnight = new Date(at);
  midnight.setHours(0, 0, 0, 0);
  return (at - midnight.getTime()) * 1000;
}

/** Goes to a place of the design; where it has none, there is nowhere to go. */
function useGo(last: Observation | null): (place: NonNullable<WatchLane['place']>) => (() => void) | null {
  const store = useWorkbenchStore();
  return (place) =>
    last &&
    (() => {
      const item = placeOf(store.getState().design, last, place);
      if (item) store.getState().goTo(item);
    });
}

/** Where a moment stands, pixels. */
type At = (moment: number) => number;

interface BarsProps {
  readonly lane: WatchLane;
  readonly scale: Scale;
  /** Pixels. */
  readonly axis: number;
  /** When the axis begins and ends, milliseconds. */
  readonly start: number;
  readonly end: number;
}

/** What the last reading told goes on: that much beyond the axis, pixels. */
const GOES_ON = 12;

const WatchBars = memo(function WatchBars({ lane, scale, axis, start, end }: BarsProps) {
  const at: At = (moment) => scale.at((moment - start) * 1000) * axis;
  const until: At = (moment) => (moment >= end ? axis + GOES_ON : at(moment));
  const { drawn } = lane;
  return (
    <svg width={axis} height={ROW} className={styles.bars} aria-label={laneText(lane)} role="img">
      <line x1={0} x2={axis} y1={ROW - 2.5} y2={ROW - 2.5} stroke="var(--rule)" />
      {drawn.as === 'spans' ? (
        drawn.spans.map((span) => <SpanBar key={span.from} span={span} from={at(span.from)} to={until(span.to)} />)
      ) : drawn.as === 'marks' ? (
        drawn.marks.map((mark) => <MarkBar key={`${mark.kind} ${mark.at}`} mark={mark} x={at(mark.at)} axis={axis} />)
      ) : (
        <PortBars of={drawn.of} at={at} until={until} />
      )}
    </svg>
  );
});

function PortBars({ of, at, until }: { readonly of: PortLane; readonly at: At; readonly until: At }) {
  const index = useWorkbench(({ solution, shownTrees }) => {
    const tree = of.trees.find((each) => shownTrees.includes(each)) ?? of.trees[0];
    return solution?.trees.findIndex(({ id }) => id === tree) ?? 0;
  });
  return of.stretches.map(({ from, to, role, state }) => (
    <PortBar
      key={from}
      from={at(from)}
      to={until(to)}
      state={state}
      role={role}
      colour={strandStyle(Math.max(0, index)).colour}
      title={`${timeText(from)} to ${timeText(to)}: ${standsText({ role, state })}`}
    />
  ));
}

/** Who or how many, from when to when. */
function SpanBar({
  span: { from, to, text },
  ...x
}: {
  readonly span: Span;
  readonly from: number;
  readonly to: number;
}) {
  const letters = Math.floor((x.to - x.from - 10) / 6.6);
  return (
    <g>
      <rect x={x.from} y={2} width={Math.max(1.5, x.to - x.from)} height={ROW - 5} fill="var(--accent-wash)">
        <title>{`${text}, ${timeText(from)} to ${timeText(to)}`}</title>
      </rect>
      <line x1={x.from + 1} x2={x.from + 1} y1={2} y2={ROW - 3} stroke="var(--accent)" strokeWidth={2} />
      {letters >= 2 && (
        <text x={x.from + 6} y={ROW - 6.2} className={room.spanText} pointerEvents="none">
          {text.length > letters ? `${text.slice(0, letters - 1)}…` : text}
        </text>
      )}
    </g>
  );
}

/** Most sentences of a mark's title. */
const MOST = 12;

interface MarkProps {
  readonly mark: Mark;
  /** Pixels. */
  readonly x: number;
  readonly axis: number;
}

function MarkBar({ mark: { at, count, texts }, x, axis }: MarkProps) {
  const isLast = x > axis - 24;
  const rest = texts.length > MOST ? [`and ${texts.length - MOST} more`] : [];
  return (
    <g>
      <rect x={x - 1} y={3} width={3} height={ROW - 6} fill="var(--ink-soft)" />
      {count > 1 && (
        <text x={isLast ? x - 4 : x + 5} textAnchor={isLast ? 'end' : 'start'} y={ROW - 6.2} className={room.spanText}>
          {count}
        </text>
      )}
      <rect x={x - 5} y={0} width={14} height={ROW} fill="transparent">
        <title>{[timeText(at), ...texts.slice(0, MOST), ...rest].join('\n')}</title>
      </rect>
    </g>
  );
}

/** Who is root at the end, and what interfaces are called, is in a reading. */
function useReadingAt(at: number): Observation | null {
  const id = useWorkbench((state) => state.id);
  const [reading, setReading] = useState<Observation | null>(null);
  useEffect(() => {
    let gone = false;
    void api.readingAt(id, at).then((answer) => {
      const read = answer.ok ? observationSchema.safeParse(answer.value.observation) : null;
      if (!gone && read?.success) setReading(read.data);
    });
    return () => {
      gone = true;
    };
  }, [id, at]);
  return reading;
}
