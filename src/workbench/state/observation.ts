'use client';
/** What was read of the network that is there, as long as the page is open: by design, since a page shows one after the other. */
import { useMemo } from 'react';
import { create } from 'zustand';
import { compareObserved, type Comparison } from '../../core/exchange/observation/compare/compare';
import type { Observation } from '../../core/exchange/observation/observation';
import { useFollowing, useWorkbench } from './context';

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
  return { observation: byDesign.get(id) ?? null, hold: (observation) => hold(id, observation) };
}

/** The design on the screen held against it; null where nothing was read, or there are no trees yet. */
export function useComparison(): Comparison | null {
  const { observation } = useObservation();
  const solution = useFollowing((state) => state.solution);
  return useMemo(
    () => (observation && solution ? compareObserved(solution, observation) : null),
    [observation, solution],
  );
}
