/** Where instants stand on the clock's axis: every second alike, or stretches in which nothing happens drawn short. */
import { SECOND, type Micros } from '../../../../core/modes/entity';

export type ScaleKind = 'busy' | 'even';

export interface Scale {
  /** Share of the width, 0 to 1. */
  readonly at: (t: Micros) => number;
  /** The instant at a share of the width. */
  readonly back: (share: number) => Micros;
}

/** What a stretch between two changes is worth: a millisecond as much as a third of a minute in which nothing happens. */
const worth = (dt: Micros): number => Math.log10(1 + dt / 100);

/** `moments` in rising order. */
export function scaleOf(kind: ScaleKind, moments: ArrayLike<Micros>, until: Micros): Scale {
  if (kind === 'even') return { at: (t) => t / until, back: (share) => share * until };
  const knots = [0, ...Array.from(moments).filter((t) => t > 0 && t < until), until];
  const sums = [0];
  for (let i = 1; i < knots.length; i += 1) sums.push(sums[i - 1]! + worth(knots[i]! - knots[i - 1]!));
  const whole = sums.at(-1)! || 1;
  const between = (x: number, xs: readonly number[], ys: readonly number[]): number => {
    let [low, high] = [0, xs.length - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (xs[middle]! <= x) low = middle;
      else high = middle;
    }
    const width = xs[high]! - xs[low]!;
    return width === 0 ? ys[low]! : ys[low]! + ((x - xs[low]!) / width) * (ys[high]! - ys[low]!);
  };
  return { at: (t) => between(t, knots, sums) / whole, back: (share) => between(share * whole, sums, knots) };
}

/** Steps between round times, seconds. */
const STEPS = [86_400, 3600, 600, 60, 10, 5, 1];
/** Most round times that are tried of a step. */
const MOST_STEPS = 5000;

/**
 * Instants to write under the axis, no two nearer than `gap` shares: changes first, then round times. `from`: the time of
 * day at the start, so that times of day are round.
 */
export function ticksOf(
  scale: Scale,
  moments: ArrayLike<Micros>,
  until: Micros,
  gap: number,
  from: Micros = 0,
): Micros[] {
  const taken: { readonly t: Micros; readonly at: number }[] = [];
  const offer = (t: Micros): void => {
    const at = scale.at(t);
    if (taken.every((tick) => Math.abs(tick.at - at) >= gap)) taken.push({ t, at });
  };
  offer(0);
  offer(until);
  for (const t of Array.from(moments)) offer(t);
  for (const seconds of STEPS) {
    const step = seconds * SECOND;
    if (until / step > MOST_STEPS) continue;
    for (let t = step - (from % step); t < until; t += step) offer(t);
  }
  return taken.map(({ t }) => t).sort((a, b) => a - b);
}
