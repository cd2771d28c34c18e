'use client';
/** The lanes over a common axis of time: state bars with role letters, pairs that are cut off, actions and topology changes. */
import type { MemberState } from '../../../core/modes/lacp/state';
import { memo, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Micros, RunRole, RunState } from '../../../core/modes/entity';
import { strandStyle } from '../../ui/strandStyle';
import { timeText, useClock, useClockStore } from '../../state/clock';
import { useWorkbenchStore } from '../../state/context';
import { ROLE_LETTERS } from '../../ui/words/roles';
import { counted } from '../../ui/words/units';
import { actionText } from '../../../core/sim/scenario/scenario';
import styles from '../shared/clock.module.css';
import type { Lane } from './laneRows';
import { scaleOf, ticksOf, type Scale, type ScaleKind } from './scale';

const ROW = 20;
const NAMES = 286;
/** Lanes drawn beyond the visible ones. */
const MORE = 6;
const TICK_GAP = 92;

export function Lanes({ lanes, kind }: { readonly lanes: readonly Lane[]; readonly kind: ScaleKind }) {
  const player = useClock((clock) => clock.player)!;
  const room = useRef<HTMLDivElement>(null);
  const [{ width, height, top }, setView] = useState({ width: 800, height: 200, top: 0 });
  useEffect(() => {
    const element = room.current;
    if (!element) return;
    const measure = () => setView({ width: element.clientWidth, height: element.clientHeight, top: element.scrollTop });
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    element.addEventListener('scroll', measure, { passive: true });
    return () => {
      watch.disconnect();
      element.removeEventListener('scroll', measure);
    };
  }, []);
  const axis = Math.max(100, width - NAMES - 14);
  const { moments, trace } = player;
  const scale = useMemo(() => scaleOf(kind, moments, trace.until), [kind, moments, trace]);
  const first = Math.max(0, Math.floor(top / ROW) - MORE);
  const drawn = lanes.slice(first, first + Math.ceil(height / ROW) + 2 * MORE);
  return (
    <div ref={room} className={styles.lanes}>
      <Axis scale={scale} axis={axis} />
      <div style={{ height: lanes.length * ROW, position: 'relative' }} role="list" aria-label="Lanes">
        {drawn.map((lane, i) => (
          <div key={lane.id} role="listitem" className={styles.lane} style={{ top: (first + i) * ROW, height: ROW }}>
            <LaneName lane={lane} />
            <LaneBars lane={lane} scale={scale} axis={axis} />
          </div>
        ))}
      </div>
      {lanes.length === 0 && <p className={styles.hint}>No port of these trees changes, and nobody is cut off.</p>}
      <Hand scale={scale} axis={axis} height={lanes.length * ROW} />
    </div>
  );
}

function LaneName({ lane }: { readonly lane: Lane }) {
  const store = useWorkbenchStore();
  const text = (
    <>
      {lane.label}
      {lane.trees !== '' && <small>{lane.trees}</small>}
    </>
  );
  const title = `${lane.label}${lane.trees ? `, ${lane.trees}` : ''}`;
  if (lane.kind === 'pair')
    return (
      <span className={styles.laneName} title={title}>
        {text}
      </span>
    );
  return (
    <button
      type="button"
      className={styles.laneName}
      title={title}
      onClick={() => store.getState().goTo({ kind: 'port', switch: lane.switch, port: lane.port })}
    >
      {text}
    </button>
  );
}

/** How high a bar stands for each state: the nearer to forwarding, the higher. */
const HEIGHTS: Readonly<Record<RunState, number>> = {
  disabled: 0,
  blocking: 2,
  discarding: 2,
  listening: 6,
  learning: 10,
  forwarding: 14,
};

