'use client';
/** The history of the open design: its newest part at once, the rest after it, and after that only what is new. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { HistoryEntry, HistoryPart } from '../../../contract/api';
import { api } from '../../state/api';

/** What is fetched first: more than a screen holds. */
const FIRST = 100;

interface History {
  /** The newest first; null until some are there. */
  readonly entries: readonly HistoryEntry[] | null;
  readonly trouble: string | null;
  /** Fetches everything anew. */
  readonly again: () => void;
}

/** `revision` is the newest that is saved; null where the present is not looked at, or is being saved. */
export function useHistory(id: string, revision: number | null): History {
  const [entries, setEntries] = useState<readonly HistoryEntry[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const held = useRef<{ readonly of: string; readonly list: readonly HistoryEntry[]; readonly whole: boolean } | null>(
    null,
  );
  useEffect(() => {
    const of = `${id} ${round}`;
    let gone = false;
    const ask = async (part: HistoryPart): Promise<readonly HistoryEntry[] | null> => {
      const history = await api.history(id, part);
      if (gone) return null;
      setTrouble(history.ok ? null : history.error.message);
      return history.ok ? history.value.entries : null;
    };
    const hold = (list: readonly HistoryEntry[]): void => {
      held.current = { of, list, whole: list.at(-1)?.number === 0 };
      setEntries(list);
    };
    void (async () => {
      const before = held.current?.of === of ? held.current.list : [];
      const newer = await ask(before[0] ? { after: before[0].number } : { most: FIRST });
      if (!newer) return;
      hold([...newer, ...before]);
      const oldest = held.current?.list.at(-1);
      if (!oldest || held.current?.whole) return;
      const older = await ask({ before: oldest.number });
      if (older) hold([...held.current!.list, ...older]);
    })();
    return () => {
      gone = true;
    };
  }, [id, revision, round]);
  return { entries, trouble, again: useCallback(() => setRound((before) => before + 1), []) };
}
