/**
 * Switches between the roots and the edge that serve the same switches, such as the two of a distribution pair: of equal
 * ways to a root the one over the better designated bridge is taken (802.1Q-2018 13.10), in every tree alike unless
 * priorities say otherwise.
 */
import type { Command } from '../../edit/commands';
import type { TreeId } from '../../model/ids';
import { BRIDGE_PRIORITY } from '../../model/legal';
import type { Network } from '../../topology/network';

/** Of an uplink, the bridge that it leaves and the one that it leads to. */
export interface Leads {
  readonly from: number;
  readonly to: number;
}

/** Sets of switches, none of them among `tops`, that serve the same switches; each set in the order of the design. */
export function middlesOf(leads: readonly Leads[], tops: readonly number[]): number[][] {
  const top = new Set(tops);
  const above = new Map<number, Set<number>>();
  for (const { from, to } of leads) if (!top.has(to)) above.set(from, (above.get(from) ?? new Set()).add(to));
  const sets: Set<number>[] = [];
  for (const own of above.values()) {
    if (own.size < 2) continue;
    const touching = sets.filter((set) => [...own].some((s) => set.has(s)));
    for (const set of touching) sets.splice(sets.indexOf(set), 1);
    sets.push(new Set([...own, ...touching.flatMap((set) => [...set])]));
  }
  return sets.map((set) => [...set].sort((a, b) => a - b));
}

/**
 * Commands that make one switch of each set the better bridge in each tree, the next one in the trees of the next place:
 * the others step back, so that nobody comes nearer to being root.
 */
export function preferInTurn(
  { switches }: Network,
  sets: readonly (readonly number[])[],
  dealt: ReadonlyMap<TreeId, number>,
): Command[] {
  const { step, max } = BRIDGE_PRIORITY;
  return [...dealt].flatMap(([tree, at]) =>
    sets.flatMap((set): Command[] => {
      const priorityOf = (s: number): number => switches[s]!.trees[tree]?.priority ?? switches[s]!.priority;
      const preferred = set[at % set.length]!;
      const behind = priorityOf(preferred) + step;
      return behind > max
        ? []
        : set.flatMap((s): Command[] =>
            s === preferred || priorityOf(s) >= behind
              ? []
              : [{ do: 'set-bridge-priority', switch: switches[s]!.id, tree, priority: behind }],
          );
    }),
  );
}
