/** By which method switches take costs from speed, and which costs have been set by hand. */
import type { CostMethod } from '../../../model/document';
import { MAX_COST } from '../../../model/legal';
import { pathCostOf } from '../../../topology/pathCost';
import type { ObservedSwitch } from '../observation';

/** Mb/s, where nobody tells. */
export const USUAL_SPEED = 1000;

/** By the number of a port: a bundle has what its members have together. */
export function speedsOf({ ports, bundles }: ObservedSwitch): ReadonlyMap<number, number> {
  const own = new Map(ports.map(({ number, speed }) => [number, speed > 0 ? speed : USUAL_SPEED]));
  const told = new Map(ports.map(({ number, speed }) => [number, speed]));
  for (const { number, members } of bundles) {
    if ((told.get(number) ?? 0) > 0) continue;
    const active = members.filter((member) => member.active);
    const speeds = (active.length > 0 ? active : members).map(({ port }) => own.get(port) ?? USUAL_SPEED);
    own.set(
      number,
      speeds.reduce((sum, each) => sum + each, 0),
    );
  }
  return own;
}

/** How many costs of a switch are what each method gives. */
function counts(sw: ObservedSwitch): Readonly<Record<CostMethod, number>> {
  const speeds = speedsOf(sw);
  const found = { short: 0, long: 0 };
  for (const { ports } of sw.trees)
    for (const { port, cost, state } of ports) {
      const speed = speeds.get(port);
      if (speed === undefined || state === 'disabled') continue;
      for (const method of ['short', 'long'] as const) if (pathCostOf(speed, method) === cost) found[method] += 1;
    }
  return found;
}

/** The method that explains most costs of a network. */
export function usualMethod(switches: readonly ObservedSwitch[]): CostMethod {
  const sum = { short: 0, long: 0 };
  for (const sw of switches) {
    const { short, long } = counts(sw);
    sum.short += short;
    sum.long += long;
  }
  return sum.short > sum.long ? 'short' : 'long';
}

/** The method of one switch: the network's, unless the other one explains more of its costs, or alone allows them. */
export function methodOf(sw: ObservedSwitch, usual: CostMethod): CostMethod {
  if (sw.trees.some(({ ports }) => ports.some(({ cost }) => cost > MAX_COST.short))) return 'long';
  const found = counts(sw);
  const other = usual === 'short' ? 'long' : 'short';
  return found[other] > found[usual] ? other : usual;
}
