/** Where a network is another one than before, as its spanning tree entities see it. */
import type { Network } from '../../topology/network';
import { delayOf } from './delays';
import { speaksOtherwise, type Spoken } from './places';

/** Switches whose power is another than before, or that speak otherwise. */
export const turnedSwitches = (
  [before, was]: readonly [Network, Spoken],
  [next, is]: readonly [Network, Spoken],
): number[] =>
  next.switches.flatMap((sw, s) =>
    sw.up !== before.switches[s]!.up || speaksOtherwise([before.switches[s]!, was.regions[s]!], [sw, is.regions[s]!])
      ? [s]
      : [],
  );

/** Ports that another bridge has than before: a pair has become one, or is one no longer. */
export const movedPorts = (before: Network, next: Network): number[] =>
  before.owner === next.owner ? [] : [...next.owner.keys()].filter((p) => before.owner[p] !== next.owner[p]);

/** Switches with a port that has other signal, another far end, another way there or other VLANs than before, and those beyond; with `turned` and all next to them. */
export function touchedSwitches(before: Network, next: Network, turned: readonly number[]): ReadonlySet<number> {
  const touched = new Set(turned);
  const { owner } = next;
  next.ports.forEach((_, p) => {
    const same =
      !turned.includes(owner[p]!) &&
      before.owner[p] === owner[p] &&
      before.live[p] === next.live[p] &&
      before.far[p] === next.far[p] &&
      before.link[p] === next.link[p] &&
      before.transmitPort[p] === next.transmitPort[p] &&
      before.carried[p] === next.carried[p] &&
      delayOf(before, before.link[p]!) === delayOf(next, next.link[p]!);
    if (!same) for (const each of [p, before.far[p]!, next.far[p]!]) if (each >= 0) touched.add(owner[each]!);
  });
  return touched;
}
