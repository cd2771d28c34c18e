/** Which VLANs a port takes, as it is set in a design. */
import type { Carriage } from '../../../model/document';
import { vlanSet } from '../../../model/vlanSet';
import type { ObservedPort } from '../observation';

export function carriageOf({ carried, untagged }: NonNullable<ObservedPort['vlans']>): Carriage {
  if (untagged !== null && carried === String(untagged)) return { mode: 'access', vlan: untagged };
  const all = vlanSet(carried);
  let native = untagged ?? 1;
  // With a tag all of them: a native VLAN that the port does not carry.
  if (untagged === null) while (all.has(native) && native < 4094) native += 1;
  return { mode: 'trunk', native, allowed: carried };
}
