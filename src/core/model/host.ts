import { z } from '../base/zod';
import { hostBundleSchema } from './bundle';
import { branded, endSchema, macWord, nameField } from './common';
import { field } from './field';
import type { HostId } from './ids';
import { macAddress, vlanId } from './legal';
import { MAX_ENDS } from './limits';

export const hostSchema = z.strictObject({
  id: branded<HostId>(),
  name: nameField,
  mac: field(macAddress, { label: 'MAC address', reads: 'trees', line: macWord }),
  vlan: field(vlanId.default(1), {
    label: 'VLAN',
    reads: 'run',
    line: {
      kind: 'value',
      word: 'vlan',
      detail: 'VLAN of the host',
      what: 'the VLAN of a host, 1 to 4094',
      offer: 'vlan',
    },
  }),
  attach: field(z.array(endSchema).default([]), {
    label: 'plugged into',
    most: MAX_ENDS,
    reads: 'trees',
    text: (ends, names) => ends.map((end) => names.end(end)).join(' and ') || 'nothing',
    done: (ends, names) => (ends.length === 0 ? 'unplugged' : `on ${ends.map((end) => names.end(end)).join(' and ')}`),
  }),
  /** Absent: its cards are separate. */
  bundle: field(hostBundleSchema.optional(), {
    label: 'cards',
    reads: 'trees',
    absent: 'separate',
    present: 'one bundle',
  }),
});
export type Host = z.output<typeof hostSchema>;
