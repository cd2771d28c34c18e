'use client';
/** One search for ways to steer or to share, from asking to what was found; it ends with the part of the screen that asked. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '../../core/model/document';
import { useWorkbenchStore } from '../state/context';
import type { Begin, Search } from '../state/steering';

export type Stage<T> =
  | { readonly is: 'idle' }
  | { readonly is: 'busy'; readonly share: number }
  | { readonly is: 'refused'; readonly why: string }
  | { readonly is: 'found'; readonly proposals: readonly T[]; readonly of: Design };

export interface SteerSearch<T> {
  readonly stage: Stage<T>;
  readonly go: (begin: Begin<T>) => void;
  /** Stops what runs and forgets what was found. */
  readonly clear: () => void;
}

/** Begins at once where a search is given. */
export function useSearch<T>(first?: Begin<T>): SteerSearch<T> {
  const store = useWorkbenchStore();
  const [stage, setStage] = useState<Stage<T>>(first ? { is: 'busy', share: 0 } : { is: 'idle' });
  const search = useRef<Search<T> | null>(null);
  const run = useCallback(
    async (begin: Begin<T>) => {
      const { design } = store.getState();
      search.current?.stop();
      const mine = begin(design, (share) => setStage((now) => (now.is === 'busy' ? { is: 'busy', share } : now)));
      search.current = mine;
      const found = await mine.found;
      if (search.current !== mine) return; // stopped, or another one has begun
      setStage(found.ok ? { is: 'found', proposals: found.value, of: design } : { is: 'refused', why: found.error });
    },
    [store],
  );
  const [opening] = useState(() => first);
  useEffect(() => {
    if (opening) void run(opening);
    return () => {
      search.current?.stop();
      search.current = null;
    };
  }, [run, opening]);
  return {
    stage,
    go: (begin) => {
      setStage({ is: 'busy', share: 0 });
      void run(begin);
    },
    clear: () => {
      search.current?.stop();
      search.current = null;
      setStage({ is: 'idle' });
    },
  };
}
