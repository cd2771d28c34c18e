/** The smooth move of switches from one layout to another. */
import { useEffect, useState } from 'react';
import type { SwitchId } from '../../core/model/ids';
import type { Point } from './geometry';

export type Places = ReadonlyMap<SwitchId, Point>;

const LASTS_MS = 420;
/** Above this many switches the move would not be smooth: they jump. */
const MOST = 160;

/** Slow at both ends. */
export const eased = (share: number): number => (share < 0.5 ? 2 * share * share : 1 - (2 - 2 * share) ** 2 / 2);

/** Places part of the way from one layout to the other; a switch that is new stands where it belongs. */
export function between(from: Places, to: Places, share: number): Places {
  const t = eased(Math.min(1, Math.max(0, share)));
  return new Map(
    [...to].map(([id, end]) => {
      const start = from.get(id) ?? end;
      return [id, { x: start.x + (end.x - start.x) * t, y: start.y + (end.y - start.y) * t }];
    }),
  );
}

interface Motion {
  places(target: Places, layout: string, now: number): Places;
  readonly running: () => boolean;
}

/** Remembers what was shown, and moves on from there when the layout changes. */
export function createMotion(): Motion {
  let shown: Places | null = null;
  let last: { target: Places; layout: string } | null = null;
  let move: { from: Places; since: number } | null = null;
  return {
    places(target, layout, now) {
      if (last && shown && last.target !== target) {
        const smooth = (last.layout !== layout || layout !== 'placed') && target.size <= MOST && !calm();
        move = smooth ? { from: shown, since: now } : null;
      }
      last = { target, layout };
      const share = move ? (now - move.since) / LASTS_MS : 1;
      if (share >= 1) move = null;
      shown = move ? between(move.from, target, share) : target;
      return shown;
    },
    running: () => move !== null,
  };
}

const calm = (): boolean =>
  typeof window !== 'undefined' && 'matchMedia' in window && matchMedia('(prefers-reduced-motion: reduce)').matches;

/** The places to draw now: the target, or on the way to it. */
export function useMotion(target: Places, layout: string): Places {
  const [motion] = useState(createMotion);
  const [now, setNow] = useState(0);
  const places = motion.places(target, layout, Math.max(now, frameTime()));
  useEffect(() => {
    if (!motion.running()) return;
    const frame = requestAnimationFrame(() => setNow(frameTime()));
    return () => cancelAnimationFrame(frame);
  });
  return places;
}

const frameTime = (): number => (typeof performance === 'undefined' ? 0 : performance.now());
