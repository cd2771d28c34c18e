import { z } from '../../base/zod';
import { action, ids, MAX_UNTIL } from './kind';
import { linkFields } from './linkFields';
import { oneWayFaults } from './oneWay';

/** A switch is too busy to send BPDUs in time: those that `from` (without it, either end) sends over the link are lost for so long; other frames get through. */
export const loseBpdus = action(
  'lose-bpdus',
  { ...linkFields, from: ids.switch.optional(), for: z.number().min(0).max(MAX_UNTIL) },
  {
    faults: oneWayFaults,
    happens: ({ link, from, for: lasts }) => ({ mute: { link, from: from ?? null, on: true, bpdus: true, lasts } }),
    text: ({ link, from, for: seconds }, names) =>
      `BPDUs${from ? ` of ${names.switch(from)}` : ''} on the link ${names.link(link)} are lost for ${seconds} s`,
  },
);
