'use client';
/** What was read of the network that is there, as long as the page is open: by design, since a page shows one after the other. */
import { useCallback, useMemo, useState } from 'react';
import { create } from 'zustand';
import { compareObserved, type Comparison } from '../../core/exchange/observation/compare/compare';
import type { Observation } from '../../core/exchange/observation/observation';
import type { Solution } from '../../core/tree/settled';
import { useFollowing, useWorkbench } from './context';
import { atPresent } from './looking';

interface Observed {
  readonly byDesign: ReadonlyMap<string, Observation>;
  hold(design: string, observation: Observation | null): void;
}

const useStore = create<Observed>((set, get) => ({
  byDesign: new Map(),
  hold(design, observation) {
    const byDesign = new Map(get().byDesign);
    if (observation) byDesign.set(design, observation);
    else byDesign.delete(design);
    set({ byDesign });
  },
}));

/** What the design is held against; null where nothing was read. */
export function useObservation(): {
  readonly observation: Observation | null;
  readonly hold: (observation: Observation | null) => void;
} {
  const id = useWorkbench((state) => state.id);
  const { byDesign, hold } = useStore();
  return {
    observation: byDesign.get(id) ?? null,
    hold: useCallback((observation) => hold(id, observation), [hold, id]),
  };
}

/** The design as it stands, also while something else is looked at. */
function usePresentSolution(): Solution | null {
  const now = useFollowing((state) => (atPresent(state) ? state.solution : null));
  const [kept, setKept] = useState(now);
  if (now && now !== kept) setKept(now);
  return now ?? kept;
}

/** The design held against it; null where nothing was read, or there are no trees yet. */
export function useComparison(): Comparison | null {
  const { observation } = useObservation();
  const solution = usePresentSolution();
  return useMemo(
    () => (observation && solution ? compareObserved(solution, observation) : null),
    [observation, solution],
  );
}
