/** The regions of the open design, computed once a solution. */
import { oncePer } from '../../core/base/cache';
import { regionsIn, type Region } from '../../core/analysis/regions/regions';
import type { Solution } from '../../core/tree/settled';
import { useFollowing } from './context';

const NONE: readonly Region[] = [];

export const regionsFor = oncePer((solution: Solution): readonly Region[] => regionsIn(solution.network));

export function useRegions(): readonly Region[] {
  const solution = useFollowing((state) => state.solution);
  return solution ? regionsFor(solution) : NONE;
}
