import { action } from './kind';
import { linkFaults, linkFields, setUp } from './linkFields';

export const linkUp = action('link-up', linkFields, {
  faults: linkFaults,
  happens: ({ link }) => ({ mute: { link, from: null, on: false }, changes: [setUp(link, true)] }),
  text: ({ link }, names) => `The link ${names.link(link)} is back`,
});
