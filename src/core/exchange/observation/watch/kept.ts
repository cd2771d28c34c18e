/** Readings one after the other as little as they take: a whole one now and then, between them what has changed. */
import { z } from '../../../base/zod';
import { observedSwitchSchema, type Observation, type ObservedSwitch } from '../observation';
import { identityOf } from './events';

export const keptSchema = z.object({
  /** All switches; or those that have changed since, with whom is gone. */
  whole: z.boolean(),
  switches: z.array(observedSwitchSchema),
  gone: z.array(z.string()),
  leftOut: z.array(z.string()),
});
export type Kept = z.output<typeof keptSchema>;

/** How long ago a tree changed goes on by itself: that alone is no change. */
const still = (sw: ObservedSwitch): string =>
  JSON.stringify({ ...sw, trees: sw.trees.map((tree) => ({ ...tree, sinceTopologyChange: 0 })) });

/** What is kept of a reading; `before`: null for a whole one. */
export function keptOf(before: Observation | null, { switches, leftOut }: Observation): Kept {
  if (!before) return { whole: true, switches, gone: [], leftOut };
  const was = new Map(before.switches.map((sw) => [identityOf(sw), sw]));
  const there = new Set(switches.map(identityOf));
  return {
    whole: false,
    switches: switches.filter((sw) => {
      const old = was.get(identityOf(sw));
      return old === undefined || (old !== sw && still(old) !== still(sw));
    }),
    gone: [...was.keys()].filter((id) => !there.has(id)),
    leftOut,
  };
}

/** A reading again, from a whole one and what followed it; null where there is no whole one. */
export function readAgain(parts: readonly Kept[], at: string): Observation | null {
  const from = parts.findLastIndex(({ whole }) => whole);
  if (from < 0) return null;
  const switches = new Map<string, ObservedSwitch>();
  for (const part of parts.slice(from)) {
    for (const id of part.gone) switches.delete(id);
    for (const sw of part.switches) switches.set(identityOf(sw), sw);
  }
  return {
    ...{ format: 'knot-path-observation', version: 1, at },
    switches: [...switches.values()].sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0)),
    leftOut: parts.at(-1)!.leftOut,
  };
}
