'use client';
/** The lanes over a common axis of time: state bars with role letters, pairs that are cut off, actions and topology changes. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { useClock } from '../../state/clock';
import { useWorkbenchStore } from '../../state/context';
import styles from '../shared/clock.module.css';
import { Axis, Hand, NAMES } from './LaneAxis';
import { LaneBars, ROW } from './LaneBars';
import type { Lane } from './laneRows';
import { scaleOf, type ScaleKind } from './scale';

/** Lanes drawn beyond the visible ones. */
const MORE = 6;

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
      <div style={{ height: lanes.length * ROW, position: 'relative' }} role="list" aria-label="Rows">
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
