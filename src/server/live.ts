/** Who looks at which design, and telling them what has changed: one stream of server-sent events for each browser. */
import type { LiveEvent, Onlooker, Presence } from '../contract/api';

/** A window that has not been heard of for so long is gone. */
const GONE_AFTER_MS = 50_000;
const MOST_STREAMS = 500;
const MOST_WINDOWS = 2000;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

interface Seen extends Onlooker {
  readonly design: string;
  readonly heard: number;
}

export interface Live {
  /** Tells a stream everything from now on; null where there are too many. Gives how to end it. */
  watch(tell: (event: LiveEvent) => void): (() => void) | null;
  revised(design: string, revision: number): void;
  /** Something was read of its network. */
  watched(design: string): void;
  look(presence: Presence, now?: number): Onlooker[];
}

export function createLive(): Live {
  const streams = new Set<(event: LiveEvent) => void>();
  const windows = new Map<string, Seen>();
  const tell = (event: LiveEvent): void => {
    for (const stream of streams) stream(event);
  };
  const at = (design: string): Onlooker[] =>
    [...windows.values()]
      .filter((seen) => seen.design === design)
      .map(({ window, name, lens, at: item }) => ({ window, name, lens, at: item }));
  return {
    watch(stream) {
      if (streams.size >= MOST_STREAMS) return null;
      streams.add(stream);
      return () => void streams.delete(stream);
    },
    watched: (design) => tell({ kind: 'watch', design }),
    revised: (design, revision) => tell({ kind: 'revision', design, revision }),
    look({ window, design, lens, at: item, leave }, now = Date.now()) {
      const before = windows.get(window);
      const changed = new Set<string>(before && before.design !== design ? [before.design] : []);
      for (const [key, seen] of windows) {
        if (seen.heard > now - GONE_AFTER_MS) continue;
        windows.delete(key);
        changed.add(seen.design);
      }
      if (leave) {
        windows.delete(window);
        changed.add(design);
      } else if (before || windows.size < MOST_WINDOWS) {
        const known = before?.design === design ? before : null;
        windows.set(window, { window, design, lens, at: item, heard: now, name: known?.name ?? freeName(at(design)) });
        if (known?.lens !== lens || known.at !== item) changed.add(design);
      }
      for (const each of changed) tell({ kind: 'here', design: each, windows: at(each) });
      return at(design);
    },
  };
}

function freeName(others: readonly Onlooker[]): string {
  const taken = new Set(others.map(({ name }) => name));
  for (let n = 0; ; n += 1) {
    const name = LETTERS[n % 26]! + (n < 26 ? '' : String(Math.floor(n / 26) + 1));
    if (!taken.has(name)) return name;
  }
}

const held = globalThis as typeof globalThis & { knotPathLive?: Live };

/** The server's own: one, whatever bundle asks. */
export const live = (): Live => (held.knotPathLive ??= createLive());
