/** How the window is divided: the height of the drawer and the width of the inspector, as dragged, remembered in this browser. */
import { useSyncExternalStore } from 'react';

export interface Room {
  /** Pixels; null for what suits the lens. */
  readonly drawer: number | null;
  readonly inspector: number;
}

export const USUAL: Room = { drawer: null, inspector: 318 };
const KEY = 'knot-path-room';
/** Least and most of each, pixels; the map keeps `MAP` at least. */
const LIMITS = { drawer: [120, 1200], inspector: [240, 720] } as const;
const MAP = { width: 320, height: 180 } as const;

/** A size within its limits, in a window of this size. */
export function limited(
  part: keyof Room,
  size: number,
  window: { readonly width: number; readonly height: number },
): number {
  const [least, most] = LIMITS[part];
  const free = part === 'drawer' ? window.height - 48 - MAP.height : window.width - 212 - MAP.width;
  return Math.round(Math.max(least, Math.min(size, most, free)));
}

/** Reads what was remembered; whatever is not a size is as usual. */
export function readRoom(text: string | null): Room {
  try {
    const { drawer, inspector } = { ...(JSON.parse(text ?? '{}') as Partial<Record<keyof Room, unknown>>) };
    const size = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
    return { drawer: size(drawer) ? drawer : null, inspector: size(inspector) ? inspector : USUAL.inspector };
  } catch {
    return USUAL;
  }
}

const listeners = new Set<() => void>();
let known: { readonly text: string | null; readonly room: Room } = { text: null, room: USUAL };

/** What is remembered; the same object while that is the same. */
function remembered(): Room {
  const text = localStorage.getItem(KEY);
  if (text !== known.text) known = { text, room: readRoom(text) };
  return known.room;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function divide(part: keyof Room, size: number | null): void {
  const fits = size === null ? USUAL[part] : limited(part, size, { width: innerWidth, height: innerHeight });
  localStorage.setItem(KEY, JSON.stringify({ ...remembered(), [part]: fits }));
  for (const listener of listeners) listener();
}

/** The room as divided, and what divides it anew; null for as usual. The server knows of the usual room alone. */
export function useRoom(): [Room, typeof divide] {
  return [useSyncExternalStore(subscribe, remembered, () => USUAL), divide];
}
