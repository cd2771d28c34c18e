/** What a run cost: for each pair of hosts and VLAN the time cut off, one direction beside the other. */
import type { HostId } from '../../model/ids';
import type { Outage } from '../traffic/dataPlane';
import type { OutageCause } from '../traffic/reach';

export interface PairCost {
  readonly from: HostId;
  readonly to: HostId;
  readonly vlan: number;
  /** How often. */
  readonly cuts: number;
  /** Seconds; an outage that lasts to the end counts up to it. */
  readonly longest: number;
  readonly total: number;
  readonly first: number;
  /** Whether it is cut off at the end. */
  readonly lasting: boolean;
  /** Seconds for each cause. */
  readonly by: Readonly<Partial<Record<OutageCause, number>>>;
}

export interface RunCost {
  /** The longest first. */
  readonly pairs: readonly PairCost[];
  readonly longest: number;
  /** Over all pairs. */
  readonly total: number;
}

/** The longest first. */
export const byCost = (a: PairCost, b: PairCost): number =>
  b.longest - a.longest || b.total - a.total || a.from.localeCompare(b.from) || a.to.localeCompare(b.to);

/** Sums up the outages of a run of `until` seconds. */
export function costOf(outages: readonly Outage[], until: number): RunCost {
  const pairs = new Map<string, { cost: PairCost; by: Partial<Record<OutageCause, number>> }>();
  for (const outage of outages) {
    const { from, to, vlan, start, cause } = outage;
    const seconds = (outage.end ?? until) - start;
    const key = `${from}\n${to}\n${vlan}`;
    const known = pairs.get(key);
    const by = { ...known?.by, [cause]: (known?.by[cause] ?? 0) + seconds };
    pairs.set(key, {
      by,
      cost: {
        from,
        to,
        vlan,
        cuts: (known?.cost.cuts ?? 0) + 1,
        longest: Math.max(known?.cost.longest ?? 0, seconds),
        total: (known?.cost.total ?? 0) + seconds,
        first: Math.min(known?.cost.first ?? Infinity, start),
        lasting: (known?.cost.lasting ?? false) || outage.end === null,
        by,
      },
    });
  }
  const all = [...pairs.values()].map(({ cost }) => cost).sort(byCost);
  return { pairs: all, longest: all[0]?.longest ?? 0, total: all.reduce((sum, pair) => sum + pair.total, 0) };
}
