'use client';
/** Hands the store of the open design to the components below. */
import { createContext, useContext, useDeferredValue, useEffect, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { oncePer } from '../../core/base/cache';
import { useMounted } from '../ui/useMounted';
import { followLink } from './link';
import { worksheetInUrl } from './worksheet';
import { workerSolver } from './solverClient';
import { createWorkbench, type Opened, type Workbench, type WorkbenchStore } from './store';
import { tellWaiting } from '../ui/loading';
import { holdsText, watchFields } from './typedText';

const StoreContext = createContext<WorkbenchStore | null>(null);

interface ProviderProps {
  readonly open: Opened;
  /** What stands there until then. */
  readonly first?: ReactNode;
  readonly children: ReactNode;
}

/** Opens a store for a design; the children wait for the browser, since what they draw depends on its size. */
export function WorkbenchProvider({ open, first = null, children }: ProviderProps) {
  const [store] = useState(() =>
    createWorkbench(
      open,
      workerSolver((waits) => tellWaiting('solver', waits)),
    ),
  );
  const mounted = useMounted();
  useEffect(() => {
    const { start, stop, openWorksheet } = store.getState();
    start();
    const practised = worksheetInUrl();
    if (practised) openWorksheet(practised);
    else void followLink(store, window.location.search);
    const guard = (event: BeforeUnloadEvent) => {
      if (store.getState().unsent() > 0 || holdsText()) event.preventDefault();
    };
    const hidden = () => document.hidden && store.getState().hurry();
    window.addEventListener('beforeunload', guard);
    document.addEventListener('visibilitychange', hidden);
    const stopWatching = watchFields(document);
    return () => {
      window.removeEventListener('beforeunload', guard);
      document.removeEventListener('visibilitychange', hidden);
      stopWatching();
      stop();
    };
  }, [store]);
  return mounted ? <StoreContext value={store}>{children}</StoreContext> : first;
}

/** Provides a store that is already there, for tests. */
export const StoreProvider = StoreContext;

/** The store itself, for event handlers that only read it when something happens. */
export function useWorkbenchStore(): WorkbenchStore {
  const store = useContext(StoreContext);
  if (!store) throw new Error('outside a WorkbenchProvider');
  return store;
}

/**
 * The state as what is not the map follows it: an edit a frame behind, so that the map is painted first, all else at once.
 * One a store: what is read of it belongs together.
 */
const followerOf = oncePer((store: WorkbenchStore): StoreApi<Workbench> => {
  const follower = createStore<Workbench>(() => store.getState());
  let due = false;
  const follow = (): void => {
    if (!due) return;
    due = false;
    // What follows wants every tree.
    if (!store.getState().partly) follower.setState(store.getState(), true);
  };
  store.subscribe((state, before) => {
    const edited =
      state.looking === before.looking && (state.design !== before.design || state.solution !== before.solution);
    if (!edited && !due && !state.partly) follower.setState(state, true);
    if (!edited || due) return;
    due = true;
    requestAnimationFrame(() => setTimeout(follow));
    setTimeout(follow, UNSEEN_MS); // a page that nobody sees has no frames
  });
  return follower;
});
const UNSEEN_MS = 200;

/** A part of the state for tables and lists: it follows once the map is painted, and gives way to whatever is pressed meanwhile. */
export const useFollowing = <T,>(select: (state: Workbench) => T): T =>
  useDeferredValue(useStore(followerOf(useWorkbenchStore()), select));

/** A part of the state, or an action. */
export const useWorkbench = <T,>(select: (state: Workbench) => T): T => useStore(useWorkbenchStore(), select);
