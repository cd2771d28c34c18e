/** Commands about intents. */
import { z } from '../../base/zod';
import { exerciseSchema, intentSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { command } from '../command';
import { assign, copyOf, find } from '../draft';
import { did, say, type Naming } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';

const node = nodeOf(intentSchema) as GroupNode;
const intentId = z.string();
const lineOf = ({ design }: Naming, id: string): string => design.intents.find((each) => each.id === id)?.line ?? id;

export const intentCommands = [
  command(
    'add-intent',
    { intent: intentSchema },
    {
      apply: (draft, { intent }) => void draft.intents.push(copyOf(intent)),
      say: (_, { intent }) => did('added', 'intent ', intent.line),
    },
  ),
  command(
    'set-intent',
    { intent: intentId, ...settingsOf(intentSchema.omit({ id: true }).shape) },
    {
      apply: ({ intents }, { intent: id, ...settings }) =>
        applySettings(
          node,
          find(intents, (each) => each.id === id, `intent ${id}`),
          settings,
        ),
      say: (naming, { intent: id, ...settings }) =>
        say(
          'intent ',
          lineOf(naming, id),
          `: ${settingsText(
            node,
            naming.design.intents.find((each) => each.id === id),
            settings,
            naming.names,
          )}`,
        ),
    },
  ),
  command(
    'remove-intent',
    { intent: intentId },
    {
      apply(draft, { intent: id }) {
        find(draft.intents, (each) => each.id === id, `intent ${id}`);
        draft.intents = draft.intents.filter((each) => each.id !== id);
      },
      say: (naming, { intent }) => did('removed', 'intent ', lineOf(naming, intent)),
    },
  ),
  /** Makes an exercise of the design, or, null, none any more. */
  command(
    'set-exercise',
    { exercise: exerciseSchema.nullable() },
    {
      apply(draft, { exercise }) {
        if (exercise === null) delete draft.exercise;
        else assign(draft, 'exercise', exercise);
      },
      say: (_, { exercise }) => say('exercise: ', exercise ? exercise.task : 'none any more'),
    },
  ),
] as const;
