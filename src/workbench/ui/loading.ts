/** Parts of the page that cannot be loaded now, because the server does not answer: told in one place, tried again by each. */
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';

const store = createStore<{ readonly waiting: ReadonlySet<string> }>()(() => ({ waiting: new Set() }));

/** Says that a part waits, or no longer does. */
export function tellWaiting(part: string, waits: boolean): void {
  const { waiting } = store.getState();
  if (waiting.has(part) === waits) return;
  const next = new Set(waiting);
  if (waits) next.add(part);
  else next.delete(part);
  store.setState({ waiting: next });
}

/** Whether something waits. */
export const useWaiting = (): boolean => useStore(store, ({ waiting }) => waiting.size > 0);
