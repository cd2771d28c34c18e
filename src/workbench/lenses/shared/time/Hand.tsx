'use client';
/** The line that stands at the instant shown; pulling it, or the keys, moves it. */
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styles from '../clock.module.css';
import type { Played } from './played';
import type { LaneRoom } from './LaneList';

export function Hand({ time, room }: { readonly time: Omit<Played, 'playing'>; readonly room: LaneRoom }) {
  const { t, until, seek, step, play, text } = time;
  const { scale, axis, names, height } = room;
  const pulled = useRef(false);
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const { left } = event.currentTarget.getBoundingClientRect();
    seek(scale.back(Math.max(0, Math.min(1, (event.clientX - left) / axis))));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowRight') step(1);
    else if (event.key === 'ArrowLeft') step(-1);
    else if (event.key === 'Home') seek(0);
    else if (event.key === 'End') seek(until);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <>
      <div
        className={styles.scrub}
        style={{ left: names, width: axis }}
        role="slider"
        tabIndex={0}
        aria-label="Time"
        aria-valuemin={0}
        aria-valuemax={until}
        aria-valuenow={t}
        aria-valuetext={text(t)}
        onKeyDown={onKey}
        onPointerDown={(event) => {
          pulled.current = true;
          event.currentTarget.setPointerCapture(event.pointerId);
          play(null);
          move(event);
        }}
        onPointerMove={(event) => pulled.current && move(event)}
        onLostPointerCapture={() => (pulled.current = false)} // let go, or cancelled
      />
      <div
        className={styles.hand}
        style={{ left: names + scale.at(t) * axis, height: AXIS + height }}
        aria-hidden="true"
      />
    </>
  );
}

/** How high the axis above the lanes is. */
const AXIS = 34;
