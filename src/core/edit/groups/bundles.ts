import { bundleSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { nameOf } from '../../model/names';
import { command } from '../command';
import { copyOf, findBundle } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { bundleId } from './ids';

const node = nodeOf(bundleSchema) as GroupNode;
// Costs and priorities are set as those of a port.
const plain = bundleSchema.omit({
  id: true,
  switch: true,
  cost: true,
  externalCost: true,
  priority: true,
  trees: true,
}).shape;

export const bundleCommands = [
  command(
    'add-bundle',
    { bundle: bundleSchema },
    {
      apply: (draft, { bundle }) => void draft.bundles.push(copyOf(bundle)),
      say: ({ names }, { bundle }) => did('added', 'bundle ', `${nameOf(bundle)} on ${names.switch(bundle.switch)}`),
      learn: ({ things }, { bundle }) => void things.bundles.set(bundle.id, bundle),
    },
  ),
  command(
    'set-bundle',
    { bundle: bundleId, ...settingsOf(plain) },
    {
      apply: (draft, { bundle: id, ...settings }) => applySettings(node, findBundle(draft, id), settings),
      say: ({ things, names }, { bundle: id, ...settings }) =>
        say('bundle ', names.bundle(id), `: ${settingsText(node, things.bundles.get(id), settings, names)}`),
    },
  ),
  command(
    'remove-bundle',
    { bundle: bundleId },
    {
      apply(draft, { bundle: id }) {
        findBundle(draft, id);
        draft.bundles = draft.bundles.filter((bundle) => bundle.id !== id);
        for (const sw of draft.switches) if (sw.pair?.peerLink === id) delete sw.pair; // no half without its peer link
      },
      say: ({ names }, { bundle: id }) => did('removed', 'bundle ', names.bundle(id)),
    },
  ),
] as const;
