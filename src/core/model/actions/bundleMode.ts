import { z } from '../../base/zod';
import { BUNDLE_MODES } from '../bundle';
import { bundleFaults, bundleFields, bundleName } from './bundleFields';
import { action } from './kind';

export const bundleMode = action(
  'bundle-mode',
  { ...bundleFields, mode: z.enum(BUNDLE_MODES) },
  {
    faults: bundleFaults,
    happens: ({ bundle, mode }) => ({ changes: [{ do: 'set-bundle', bundle, mode }] }),
    text: ({ bundle, mode }, names, topology) => `The bundle ${bundleName(bundle, names, topology)} becomes ${mode}`,
  },
);
