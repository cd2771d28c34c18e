/** The regions of the open design, computed once a solution. */
import { useDeferredValue } from 'react';
import { regionsIn, type Region } from '../../core/study/regions';
import type { Solution } from '../../core/tree/settled';
import { useWorkbench } from '../state/context';

const NONE: readonly Region[] = [];
const known = new WeakMap<Solution, readonly Region[]>();

export function regionsFor(solution: Solution): readonly Region[] {
  const found = known.get(solution) ?? regionsIn(solution.network);
  known.set(solution, found);
  return found;
}

export function useRegions(): readonly Region[] {
  const solution = useDeferredValue(useWorkbench((state) => state.solution));
  return solution ? regionsFor(solution) : NONE;
}
