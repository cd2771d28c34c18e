/** A design held against what its network tells: where they differ, sorted by harm, each with a likely reason. */
import type { Solution } from '../../../tree/settled';
import type { Matches } from '../match';
import type { Observation } from '../observation';
import { compareBundles } from './bundles';
import { compareCables } from './cables';
import { HARMS, type Difference } from './difference';
import { Held } from './held';
import { comparePorts } from './ports';
import { compareHeard, compareSwitch } from './switches';
import { compareUnplanned, compareVlans } from './unplanned';
import { compareTrees } from './trees';

export interface Comparison {
  readonly matches: Matches;
  readonly differences: readonly Difference[];
  /** How many things were compared. */
  readonly compared: number;
}

/** `solution`: of the design. */
export function compareObserved(solution: Solution, observation: Observation): Comparison {
  const held = new Held(solution, observation);
  compareHeard(held);
  for (const pair of held.matches.pairs) {
    compareSwitch(held, pair);
    comparePorts(held, pair);
    compareCables(held, pair);
    compareUnplanned(held, pair);
  }
  compareBundles(held);
  compareVlans(held);
  const roots = compareTrees(held);
  const rank = new Map(HARMS.map((harm, i) => [harm, i]));
  return {
    matches: held.matches,
    compared: held.compared,
    differences: [...roots, ...joined(held.differences)].sort((a, b) => rank.get(a.harm)! - rank.get(b.harm)!),
  };
}

/** What is the same in several trees is one difference, and is taken over in all of them. */
function joined(differences: readonly Difference[]): Difference[] {
  const found = new Map<string, Difference>();
  for (const each of differences) {
    const { harm, what, switch: sw, port, designed, observed, why } = each;
    const key = JSON.stringify([harm, what, sw, port, designed, observed, why]);
    const before = found.get(key);
    if (!before) {
      found.set(key, each);
      continue;
    }
    const [first, second] = [before.takeOver, each.takeOver];
    found.set(key, {
      ...before,
      trees: [...before.trees, ...each.trees],
      takeOver: first && second ? () => [...first(), ...second()] : (first ?? second),
    });
  }
  return [...found.values()];
}
