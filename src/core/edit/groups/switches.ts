import { z } from '../../base/zod';
import { halfSchema, stackMemberSchema, positionSchema, switchSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { BRIDGE_PRIORITY, stackMemberNumber, bridgePriority } from '../../model/legal';
import { nameOf } from '../../model/names';
import { command } from '../command';
import { assign, copyOf, findHalf, findStackMember, findSwitch } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { switchId, treeOrAll } from './ids';

const node = nodeOf(switchSchema) as GroupNode;
const stackMemberNode = nodeOf(stackMemberSchema) as GroupNode;
const halfNode = nodeOf(halfSchema) as GroupNode;
// What these say is set by commands of its own.
const plain = switchSchema.omit({ id: true, priority: true, trees: true, position: true, ports: true }).shape;

export const switchCommands = [
  command(
    'add-switch',
    { switch: switchSchema },
    {
      apply: (draft, { switch: sw }) => void draft.switches.push(copyOf(sw)),
      say: (_, { switch: sw }) => did('added', 'switch ', nameOf(sw)),
      learn: ({ things }, { switch: sw }) => void things.switches.set(sw.id, sw),
    },
  ),
  command(
    'set-switch',
    { switch: switchId, ...settingsOf(plain) },
    {
      apply: (draft, { switch: id, ...settings }) => applySettings(node, findSwitch(draft, id), settings),
      say: (naming, { switch: id, ...settings }) =>
        say('', naming.names.switch(id), `: ${settingsText(node, naming.switch(id), settings, naming.names)}`),
    },
  ),
  command(
    'set-bridge-priority',
    { switch: switchId, tree: treeOrAll, priority: bridgePriority.nullable() },
    {
      apply(draft, { switch: id, tree, priority }) {
        const sw = findSwitch(draft, id);
        if (tree === null) sw.priority = priority ?? BRIDGE_PRIORITY.default;
        else if (priority === null) delete sw.trees[tree];
        else assign(sw.trees, tree, { priority });
      },
      say(naming, { switch: id, tree, priority }) {
        const sw = naming.switch(id);
        const before =
          (tree === null ? undefined : sw?.trees[tree]?.priority) ?? sw?.priority ?? BRIDGE_PRIORITY.default;
        return say('priority of ', naming.names.switch(id), `: ${before} to ${priority ?? 'as in all trees'}`, [tree]);
      },
    },
  ),
  command(
    'move-switches',
    { to: z.array(z.strictObject({ switch: switchId, position: positionSchema })) },
    {
      apply(draft, { to }) {
        for (const { switch: id, position } of to) assign(findSwitch(draft, id), 'position', position);
      },
      say: ({ names }, { to }) =>
        did('moved', '', to.length === 1 ? names.switch(to[0]!.switch) : `${to.length} switches`),
    },
  ),
  /** A member of a stack. */
  command(
    'set-stack-member',
    { switch: switchId, member: stackMemberNumber, ...settingsOf(stackMemberSchema.omit({ id: true }).shape) },
    {
      apply: (draft, { switch: id, member, ...settings }) =>
        applySettings(stackMemberNode, findStackMember(draft, id, member), settings),
      say: (naming, { switch: id, member, ...settings }) =>
        say(
          '',
          naming.names.switch(id),
          `: member ${member}: ${settingsText(
            stackMemberNode,
            naming.switch(id)?.stack?.members.find((each) => each.id === member),
            settings,
            naming.names,
          )}`,
        ),
    },
  ),
  /** A switch's half of a pair. */
  command(
    'set-pair',
    { switch: switchId, ...settingsOf(halfSchema.shape) },
    {
      apply: (draft, { switch: id, ...settings }) => applySettings(halfNode, findHalf(draft, id), settings),
      say: (naming, { switch: id, ...settings }) =>
        say(
          '',
          naming.names.switch(id),
          `: ${settingsText(halfNode, naming.switch(id)?.pair, settings, naming.names)}`,
        ),
    },
  ),
  /** It leaves with its cables and bundles; hosts that hung on it stay, unplugged. */
  command(
    'remove-switch',
    { switch: switchId },
    {
      apply(draft, { switch: id }) {
        findSwitch(draft, id);
        draft.switches = draft.switches.filter((sw) => sw.id !== id);
        draft.links = draft.links.filter((link) => link.a.switch !== id && link.b.switch !== id);
        draft.bundles = draft.bundles.filter((bundle) => bundle.switch !== id);
        for (const host of draft.hosts)
          if (host.attach.some((at) => at.switch === id)) host.attach = host.attach.filter((at) => at.switch !== id);
      },
      say: ({ names }, { switch: id }) => did('removed', 'switch ', names.switch(id)),
    },
  ),
] as const;
