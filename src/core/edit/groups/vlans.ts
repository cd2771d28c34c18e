import { vlanSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { vlanTree } from '../../model/ids';
import { vlanId } from '../../model/legal';
import { command } from '../command';
import { copyOf, findVlan, withTrees } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';

const node = nodeOf(vlanSchema) as GroupNode;
const vlanText = ({ id, name }: { readonly id: number; readonly name?: string | undefined }): string =>
  name === undefined ? String(id) : `${id} ${name}`;

export const vlanCommands = [
  command(
    'add-vlan',
    { vlan: vlanSchema },
    {
      apply(draft, { vlan }) {
        draft.vlans.push(copyOf(vlan));
        draft.vlans.sort((a, b) => a.id - b.id);
      },
      say: (_, { vlan }) => did('added', 'VLAN ', vlanText(vlan)),
    },
  ),
  command(
    'set-vlan',
    { vlan: vlanId, ...settingsOf(vlanSchema.omit({ id: true }).shape) },
    {
      apply: (draft, { vlan: id, ...settings }) => applySettings(node, findVlan(draft, id), settings),
      say: ({ design, names }, { vlan: id, ...settings }) =>
        say(
          'VLAN ',
          String(id),
          `: ${settingsText(
            node,
            design.vlans.find((vlan) => vlan.id === id),
            settings,
            names,
          )}`,
        ),
    },
  ),
  /** Takes the VLAN off the list with the settings of its tree; ports and hosts keep what they are set to. */
  command(
    'remove-vlan',
    { vlan: vlanId },
    {
      apply(draft, { vlan: id }) {
        findVlan(draft, id);
        draft.vlans = draft.vlans.filter((vlan) => vlan.id !== id);
        for (const { trees } of withTrees(draft)) if (trees[vlanTree(id)]) delete trees[vlanTree(id)];
      },
      say: ({ design }, { vlan: id }) =>
        did('removed', 'VLAN ', vlanText(design.vlans.find((vlan) => vlan.id === id) ?? { id })),
    },
  ),
] as const;
