/** Commands about groups of switches. */
import { z } from '../../base/zod';
import { groupSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { command } from '../command';
import { copyOf, findGroup, findSwitch } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { groupId, switchId } from './ids';

const node = nodeOf(groupSchema) as GroupNode;

export const groupCommands = [
  command(
    'add-group',
    { group: groupSchema },
    {
      apply: (draft, { group }) => void draft.groups.push(copyOf(group)),
      say: (_, { group }) => did('added', 'group ', group.name ?? group.id),
      learn: ({ things }, { group }) => void things.groups.set(group.id, group),
    },
  ),
  command(
    'set-group',
    { group: groupId, ...settingsOf(groupSchema.omit({ id: true }).shape) },
    {
      apply: (draft, { group: id, ...settings }) => applySettings(node, findGroup(draft, id), settings),
      say: ({ things, names }, { group: id, ...settings }) =>
        say('group ', names.group(id), `: ${settingsText(node, things.groups.get(id), settings, names)}`),
    },
  ),
  /** Switches leave the group that they were in; null: they are in none. */
  command(
    'put-in-group',
    { switches: z.array(switchId), group: groupId.nullable() },
    {
      apply(draft, { switches, group }) {
        for (const id of switches) {
          const sw = findSwitch(draft, id);
          if (group === null) delete sw.group;
          else if (sw.group !== group) sw.group = group;
        }
      },
      say: ({ names }, { switches, group }) =>
        say(
          '',
          switches.length === 1 ? names.switch(switches[0]!) : `${switches.length} switches`,
          group === null ? ': in no group any more' : `: into group ${names.group(group)}`,
        ),
    },
  ),
  /** What is in it goes to the group around it, or to none. */
  command(
    'remove-group',
    { group: groupId },
    {
      apply(draft, { group: id }) {
        const { within } = findGroup(draft, id);
        draft.groups = draft.groups.filter((group) => group.id !== id);
        for (const group of draft.groups)
          if (group.within === id) {
            if (within === undefined) delete group.within;
            else group.within = within;
          }
        for (const sw of draft.switches)
          if (sw.group === id) {
            if (within === undefined) delete sw.group;
            else sw.group = within;
          }
      },
      say: ({ names }, { group }) => did('removed', 'group ', names.group(group)),
    },
  ),
] as const;
