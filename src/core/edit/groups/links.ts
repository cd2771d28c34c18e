import { linkSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { speed as speedSchema } from '../../model/legal';
import { command } from '../command';
import { assign, copyOf, findLink, findPort } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { linkId } from './ids';

const node = nodeOf(linkSchema) as GroupNode;

export const linkCommands = [
  command(
    'add-link',
    { link: linkSchema },
    {
      apply: (draft, { link }) => void draft.links.push(copyOf(link)),
      say: ({ names }, { link }) => did('cabled', '', `${names.end(link.a)} to ${names.end(link.b)}`),
      learn: ({ things }, { link }) => void things.links.set(link.id, link),
    },
  ),
  /** `speed` is that of the ports at both ends. */
  command(
    'set-link',
    { link: linkId, ...settingsOf(linkSchema.omit({ id: true }).shape), speed: speedSchema.optional() },
    {
      apply(draft, { link: id, speed, ...settings }) {
        const link = findLink(draft, id);
        applySettings(node, link, settings);
        if (speed !== undefined)
          for (const end of [link.a, link.b]) assign(findPort(draft, end.switch, end.port), 'speed', speed);
      },
      say(naming, { link: id, speed, ...settings }) {
        const said = settingsText(node, naming.things.links.get(id), settings, naming.names);
        const both = speed === undefined ? '' : `speed ${speed} Mb/s at both ends`;
        return say('link ', naming.names.link(id), `: ${[said, both].filter(Boolean).join(', ')}`);
      },
    },
  ),
  command(
    'remove-link',
    { link: linkId },
    {
      apply(draft, { link: id }) {
        findLink(draft, id);
        draft.links = draft.links.filter((link) => link.id !== id);
      },
      say({ names, things }, { link: id }) {
        const link = things.links.get(id);
        return did('unplugged', '', link ? `${names.end(link.a)} from ${names.end(link.b)}` : id);
      },
    },
  ),
] as const;
