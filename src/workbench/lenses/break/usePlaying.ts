/** Turns the clock while it plays. */
import { useCallback } from 'react';
import { useClock, useClockStore } from '../../state/clock';
import { useTurning, type Turned } from '../shared/time/played';

/** Changes a second where each is to be seen. */
const RATE = 12;

export function usePlaying(): void {
  const playing = useClock((clock) => clock.playing);
  const store = useClockStore();
  useTurning(
    playing,
    RATE,
    useCallback((): Turned | null => {
      const { t, player, playTo, play } = store.getState();
      const halt = () => play(null);
      if (player) return { t, until: player.trace.until, next: (from) => player.next(from), playTo, halt };
      halt();
      return null;
    }, [store]),
  );
}
