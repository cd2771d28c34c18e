'use client';
/** One search for ways to steer, from asking to what was found; it ends with the part of the screen that asked. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { TreeId } from '../../core/design/ids';
import type { Design } from '../../core/design/schema';
import type { Proposal } from '../../core/study/steer';
import type { Wish } from '../../core/study/wishes';
import { useWorkbenchStore } from '../state/context';
import { startSearch, type Search } from '../state/steering';

export type Stage =
  | { readonly is: 'idle' }
  | { readonly is: 'busy'; readonly share: number }
  | { readonly is: 'refused'; readonly why: string }
  | { readonly is: 'found'; readonly proposals: readonly Proposal[]; readonly of: Design };

export interface SteerSearch {
  readonly stage: Stage;
  readonly go: (wishes: readonly Wish[], trees: readonly TreeId[]) => void;
  /** Stops what runs and forgets what was found. */
  readonly clear: () => void;
}

/** Begins with the wishes given, where there are any. */
export function useSearch(first?: { readonly wishes: readonly Wish[]; readonly trees: readonly TreeId[] }): SteerSearch {
  const store = useWorkbenchStore();
  const [stage, setStage] = useState<Stage>(first ? { is: 'busy', share: 0 } : { is: 'idle' });
  const search = useRef<Search | null>(null);
  const begin = useCallback(
    async (wishes: readonly Wish[], trees: readonly TreeId[]) => {
      const { design } = store.getState();
      search.current?.stop();
      const mine = startSearch(design, wishes, trees, (share) => setStage((now) => (now.is === 'busy' ? { is: 'busy', share } : now)));
      search.current = mine;
      const found = await mine.found;
      if (search.current !== mine) return; // stopped, or another one has begun
      setStage(found.ok ? { is: 'found', proposals: found.value, of: design } : { is: 'refused', why: found.error });
    },
    [store],
  );
  const [opening] = useState(first);
  useEffect(() => {
    if (opening) void begin(opening.wishes, opening.trees);
    return () => {
      search.current?.stop();
      search.current = null;
    };
  }, [begin, opening]);
  return {
    stage,
    go: (wishes, trees) => {
      setStage({ is: 'busy', share: 0 });
      void begin(wishes, trees);
    },
    clear: () => {
      search.current?.stop();
      search.current = null;
      setStage({ is: 'idle' });
    },
  };
}