const LaneBars = memo(function LaneBars({
  lane,
  scale,
  axis,
}: {
  readonly lane: Lane;
  readonly scale: Scale;
  readonly axis: number;
}) {
  const x = (t: Micros): number => scale.at(t) * axis;
  return (
    <svg width={axis} height={ROW} className={styles.bars} aria-label={laneText(lane)} role="img">
      <line x1={0} x2={axis} y1={ROW - 2.5} y2={ROW - 2.5} stroke="var(--rule)" />
      {lane.kind === 'pair'
        ? lane.cuts.map(({ from, to, cause }) => (
            <g key={from}>
              <rect x={x(from)} y={3} width={Math.max(2, x(to) - x(from))} height={ROW - 6} fill="var(--ink)">
                <title>{`${timeText(from)} to ${timeText(to)}: ${cause}`}</title>
              </rect>
              {x(to) - x(from) > cause.length * 6.6 + 8 && (
                <text x={x(from) + 5} y={ROW - 6.2} className={styles.cause}>
                  {cause}
                </text>
              )}
            </g>
          ))
        : lane.kind === 'member'
          ? lane.stays.map(({ from, to, state }) => (
              <MemberBar
                key={from}
                from={x(from)}
                to={x(to)}
                state={state}
                title={`${timeText(from)} to ${timeText(to)}: ${state}`}
              />
            ))
          : lane.stretches.map(({ from, to, state, role }) => (
              <Bar
                key={from}
                from={x(from)}
                to={x(to)}
                state={state}
                role={role}
                colour={strandStyle(lane.treeIndex).colour}
                title={`${timeText(from)} to ${timeText(to)}: ${role}, ${state}`}
              />
            ))}
    </svg>
  );
});

/** How high a member's bar stands: the nearer to carrying frames, the higher. */
const MEMBER_HEIGHTS: Readonly<Record<MemberState, number>> = {
  down: 0,
  waiting: 3,
  standby: 5,
  individual: 9,
  active: 14,
};

function MemberBar({
  from,
  to,
  state,
  title,
}: {
  readonly from: number;
  readonly to: number;
  readonly state: MemberState;
  readonly title: string;
}) {
  const height = MEMBER_HEIGHTS[state];
  return (
    <g>
      <rect x={from} y={2} width={Math.max(0, to - from)} height={ROW - 4} fill="transparent">
        <title>{title}</title>
      </rect>
      {height > 0 && (
        <rect
          x={from}
          y={ROW - 3 - height}
          width={Math.max(1.2, to - from)}
          height={height}
          fill="var(--ink-soft)"
          fillOpacity={state === 'active' ? 0.85 : 0.4}
          pointerEvents="none"
        />
      )}
      {height === 0 && (
        <line
          x1={from}
          x2={to}
          y1={ROW - 8}
          y2={ROW - 8}
          stroke="var(--ink-soft)"
          strokeDasharray="2 4"
          pointerEvents="none"
        />
      )}
      {to - from > state.length * 6.2 + 8 && (
        <text
          x={from + 4}
          y={ROW - 6.2}
          className={styles.letter}
          fill={state === 'active' ? 'var(--paper)' : 'var(--ink)'}
          pointerEvents="none"
        >
          {state}
        </text>
      )}
    </g>
  );
}

interface BarProps {
  readonly from: number;
  readonly to: number;
  readonly state: RunState;
  readonly role: RunRole;
  readonly colour: string;
  readonly title: string;
}

function Bar({ from, to, state, role, colour, title }: BarProps) {
  const height = HEIGHTS[state];
  const letter = role === 'disabled' ? '–' : ROLE_LETTERS[role];
  return (
    <g>
      <rect x={from} y={2} width={Math.max(0, to - from)} height={ROW - 4} fill="transparent">
        <title>{title}</title>
      </rect>
      {height > 0 && (
        <rect
          x={from}
          y={ROW - 3 - height}
          width={Math.max(1.2, to - from)}
          height={height}
          fill={colour}
          fillOpacity={state === 'forwarding' ? 1 : 0.55}
          pointerEvents="none"
        />
      )}
      {height === 0 && (
        <line
          x1={from}
          x2={to}
          y1={ROW - 8}
          y2={ROW - 8}
          stroke="var(--ink-soft)"
          strokeDasharray="2 4"
          pointerEvents="none"
        />
      )}
      {to - from > 13 && (
        <text
          x={from + 3.5}
          y={ROW - 6.4}
          className={styles.letter}
          fill={state === 'forwarding' ? 'var(--paper)' : 'var(--ink)'}
          pointerEvents="none"
        >
          {letter}
        </text>
      )}
    </g>
  );
}

const laneText = (lane: Lane): string =>
  lane.kind === 'pair'
    ? `${lane.label}, ${lane.trees}: ${lane.cuts.length === 0 ? 'reached all the time' : lane.cuts.map(({ from, to, cause }) => `cut off ${timeText(from)} to ${timeText(to)}, ${cause}`).join('; ')}`
    : lane.kind === 'member'
      ? `${lane.label}, ${lane.trees}: ${lane.stays.map(({ from, state }) => `from ${timeText(from)} ${state}`).join('; ')}`
      : `${lane.label}${lane.trees ? `, ${lane.trees}` : ''}: ${lane.stretches.map(({ from, role, state }) => `from ${timeText(from)} ${role} ${state}`).join('; ')}`;

