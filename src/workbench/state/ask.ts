'use client';
/** Questions to a worker, and the one hook that asks them. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { fail, type Result } from '../../core/base/result';
import type { Design } from '../../core/model/document';

/** A question about a design. */
export interface Ask<T> {
  readonly of: Design;
  /** Where it is stopped, what was answered until then is its answer. */
  readonly keeps?: boolean;
  /** Asks; `tell` is told how far the answer is, 0 to 1. */
  readonly begin: (tell: (share: number) => void) => Asked<T>;
}

/** A question that was asked; the error is a sentence. */
export interface Asked<T> {
  readonly found: Promise<Result<T, string>>;
  stop(): void;
}

export type AskStatus<T> =
  | { readonly kind: 'idle' }
  | { readonly kind: 'busy'; readonly share: number }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'found'; readonly value: T; readonly of: Design };

/** Asks whenever the question is another one; the one before is then stopped, and so it is when what asked goes. Null asks nothing. */
export function useAsk<T>(ask: Ask<T> | null): { readonly status: AskStatus<T>; readonly stop: () => void } {
  const [share, setShare] = useState<{ readonly ask: Ask<T>; readonly share: number } | null>(null);
  const [got, setGot] = useState<{ readonly ask: Ask<T>; readonly result: Result<T, string> } | null>(null);
  const running = useRef<Asked<T> | null>(null);
  useEffect(() => {
    if (!ask) return;
    let gone = false;
    const mine = ask.begin((far) => !gone && setShare({ ask, share: far }));
    running.current = mine;
    void mine.found.then((result) => !gone && setGot({ ask, result }));
    return () => {
      gone = true;
      mine.stop();
    };
  }, [ask]);
  const stop = useCallback(() => {
    running.current?.stop();
    if (ask && !ask.keeps) setGot({ ask, result: fail('Stopped.') });
  }, [ask]);
  return { status: statusOf(), stop };

  function statusOf(): AskStatus<T> {
    if (!ask) return { kind: 'idle' };
    if (got?.ask !== ask) return { kind: 'busy', share: share?.ask === ask ? share.share : 0 };
    return got.result.ok
      ? { kind: 'found', value: got.result.value, of: ask.of }
      : { kind: 'refused', why: got.result.error };
  }
}

/** A question that is asked when people say so. */
export interface OnDemand<T> {
  readonly status: AskStatus<T>;
  readonly go: (ask: Ask<T>) => void;
  /** Stops what runs and forgets what was found. */
  readonly clear: () => void;
}

/** Asks at once where a question is given at first. */
export function useAskOnDemand<T>(first: Ask<T> | null = null): OnDemand<T> {
  const [ask, go] = useState(first);
  return { status: useAsk(ask).status, go, clear: useCallback(() => go(null), []) };
}
