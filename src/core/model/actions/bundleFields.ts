/** What actions about bundles have in common. */
import type { BundleId, PortId } from '../ids';
import { nameOf, type Names } from '../names';
import { ids, unless, type ActionFault, type Topology } from './kind';

export const bundleFields = { bundle: ids.bundle };
export const bundleFaults = ({ bundle }: { readonly bundle: string }, { bundles }: Topology): ActionFault[] =>
  unless(bundles, bundle, 'bundle', 'a bundle');

/** `Uplink of ridge-a`. */
export const bundleName = (id: BundleId, names: Names, { bundles }: Topology): string => {
  const bundle = bundles.find((each) => each.id === id);
  return bundle ? `${nameOf(bundle)} of ${names.switch(bundle.switch)}` : id;
};
/** `port 1`, `ports 1, 2`. */
export const portsText = (ports: readonly PortId[]): string =>
  `${ports.length === 1 ? 'port' : 'ports'} ${ports.join(', ')}`;
