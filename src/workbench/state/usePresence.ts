'use client';
/** Says where this window looks, and hears who else does and what they change. */
import { selectionText } from './selectionText';
import { useEffect } from 'react';
import type { Presence } from '../../contract/api';
import { api } from './api';
import { useWorkbenchStore } from './context';
import { hearLive } from './live';
import { HAS_SERVER } from './reach';
import { freshName } from './saver';

/** How often a window that does nothing says that it is there. */
const STILL_HERE_MS = 20_000;
const SAY_AFTER_MS = 400;

export function usePresence(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    if (!HAS_SERVER) return;
    const mine = freshName();
    const { id } = store.getState();
    let said = '';
    let soon: ReturnType<typeof setTimeout> | null = null;
    const presence = (leave: boolean): Presence => {
      const state = store.getState();
      return {
        window: mine,
        design: id,
        lens: state.lens,
        at: state.selection ? selectionText(state).slice(0, 200) : null,
        leave,
      };
    };
    const say = async (): Promise<void> => {
      said = JSON.stringify(presence(false));
      const here = await api.look(presence(false));
      if (here.ok)
        store.getState().heard(
          here.value.windows.filter(({ window }) => window !== mine),
          here.value.revision,
        );
    };
    const later = (): void => {
      if (soon !== null || JSON.stringify(presence(false)) === said) return;
      soon = setTimeout(() => {
        soon = null;
        void say();
      }, SAY_AFTER_MS);
    };
    const leave = (): void =>
      void navigator.sendBeacon(
        '/api/presence',
        new Blob([JSON.stringify(presence(true))], { type: 'application/json' }),
      );
    const stopHearing = hearLive((event) => {
      if (event.kind === 'again') return void say();
      if (event.design !== id) return;
      if (event.kind === 'revision') store.getState().heard(null, event.revision);
      else if (event.kind === 'here')
        store.getState().heard(
          event.windows.filter(({ window }) => window !== mine),
          null,
        );
    });
    void say();
    const still = setInterval(() => void say(), STILL_HERE_MS);
    const unsubscribe = store.subscribe(later);
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      unsubscribe();
      clearInterval(still);
      if (soon !== null) clearTimeout(soon);
      stopHearing();
      leave();
    };
  }, [store]);
}
