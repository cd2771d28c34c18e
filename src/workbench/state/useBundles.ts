'use client';
/** The design's bundles and what they settle to. */
import { useMemo } from 'react';
import { bundlesOf, type Bundles } from '../../core/topology/lag/ends';
import { settleBundles, type SettledBundles } from '../../core/topology/lag/settled';
import { useWorkbench } from './context';

export function useBundles(): { readonly bundles: Bundles; readonly settled: SettledBundles } {
  const design = useWorkbench((state) => state.design);
  return useMemo(() => {
    const bundles = bundlesOf(design);
    return { bundles, settled: settleBundles(bundles) };
  }, [design]);
}
