'use client';
/** The findings on the open design, computed after the map has been redrawn. */
import { useDeferredValue, useMemo } from 'react';
import type { Finding } from '../../core/study/finding';
import { findingsOf } from '../../core/study/findings';
import { useWorkbench } from './context';

export function useFindings(): readonly Finding[] {
  const solution = useDeferredValue(useWorkbench((state) => state.solution));
  return useMemo(() => (solution ? findingsOf(solution.network.design, solution) : []), [solution]);
}
