import equal from 'fast-deep-equal';
import { useRef } from 'react';

/** A selector whose value stays the same one as long as it says the same: what is made anew each time is then drawn no more often. */
export function useSame<S, T>(select: (state: S) => T): (state: S) => T {
  const last = useRef<{ readonly value: T } | null>(null);
  return (state) => {
    const value = select(state);
    if (last.current && equal(last.current.value, value)) return last.current.value;
    last.current = { value };
    return value;
  };
}
