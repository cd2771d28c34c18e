/** Turns the clock while it plays, a picture a frame. */
import { useEffect } from 'react';
import { SECOND } from '../../../core/modes/entity';
import { useClock, useClockStore } from '../../state/clock';

/** Pictures a second where each change is to be seen. */
const CHANGES_A_SECOND = 12;

export function usePlaying(): void {
  const playing = useClock((clock) => clock.playing);
  const store = useClockStore();
  useEffect(() => {
    if (playing === null) return;
    let last = performance.now();
    let owed = 0;
    let frame = requestAnimationFrame(function turn(now: number) {
      const { t, player, playTo, play } = store.getState();
      const gone = Math.min(100, now - last) / 1000;
      last = now;
      if (!player) return play(null);
      if (typeof playing !== 'number') {
        owed += playing === 'fastest' ? 1 : gone * CHANGES_A_SECOND;
        if (owed >= 1) {
          owed = 0;
          const next = player.next(t);
          if (next === null) return play(null);
          playTo(next);
        }
      } else if (t >= player.trace.until) return play(null);
      else playTo(t + gone * playing * SECOND);
      frame = requestAnimationFrame(turn);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, store]);
}
