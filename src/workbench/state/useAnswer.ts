'use client';
/** The answer to a question that is asked of a worker anew whenever it is another one; the one before is then stopped. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Result } from '../../core/base/result';
import type { Ask } from './steering';

export type Answer<T> =
  | { readonly kind: 'busy'; readonly share: number }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'found'; readonly value: T };

/** `ask` must stay the same as long as the question does; null asks nothing. */
export function useAnswer<T>(ask: Ask<T> | null): { readonly answer: Answer<T>; readonly stop: () => void } {
  const [told, setTold] = useState<{ readonly of: Ask<T>; readonly share: number } | null>(null);
  const [got, setGot] = useState<{ readonly of: Ask<T>; readonly result: Result<T, string> } | null>(null);
  const running = useRef<{ stop(): void } | null>(null);
  useEffect(() => {
    if (!ask) return;
    let gone = false;
    const mine = ask((share) => !gone && setTold({ of: ask, share }));
    running.current = mine;
    void mine.found.then((result) => !gone && setGot({ of: ask, result }));
    return () => {
      gone = true;
      mine.stop();
    };
  }, [ask]);
  const stop = useCallback(() => {
    running.current?.stop();
    if (ask) setGot({ of: ask, result: { ok: false, error: 'Stopped.' } });
  }, [ask]);
  if (!ask || got?.of !== ask)
    return { answer: { kind: 'busy', share: told && told.of === ask ? told.share : 0 }, stop };
  return {
    answer: got.result.ok ? { kind: 'found', value: got.result.value } : { kind: 'refused', why: got.result.error },
    stop,
  };
}
