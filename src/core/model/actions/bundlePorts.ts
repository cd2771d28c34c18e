import { z } from '../../base/zod';
import { bundleFaults, bundleFields, bundleName, portsText } from './bundleFields';
import { action, ids } from './kind';

/** A bundle has these ports from then on; the others of its ports are single ones. */
export const bundlePorts = action(
  'bundle-ports',
  { ...bundleFields, ports: z.array(ids.port).min(1) },
  {
    faults: bundleFaults,
    /** The bundle has every port from the start that it will have. */
    arrivals({ bundle: id, ports }, { bundles }) {
      const bundle = bundles.find((each) => each.id === id);
      return bundle ? [{ do: 'set-bundle', bundle: id, ports: [...new Set([...bundle.ports, ...ports])] }] : [];
    },
    happens: ({ bundle, ports }) => ({ members: { bundle, ports } }),
    text: ({ bundle, ports }, names, topology) =>
      `The bundle ${bundleName(bundle, names, topology)} has ${portsText(ports)} now`,
  },
);
