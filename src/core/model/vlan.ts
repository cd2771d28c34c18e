import { z } from '../base/zod';
import { nameField } from './common';
import { field } from './field';
import { vlanId } from './legal';

export const vlanSchema = z.strictObject({
  id: vlanId,
  name: nameField,
  load: field(z.number().min(0).optional(), {
    label: 'load',
    unit: 'Mb/s',
    reads: 'nothing',
    line: { kind: 'value', word: 'load', detail: 'busy-hour load in Mb/s', what: 'a load in Mb/s' },
  }),
});
export type Vlan = z.output<typeof vlanSchema>;
