'use client';
/** What tables have in common whose rows each show the map after a loss: their rows stay meanwhile, and lead back. */
import { useMemo, useState } from 'react';
import type { Design } from '../../../core/model/document';
import type { SwitchId } from '../../../core/model/ids';
import type { Names } from '../../../core/model/names';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { lookingText } from '../../state/looking';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';

/** The last that was found about a design, which stays while nothing is; null before. */
export function useKept<T>(of: Design | null, found: T | null): T | null {
  const [kept, setKept] = useState<{ readonly of: Design; readonly found: T } | null>(null);
  if (of && found && kept?.of !== of) setKept({ of, found });
  return found ?? kept?.found ?? null;
}

/** The row of a table that the map shows, as the grid marks it, and how it is set. */
export function useShownRow(): readonly [ReadonlySet<string>, (id: string) => void] {
  const shown = useWorkbench((state) => state.looking.kind === 'loss');
  const [row, setRow] = useState<string | null>(null);
  return [useMemo(() => new Set(shown && row !== null ? [row] : []), [shown, row]), setRow];
}

export const MapShows = () => (
  <>The map shows {lookingText(useWorkbench((state) => state.looking))}, changed ports marked.</>
);

export function BackToNow() {
  const store = useWorkbenchStore();
  return (
    <TextButton does="plain" onClick={() => store.getState().look(null)}>
      go back to now
    </TextButton>
  );
}

/** So many are named, more are counted. */
const FEW = 4;

/** A few switches by name, many as a number. */
export const switchesText = (ids: readonly SwitchId[], names: Names): string =>
  ids.length > FEW ? counted(ids.length, 'switch', 'switches') : ids.map((id) => names.switch(id)).join(', ');
