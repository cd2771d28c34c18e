import { bundleSchema } from '../bundle';
import { nameOf } from '../names';
import { portsText } from './bundleFields';
import { action } from './kind';

/** A bundle is configured at its end: its ports are single ones before. */
export const addBundle = action(
  'add-bundle',
  { bundle: bundleSchema },
  {
    faults: ({ bundle }, { bundles }) =>
      bundles.some((each) => each.id === bundle.id)
        ? [{ field: 'bundle.id', found: bundle.id, allowed: 'an id that no other bundle has' }]
        : [],
    arrivals: ({ bundle }) => [{ do: 'add-bundle', bundle }],
    happens: ({ bundle }) => ({ members: { bundle: bundle.id, ports: bundle.ports } }),
    text: ({ bundle }, names) =>
      `${names.switch(bundle.switch)} ${portsText(bundle.ports)} ${bundle.ports.length === 1 ? 'becomes' : 'become'} the bundle ${nameOf(bundle)}, ${bundle.mode}`,
  },
);
