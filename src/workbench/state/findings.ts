'use client';
/** The findings on the open design, computed after the map has been redrawn. */
import { useDeferredValue } from 'react';
import type { Finding } from '../../core/study/finding';
import { findingsOf } from '../../core/study/findings';
import type { Solution } from '../../core/tree/settled';
import { useWorkbench } from './context';

const NONE: readonly Finding[] = [];
const known = new WeakMap<Solution, readonly Finding[]>();

/** Computed once a solution, however many places show them. */
function findingsFor(solution: Solution): readonly Finding[] {
  const found = known.get(solution) ?? findingsOf(solution.network.design, solution);
  known.set(solution, found);
  return found;
}

export function useFindings(): readonly Finding[] {
  const solution = useDeferredValue(useWorkbench((state) => state.solution));
  return solution ? findingsFor(solution) : NONE;
}
