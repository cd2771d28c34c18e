/** Values put in their places, whatever they are: how steps of a plan travel. */
import equal from 'fast-deep-equal';
import { current } from 'immer';
import { NOWHERE, putAt } from '../../model/derive/touched';
import { designSchema, type Design } from '../../model/document';
import { putsSchema } from '../../model/put';
import { readPart } from '../../model/read';
import { command } from '../command';
import { Missing } from '../draft';
import { say } from '../phrase';

export const placeCommands = [
  command(
    'put',
    { puts: putsSchema.min(1) },
    {
      apply(draft, { puts }) {
        const before = current(draft) as Design;
        let after: Record<string, unknown> = before as never;
        for (const { place, value } of puts) {
          const [key] = place as [string];
          const next = Object.hasOwn(designSchema.shape, key) ? putAt(after, place, value) : NOWHERE;
          if (next === NOWHERE) throw new Missing(place.join('/'));
          after = next as Record<string, unknown>;
        }
        for (const key of new Set(puts.map(({ place }) => place[0] as keyof Design))) {
          const value = readPart(key, after[key], before[key]);
          if (!equal(value, before[key])) Object.assign(draft, { [key]: value });
        }
      },
      say({ names, things }, { puts }) {
        const switches = puts.flatMap(({ place: [list, id] }) =>
          list === 'switches' && things.switches.has(id as never) ? [names.switch(id as never)] : [],
        );
        const where = [...new Set(switches)];
        return say(
          where.length === 0 || where.length > 3 ? 'the design: ' : `${where.join(', ')}: `,
          puts.length === 1 ? '1 setting' : `${puts.length} settings`,
          ' as planned',
        );
      },
    },
  ),
] as const;
