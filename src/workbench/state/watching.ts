'use client';
/** What the server says of the network that is read and watched: by design, asked again whenever it has something new. */
import { useEffect } from 'react';
import { create } from 'zustand';
import { MOST_EVENTS, type KeptEvent, type ReadingState, type WatchView } from '../../contract/observe';
import { observationSchema } from '../../core/exchange/observation/observation';
import { api } from './api';
import { useWorkbench } from './context';
import { hearLive } from './live';
import { useObservation } from './observation';
import { HAS_SERVER } from './reach';

interface Watched {
  /** Its events: all that were asked for so far, the newest last. */
  readonly view: WatchView | null;
  readonly reading: ReadingState | null;
  readonly trouble: string | null;
}

const NOTHING: Watched = { view: null, reading: null, trouble: null };

const useStore = create<{ readonly of: ReadonlyMap<string, Watched> }>(() => ({ of: new Map() }));

const put = (id: string, part: Partial<Watched>): void =>
  useStore.setState(({ of }) => ({ of: new Map(of).set(id, { ...NOTHING, ...of.get(id), ...part }) }));

/** A reading that has ended is not asked for again by itself: it is the largest part. `isOther`: another was begun, or stopped. */
export async function refreshWatch(id: string, isOther = false): Promise<void> {
  const known = useStore.getState().of.get(id);
  const isAsked = isOther || !known?.reading || known.reading.state === 'reading';
  const newest = known?.view?.events.at(-1)?.id ?? null;
  const [view, reading] = await Promise.all([api.watch(id, newest), isAsked ? api.reading(id) : null]);
  put(id, {
    ...(view.ok ? { view: joined(id, view.value), trouble: null } : { trouble: view.error.message }),
    ...(reading?.ok ? { reading: reading.value } : {}),
  });
}

/** With the events that are known; not where too many came for all of them to be told. */
function joined(id: string, view: WatchView): WatchView {
  const { oldest, events } = view;
  const known = useStore.getState().of.get(id)?.view?.events ?? [];
  return events.length >= MOST_EVENTS || oldest === null
    ? view
    : { ...view, events: mergedEvents(known, events).filter((event) => event.id >= oldest) };
}

/** In their order, each once. */
const mergedEvents = (...lists: readonly (readonly KeptEvent[])[]): KeptEvent[] =>
  [...new Map(lists.flat().map((event) => [event.id, event])).values()].sort((a, b) => a.id - b.id);

/** Those before the first that is known. */
export async function askEarlier(id: string): Promise<void> {
  const first = useStore.getState().of.get(id)?.view?.events[0];
  const earlier = first && (await api.earlierEvents(id, first.id));
  const view = useStore.getState().of.get(id)?.view;
  if (view && earlier?.ok) put(id, { view: { ...view, events: mergedEvents(earlier.value.events, view.events) } });
}

export function useWatched(): Watched {
  const id = useWorkbench((state) => state.id);
  return useStore((state) => state.of.get(id)) ?? NOTHING;
}

/** At most so often is it asked, milliseconds. */
const CALM = 400;

/** Follows the server as long as it is there; a reading that is done is held against the design. */
export function useFollowWatch(): void {
  const id = useWorkbench((state) => state.id);
  const { hold } = useObservation();
  const { reading } = useWatched();
  useEffect(() => {
    if (!HAS_SERVER) return undefined;
    let soon: ReturnType<typeof setTimeout> | null = null;
    const ask = (): void => {
      soon ??= setTimeout(() => {
        soon = null;
        void refreshWatch(id);
      }, CALM);
    };
    void refreshWatch(id);
    const stop = hearLive((event) => {
      if (event.kind === 'again' || (event.kind === 'watch' && event.design === id)) ask();
    });
    return () => {
      if (soon) clearTimeout(soon);
      stop();
    };
  }, [id]);
  const done = reading?.state === 'done' ? reading.observation : null;
  const at = (done as { readonly at?: unknown } | null)?.at;
  useEffect(() => {
    const read = done === null ? null : observationSchema.safeParse(done);
    if (read?.success) hold(read.data);
    // Held once for each reading, however often it is told.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
}
