/** Path cost from speed, by both methods. Speeds are in Mbit/s. */
import { MAX_COST } from '../model/legal';
import type { CostMethod } from '../model/document';

/** 802.1D-1998 Table 8-5: recommended costs by speed in Mbit/s, in rising order of speed. */
const SHORT_TABLE: readonly (readonly [speed: number, cost: number])[] = [
  [4, 250],
  [10, 100],
  [16, 62],
  [100, 19],
  [1_000, 4],
  [10_000, 2],
];

/**
 * 802.1Q-2018 13.27.33 and Table 13-4: 20 000 000 000 / (speed in kb/s), whole, within 1 to 200 000 000.
 * Fractions are dropped.
 */
export function longPathCost(speed: number): number {
  return Math.min(MAX_COST.long, Math.max(1, Math.floor(20_000_000_000 / (speed * 1000))));
}

/**
 * 802.1D-1998 Table 8-5, and between its rows a straight line on logarithmic axes, rounded; above 10 Gb/s 1;
 * below 4 Mb/s the table's own rule, 1000 / speed. Within 1 to 65 535.
 */
export function shortPathCost(speed: number): number {
  const [slowest] = SHORT_TABLE;
  if (slowest && speed < slowest[0]) return Math.min(MAX_COST.short, Math.round(1000 / speed));
  for (let i = 0; i < SHORT_TABLE.length; i += 1) {
    const [at, cost] = SHORT_TABLE[i]!;
    const next = SHORT_TABLE[i + 1];
    if (speed === at) return cost;
    if (next && speed < next[0]) {
      const share = Math.log(speed / at) / Math.log(next[0] / at);
      return Math.round(cost * Math.pow(next[1] / cost, share));
    }
  }
  return 1;
}

/** The cost that a speed gives by a method. */
export const pathCostOf = (speed: number, method: CostMethod): number =>
  method === 'long' ? longPathCost(speed) : shortPathCost(speed);
