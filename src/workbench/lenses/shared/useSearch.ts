'use client';
/** One search for ways to steer or to share, from asking to what was found; it ends with the part of the screen that asked. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '../../../core/model/document';
import { useWorkbenchStore } from '../../state/context';
import type { Begin, Search } from '../../state/steering';

export type Stage<T> =
  | { readonly kind: 'idle' }
  | { readonly kind: 'busy'; readonly share: number }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'found'; readonly proposals: readonly T[]; readonly of: Design };

export interface SteerSearch<T> {
  readonly stage: Stage<T>;
  readonly go: (begin: Begin<T>) => void;
  /** Stops what runs and forgets what was found. */
  readonly clear: () => void;
}

/** Begins at once where a search is given. */
export function useSearch<T>(first?: Begin<T>): SteerSearch<T> {
  const store = useWorkbenchStore();
  const [stage, setStage] = useState<Stage<T>>(first ? { kind: 'busy', share: 0 } : { kind: 'idle' });
  const search = useRef<Search<T> | null>(null);
  const run = useCallback(
    async (begin: Begin<T>) => {
      const { design } = store.getState();
      search.current?.stop();
      const mine = begin(design, (share) => setStage((now) => (now.kind === 'busy' ? { kind: 'busy', share } : now)));
      search.current = mine;
      const found = await mine.found;
      if (search.current !== mine) return; // stopped, or another one has begun
      setStage(
        found.ok ? { kind: 'found', proposals: found.value, of: design } : { kind: 'refused', why: found.error },
      );
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
      setStage({ kind: 'busy', share: 0 });
      void run(begin);
    },
    clear: () => {
      search.current?.stop();
      search.current = null;
      setStage({ kind: 'idle' });
    },
  };
}
