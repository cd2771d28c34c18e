'use client';
/** Lanes over a common axis of time: those in view are drawn. */
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Micros } from '../../../../core/modes/entity';
import styles from '../clock.module.css';
import { scaleOf, ticksOf, type Scale, type ScaleKind } from './scale';

/** How high a lane is. */
export const ROW = 20;
/** Lanes drawn beyond the visible ones. */
const MORE = 6;
const TICK_GAP = 92;

/** Where lanes stand, pixels: names on the left, then the axis, `axis` wide. */
export interface LaneRoom {
  readonly scale: Scale;
  readonly axis: number;
  readonly names: number;
  /** Of all lanes. */
  readonly height: number;
}

interface LaneListProps<L> {
  readonly lanes: readonly L[];
  readonly names: number;
  /** When something changed, in rising order; microseconds from the start on. */
  readonly moments: ArrayLike<Micros>;
  readonly until: Micros;
  /** The time of day at the start; 0 where it is none. */
  readonly from?: Micros;
  readonly kind: ScaleKind;
  /** What the axis shows above its times. */
  readonly head: string;
  readonly tick: (t: Micros) => string;
  readonly marks?: (room: LaneRoom) => ReactNode;
  readonly name: (lane: L) => ReactNode;
  readonly bars: (lane: L, room: LaneRoom) => ReactNode;
  readonly hand: (room: LaneRoom) => ReactNode;
  /** What is said where there are none. */
  readonly empty: string;
}

export function LaneList<L extends { readonly id: string }>(props: LaneListProps<L>) {
  const { lanes, names, moments, until, from = 0, kind, head, tick, marks, name, bars, hand, empty } = props;
  const element = useRef<HTMLDivElement>(null);
  const [{ width, height, top }, setView] = useState({ width: 800, height: 200, top: 0 });
  useEffect(() => {
    const list = element.current;
    if (!list) return;
    const measure = () => setView({ width: list.clientWidth, height: list.clientHeight, top: list.scrollTop });
    const watch = new ResizeObserver(measure);
    watch.observe(list);
    list.addEventListener('scroll', measure, { passive: true });
    return () => {
      watch.disconnect();
      list.removeEventListener('scroll', measure);
    };
  }, []);
  const axis = Math.max(100, width - names - 14);
  const scale = useMemo(() => scaleOf(kind, moments, until), [kind, moments, until]);
  const ticks = useMemo(
    () => ticksOf(scale, moments, until, TICK_GAP / axis, from),
    [scale, moments, until, axis, from],
  );
  const room: LaneRoom = { scale, axis, names, height: lanes.length * ROW };
  const first = Math.max(0, Math.floor(top / ROW) - MORE);
  const drawn = lanes.slice(first, first + Math.ceil(height / ROW) + 2 * MORE);
  return (
    <div ref={element} className={styles.lanes}>
      <div className={styles.axis}>
        <span className={styles.axisName} style={{ width: names }}>
          {head}
        </span>
        <svg width={axis} height={34} aria-hidden="true">
          {ticks.map((t) => (
            <text
              key={t}
              x={Math.min(axis - 30, Math.max(18, scale.at(t) * axis))}
              y={24}
              textAnchor="middle"
              className={styles.tickText}
            >
              {tick(t)}
            </text>
          ))}
          {marks?.(room)}
        </svg>
      </div>
      <div style={{ height: room.height, position: 'relative' }} role="list" aria-label="Rows">
        {drawn.map((lane, i) => (
          <div key={lane.id} role="listitem" className={styles.lane} style={{ top: (first + i) * ROW, height: ROW }}>
            {name(lane)}
            {bars(lane, room)}
          </div>
        ))}
      </div>
      {lanes.length === 0 && <p className={styles.hint}>{empty}</p>}
      {hand(room)}
    </div>
  );
}

/** What a lane is about; where that can be gone to, a button. */
export function LaneName({
  label,
  more,
  width,
  go,
}: {
  readonly label: string;
  readonly more: string;
  readonly width: number;
  readonly go: (() => void) | null;
}) {
  const rest = {
    className: styles.laneName,
    style: { width },
    title: `${label}${more === '' ? '' : `, ${more}`}`,
    children: (
      <>
        {label}
        {more !== '' && <small>{more}</small>}
      </>
    ),
  };
  return go ? <button type="button" {...rest} onClick={go} /> : <span {...rest} />;
}
