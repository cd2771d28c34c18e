import { z } from '../../base/zod';
import { NOWHERE, putAt } from '../derive/touched';
import type { LinkId, SwitchId } from '../ids';
import { putsSchema, type Put } from '../put';
import { action } from './kind';

/** Settings that change no more than which way trees take. */
const PLAIN: ReadonlySet<string> = new Set(['up', 'priority', 'cost', 'trees']);

/** Anything that is set at switches, as a step of a plan does: `brings` are ports and switches that are dead until then. */
export const change = action(
  'change',
  { text: z.string().max(2000), brings: putsSchema.default([]), puts: putsSchema.default([]) },
  {
    faults: ({ brings, puts }, topology) => {
      let now: unknown = topology;
      for (const [field, all] of [
        ['brings', brings],
        ['puts', puts],
      ] as const)
        for (const { place, value } of all) {
          now = putAt(now, place, value);
          if (now === NOWHERE) return [{ field, found: place.join('/'), allowed: 'a place that the design has' }];
        }
      return [];
    },
    arrivals: ({ brings }) => (brings.length > 0 ? [{ do: 'put', puts: brings }] : []),
    happens: ({ puts }) => (puts.length > 0 ? { changes: [{ do: 'put', puts }] } : {}),
    text: ({ text }) => text,
    turns: ({ puts }) => !puts.every(({ place }) => place.some((key) => PLAIN.has(key))),
    setsTrees: ({ puts }) => puts.length > 0,
    brings: ({ brings }, { switches }) => ({
      switches: named(brings, 'switches').flatMap((id) => switches.filter((sw) => sw.id === (id as SwitchId))),
      links: named(brings, 'links') as LinkId[],
    }),
  },
);

const named = (puts: readonly Put[], of: string): string[] =>
  puts.flatMap(({ place: [list, id, ...inside] }) =>
    list === of && id !== undefined && inside.length === 0 ? [id] : [],
  );
