/** What a lens writes on the map where links are labelled: it goes first, and labels stay clear of it. */
import { createContext, useContext, useEffect } from 'react';
import type { Rectangle } from './occupied';

const KeptContext = createContext<(kept: readonly Rectangle[]) => void>(() => undefined);
export const KeptProvider = KeptContext;
export const NOTHING_KEPT: readonly Rectangle[] = [];

/** Keeps labels clear of these places while the caller is on the screen. */
export function useKeepClear(kept: readonly Rectangle[]): void {
  const keep = useContext(KeptContext);
  useEffect(() => {
    keep(kept);
    return () => keep(NOTHING_KEPT);
  }, [keep, kept]);
}
