'use client';
/** Revisions before the present one, to begin or to compare with. */
import { useMemo } from 'react';
import type { HistoryEntry } from '../../../contract/api';
import { useWorkbench } from '../../state/context';
import { atPresent } from '../../state/looking';
import { revisionName } from '../../state/revisions';
import { useHistory } from './useHistory';

/** Revisions offered, beside those with names. */
const MOST = 40;

/** The newest first; null until some are there. */
export function useEarlier(): readonly HistoryEntry[] | null {
  const id = useWorkbench((state) => state.id);
  const saved = useWorkbench((state) => (state.save.kind === 'saved' && atPresent(state) ? state.revision : null));
  const { entries } = useHistory(id, saved);
  return useMemo(
    () =>
      entries &&
      entries
        .filter(({ number }) => number < (saved ?? Infinity))
        .filter(({ baseline }, i) => i < MOST || baseline !== null),
    [entries, saved],
  );
}

/** `from revision 4 to now: cost of lodge port 3`. */
export const fromThere = ({ number, baseline, label }: HistoryEntry): readonly [value: string, text: string] => [
  String(number),
  `from ${revisionName(number, baseline)} to now: ${label}`.slice(0, 80),
];
