/** A stretch of time that is played, a run of a scenario or a network that was watched: its hand, and what turns it. */
import { useEffect } from 'react';
import { SECOND, type Micros } from '../../../../core/modes/entity';
import type { Speed } from '../../../state/clock';

/** Microseconds from its start on. */
export interface Played {
  readonly t: Micros;
  readonly until: Micros;
  readonly playing: Speed | null;
  readonly seek: (t: Micros) => void;
  /** To the next change, or the one before. */
  readonly step: (by: 1 | -1) => void;
  readonly play: (speed: Speed | null) => void;
  readonly text: (t: Micros) => string;
}

/** What the hand is turned over: asked with every picture. */
export interface Turned {
  readonly t: Micros;
  readonly until: Micros;
  readonly next: (t: Micros) => Micros | null;
  readonly playTo: (t: Micros) => void;
  readonly halt: () => void;
}

/** Turns the hand while it plays, a picture a frame; `rate`: changes a second where each is to be seen. */
export function useTurning(playing: Speed | null, rate: number, turned: () => Turned | null): void {
  useEffect(() => {
    if (playing === null) return;
    let last = performance.now();
    let owed = 0;
    let frame = requestAnimationFrame(function turn(now: number) {
      const gone = Math.min(100, now - last) / 1000;
      last = now;
      const over = turned();
      if (!over) return;
      if (typeof playing !== 'number') {
        owed += playing === 'fastest' ? 1 : gone * rate;
        if (owed >= 1) {
          owed = 0;
          const next = over.next(over.t);
          if (next === null) return over.halt();
          over.playTo(next);
        }
      } else if (over.t >= over.until) return over.halt();
      else over.playTo(over.t + gone * playing * SECOND);
      frame = requestAnimationFrame(turn);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, rate, turned]);
}
