/** The regions of the open design, computed once a solution. */
import { useDeferredValue } from 'react';
import { oncePer } from '../../core/base/cache';
import { regionsIn, type Region } from '../../core/analysis/regions/regions';
import type { Solution } from '../../core/tree/settled';
import { useWorkbench } from './context';

const NONE: readonly Region[] = [];

export const regionsFor = oncePer((solution: Solution): readonly Region[] => regionsIn(solution.network));

export function useRegions(): readonly Region[] {
  const solution = useDeferredValue(useWorkbench((state) => state.solution));
  return solution ? regionsFor(solution) : NONE;
}
