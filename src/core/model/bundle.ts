/** Bundles: link aggregation groups at their ends (IEEE 802.1AX-2020). */
import { z } from '../base/zod';
import { branded, nameField } from './common';
import { field } from './field';
import type { BundleId, PortId, SwitchId } from './ids';
import { ACTIVE_MEMBERS, lacpKey, memberCount, pairNumber } from './legal';
import { MAX_ENDS } from './limits';
import { bridgePortFields } from './port';

/** How a bundle's end negotiates: LACP, nothing, or the older negotiation. */
export const BUNDLE_MODES = ['active', 'passive', 'static', 'initiate', 'answer'] as const;
export type BundleMode = (typeof BUNDLE_MODES)[number];
/** How often a bundle's end wants to hear LACPDUs: every 30 s, or every second. */
export const LACP_TIMEOUTS = ['slow', 'fast'] as const;
/** What of a frame chooses the member that it leaves by: MAC addresses; with IP addresses; IP addresses and TCP or UDP ports. */
export const HASH_POLICIES = ['2', '2+3', '3+4'] as const;
export type HashPolicy = (typeof HASH_POLICIES)[number];

/** Also as `layer 2+3`, `layer2+3`, `l2+3`. */
const hashPolicy = z
  .string()
  .transform((value) => value.toLowerCase().replaceAll(/layer|l(?=\d)|\s/g, ''))
  .pipe(z.enum(HASH_POLICIES));

/** How a bundle's end negotiates and shares out frames, on switches and hosts alike. */
const negotiation = {
  mode: field(z.enum(BUNDLE_MODES).default('active'), { label: 'mode', reads: 'trees' }),
  timeout: field(z.enum(LACP_TIMEOUTS).default('slow'), { label: 'timeout', reads: 'run' }),
  key: field(lacpKey.optional(), { label: 'key', reads: 'trees', absent: 'its number' }),
  minLinks: field(memberCount.default(1), { label: 'minimum links', reads: 'trees' }),
  maxActive: field(memberCount.default(ACTIVE_MEMBERS.default), { label: 'maximum active links', reads: 'trees' }),
  hash: field(hashPolicy.default('2'), { label: 'hash', reads: 'run', text: (hash) => `layer ${hash}` }),
};

/** The bundle that all cards of a host are. */
export const hostBundleSchema = z.strictObject(negotiation);
export type HostBundle = z.output<typeof hostBundleSchema>;

export const bundleSchema = z.strictObject({
  id: branded<BundleId>(),
  name: nameField,
  switch: field(branded<SwitchId>(), { label: 'switch', reads: 'trees', text: (id, names) => names.switch(id) }),
  number: field(z.number().int().min(1).max(2047), { label: 'number', reads: 'trees' }),
  ports: field(
    z.array(branded<PortId>()).superRefine((ports, ctx) => {
      if (ports.length === 0) ctx.addIssue({ code: 'custom', message: 'at least one port' });
    }),
    { label: 'members', most: MAX_ENDS, reads: 'trees', text: (ports) => ports.join(', ') },
  ),
  /** Of a pair: bundles of both switches with one number are one bundle. */
  pairNumber: field(pairNumber.optional(), { label: 'number in the pair', reads: 'trees', absent: 'none' }),
  ...negotiation,
  ...bridgePortFields,
});
export type Bundle = z.output<typeof bundleSchema>;
