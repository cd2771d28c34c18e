'use client';
/** Times, actions and topology changes above the lanes, and the hand that stands at the instant shown. */
import { useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Micros } from '../../../core/modes/entity';
import { actionText } from '../../../core/sim/scenario/scenario';
import { timeText, useClock, useClockStore } from '../../state/clock';
import { counted } from '../../../core/base/words';
import styles from '../shared/clock.module.css';
import { ticksOf, type Scale } from './scale';

/** How wide the lanes' names are. */
export const NAMES = 286;
const TICK_GAP = 92;

/** Times, actions and topology changes above the lanes. */
export function Axis({ scale, axis }: { readonly scale: Scale; readonly axis: number }) {
  const trace = useClock((clock) => clock.player!.trace);
  const moments = useClock((clock) => clock.player!.moments);
  const seek = useClock((clock) => clock.seek);
  const ticks = useMemo(() => ticksOf(scale, moments, trace.until, TICK_GAP / axis), [scale, moments, trace, axis]);
  const design = useClock((clock) => clock.player!.trace.design);
  const holds = useClock((clock) => clock.holds);
  const flushes = useMemo(() => {
    const marks = new Map<number, { readonly t: Micros; ports: number }>();
    for (const t of trace.flushes) {
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
              <title>{`${timeText(action.at * 1_000_000)}: ${actionText(design, action)}`}</title>
            </path>
          );
        })}
        {holds.map(({ t, text }) => (
          <path
            key={t}
            d={`M${scale.at(t) * axis - 9} 1v11m-4 0v-11`}
            stroke="var(--ink)"
            strokeWidth={2}
            data-hold={t}
            onClick={() => seek(t)}
          >
            <title>{text}</title>
          </path>
        ))}
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
export function Hand({
  scale,
  axis,
  height,
}: {
  readonly scale: Scale;
  readonly axis: number;
  readonly height: number;
}) {
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
        onLostPointerCapture={() => (pulled.current = false)} // let go, or cancelled
      />
      <div className={styles.hand} style={{ left: NAMES + at, height: 34 + height }} aria-hidden="true" />
    </>
  );
}
