'use client';
/** What a watch has to say that cannot wait: the newest of it since the page was opened, until somebody has seen it. */
import { useState } from 'react';
import type { KeptEvent } from '../../contract/observe';
import { useFollowWatch, useWatched } from './watching';

const URGENT: ReadonlySet<KeptEvent['kind']> = new Set(['rule', 'root', 'silent']);

export function useNews(): { readonly event: KeptEvent | null; readonly seen: () => void } {
  useFollowWatch();
  const { view } = useWatched();
  const newest = view?.events.at(-1)?.id ?? 0;
  // What had happened before is no news.
  const [upTo, setUpTo] = useState<number | null>(null);
  if (upTo === null && view) setUpTo(newest);
  const event = upTo === null ? null : (view?.events.findLast(({ id, kind }) => id > upTo && URGENT.has(kind)) ?? null);
  return { event, seen: () => setUpTo(newest) };
}