/** Times, actions and topology changes above the lanes. */
function Axis({ scale, axis }: { readonly scale: Scale; readonly axis: number }) {
  const trace = useClock((clock) => clock.player!.trace);
  const moments = useClock((clock) => clock.player!.moments);
  const seek = useClock((clock) => clock.seek);
  const ticks = useMemo(() => ticksOf(scale, moments, trace.until, TICK_GAP / axis), [scale, moments, trace, axis]);
  const stage = useClock((clock) => clock.player!.trace.stage);
  const flushes = useMemo(() => {
    const marks = new Map<number, { readonly t: Micros; ports: number }>();
    for (const { t } of trace.flushes) {
      const at = Math.round(scale.at(t) * axis);
      const mark = marks.get(at) ?? { t, ports: 0 };
      mark.ports += 1;
      marks.set(at, mark);
    }
    return [...marks];
  }, [trace, scale, axis]);
  return (
    <div className={styles.axis}>
      <span className={styles.axisName}>actions, times, topology changes</span>
      <svg width={axis} height={34} aria-hidden="true">
        {trace.actions.map((action, i) => {
          const at = scale.at(Math.round(action.at * 1_000_000)) * axis;
          return (
            <path
              key={i}
              d={`M${at - 4} 1h8v8l-4 4l-4-4z`}
              fill="var(--accent)"
              style={{ cursor: 'pointer' }}
              onClick={() => seek(Math.round(action.at * 1_000_000))}
            >
              <title>{`${timeText(action.at * 1_000_000)}: ${actionText(stage, action)}`}</title>
            </path>
          );
        })}
        {ticks.map((t) => (
          <text
            key={t}
            x={Math.min(axis - 30, Math.max(18, scale.at(t) * axis))}
            y={24}
            textAnchor="middle"
            className={styles.tickText}
          >
            {shortTime(t)}
          </text>
        ))}
        {flushes.map(([at, { t, ports }]) => (
          <line key={at} x1={at} x2={at} y1={28} y2={34} stroke="var(--ink-soft)" strokeWidth={1.4}>
            <title>{`${timeText(t)}: topology change, addresses forgotten at ${counted(ports, 'port of a tree', 'ports of trees')}`}</title>
          </line>
        ))}
      </svg>
    </div>
  );
}

const shortTime = (t: Micros): string => `${Number((t / 1_000_000).toFixed(3))} s`;

/** The line that stands at the instant shown; pulling it, or the keys, moves it. */
function Hand({ scale, axis, height }: { readonly scale: Scale; readonly axis: number; readonly height: number }) {
  const t = useClock((clock) => clock.t);
  const until = useClock((clock) => clock.player!.trace.until);
  const store = useClockStore();
  const pulled = useRef(false);
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const { left } = event.currentTarget.getBoundingClientRect();
    store.getState().seek(scale.back(Math.max(0, Math.min(1, (event.clientX - left) / axis))));
  };
  const onKey = (event: KeyboardEvent) => {
    const { step, seek } = store.getState();
    if (event.key === 'ArrowRight') step(1);
    else if (event.key === 'ArrowLeft') step(-1);
    else if (event.key === 'Home') seek(0);
    else if (event.key === 'End') seek(until);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const at = scale.at(t) * axis;
  return (
    <>
      <div
        className={styles.scrub}
        style={{ left: NAMES, width: axis }}
        role="slider"
        tabIndex={0}
        aria-label="Time"
        aria-valuemin={0}
        aria-valuemax={until}
        aria-valuenow={t}
        aria-valuetext={timeText(t)}
        onKeyDown={onKey}
        onPointerDown={(event) => {
          pulled.current = true;
          event.currentTarget.setPointerCapture(event.pointerId);
          store.getState().play(null);
          move(event);
        }}
        onPointerMove={(event) => pulled.current && move(event)}
        onPointerUp={() => (pulled.current = false)}
      />
      <div className={styles.hand} style={{ left: NAMES + at, height: 34 + height }} aria-hidden="true" />
    </>
  );
}
