import { z } from '../../base/zod';
import { action } from './kind';
import { linkFaults, linkFields, setUp } from './linkFields';

export const linkDown = action(
  'link-down',
  {
    ...linkFields,
    /** False: the ends do not notice, as with a converter in between; only missing BPDUs tell. */
    light: z.boolean().default(true),
  },
  {
    faults: linkFaults,
    happens: ({ link, light }) =>
      light ? { changes: [setUp(link, false)] } : { mute: { link, from: null, on: true } },
    text: ({ link, light }, names) =>
      `The link ${names.link(link)} is ${light ? 'cut' : 'broken, but both its ports stay up'}`,
  },
);
