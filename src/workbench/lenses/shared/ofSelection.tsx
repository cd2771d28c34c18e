'use client';
/** Tables that show the rows of the selected switches alone: of one, of a group, of any. */
import { useMemo, useState, type ReactNode } from 'react';
import type { SwitchId } from '../../../core/model/ids';
import { useFollowing } from '../../state/context';
import { switchesIn } from '../../state/selection';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';

/** The rows to show, and the choice for the filter's line; `switchesOf` is the same function at each call. */
export function useOfSelection<T>(
  all: readonly T[],
  switchesOf: (row: T) => readonly SwitchId[],
): { readonly rows: readonly T[]; readonly choice: ReactNode } {
  const key = useFollowing((state) => switchesIn(state.selection).join('\n'));
  const [only, setOnly] = useState(false);
  const rows = useMemo(() => {
    if (!only || key === '') return all;
    const chosen = new Set(key.split('\n'));
    return all.filter((row) => switchesOf(row).some((id) => chosen.has(id)));
  }, [all, only, key, switchesOf]);
  const count = key === '' ? 0 : key.split('\n').length;
  const choice = (count > 0 || only) && (
    <TextButton aria-pressed={only} onClick={() => setOnly(!only)}>
      {only
        ? 'of all switches'
        : `only of the ${count === 1 ? 'selected switch' : counted(count, 'selected switch', 'selected switches')}`}
    </TextButton>
  );
  return { rows, choice };
}
