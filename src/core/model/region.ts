/** The MST configurations that switches share (IEEE 802.1Q-2018 13.8). */
import { z } from '../base/zod';
import { branded, hasControl } from './common';
import { field } from './field';
import type { RegionId } from './ids';
import { mstid, vlanSetText } from './legal';
import { MAX_INSTANCES } from './limits';

/** What names an MST configuration, and how many instances it may have beside the IST (802.1Q-2018 13.8, 13.5). */
export const REGION = { nameOctets: 32, revision: 65_535, instances: MAX_INSTANCES } as const;

/** How many octets a text has as it is sent. */
const utf8Octets = (value: string): number =>
  [...value].reduce((sum, char) => sum + (char <= '\u007f' ? 1 : char <= '\u07ff' ? 2 : char <= '\uffff' ? 3 : 4), 0);

export const regionName = z.string().superRefine((value, ctx) => {
  const octets = utf8Octets(value);
  if (octets > REGION.nameOctets)
    ctx.addIssue({ code: 'custom', message: `at most ${REGION.nameOctets} octets (this has ${octets})` });
  else if (hasControl(value)) ctx.addIssue({ code: 'custom', message: 'a name on one line' });
});
export const regionRevision = z.number().superRefine((value, ctx) => {
  if (!Number.isInteger(value) || value < 0 || value > REGION.revision)
    ctx.addIssue({ code: 'custom', message: `a revision, a whole number from 0 to ${REGION.revision}` });
});
export const regionInstances = z.array(z.strictObject({ id: mstid, vlans: vlanSetText }));

export const regionSchema = z.strictObject({
  id: branded<RegionId>(),
  name: field(regionName.default(''), { label: 'name', reads: 'trees', text: (name) => name || 'none' }),
  revision: field(regionRevision.default(0), { label: 'revision', reads: 'trees' }),
  instances: field(regionInstances.default([]), {
    label: 'VLAN map',
    most: MAX_INSTANCES,
    beside: 'beside the IST',
    reads: 'trees',
    text: mapText,
  }),
});
export type RegionSettings = z.output<typeof regionSchema>;

/** `1: 15,25; 2: 35`. */
export function mapText(instances: readonly { readonly id: number; readonly vlans: string }[]): string {
  const parts = instances.map(({ id, vlans }) => `${id}: ${vlans || 'no VLAN'}`);
  return parts.join('; ') || 'every VLAN in the IST';
}
