import { bundleFaults, bundleFields, bundleName } from './bundleFields';
import { action } from './kind';

export const removeBundle = action('remove-bundle', bundleFields, {
  faults: bundleFaults,
  happens: ({ bundle }) => ({ members: { bundle, ports: [] } }),
  text: ({ bundle }, names, topology) => `The bundle ${bundleName(bundle, names, topology)} is taken apart`,
});
