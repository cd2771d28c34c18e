import { hostSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { nameOf } from '../../model/names';
import { command } from '../command';
import { copyOf, findHost } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { hostId } from './ids';

const node = nodeOf(hostSchema) as GroupNode;

export const hostCommands = [
  command(
    'add-host',
    { host: hostSchema },
    {
      apply: (draft, { host }) => void draft.hosts.push(copyOf(host)),
      say: (_, { host }) => did('added', 'host ', nameOf(host)),
      learn: ({ things }, { host }) => void things.hosts.set(host.id, host),
    },
  ),
  command(
    'set-host',
    { host: hostId, ...settingsOf(hostSchema.omit({ id: true }).shape) },
    {
      apply: (draft, { host: id, ...settings }) => applySettings(node, findHost(draft, id), settings),
      say: ({ things, names }, { host: id, ...settings }) =>
        say('host ', names.host(id), `: ${settingsText(node, things.hosts.get(id), settings, names)}`),
    },
  ),
  command(
    'remove-host',
    { host: hostId },
    {
      apply(draft, { host: id }) {
        findHost(draft, id);
        draft.hosts = draft.hosts.filter((host) => host.id !== id);
      },
      say: ({ names }, { host: id }) => did('removed', 'host ', names.host(id)),
    },
  ),
] as const;
