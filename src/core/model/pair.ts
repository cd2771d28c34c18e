/**
 * A pair: two switches that act as one for bundles that reach both. 802.1AX-2020 clause 9 (distributed resilient network
 * interconnect) says what the partner of such a bundle sees, one system identifier and one key; how the two hold together is
 * common practice.
 */
import { z } from '../base/zod';
import { branded } from './common';
import { field } from './field';
import type { BundleId, PortId } from './ids';
import { PAIR_PRIORITY, macAddress, pairDelay, pairDomain, pairPriority } from './legal';

/** What tells two halves of each other where their peer link does not: nothing; a way over the peer link; a cable of their own; another network. */
export const KEEPALIVES = ['none', 'peer-link', 'own-link', 'out-of-band'] as const;
export type Keepalive = (typeof KEEPALIVES)[number];

const KEEPALIVE_NAMES: Record<Keepalive, string> = {
  none: 'none',
  'peer-link': 'over the peer link',
  'own-link': 'over a cable of its own',
  'out-of-band': 'out of band',
};
export const keepaliveName = (keepalive: Keepalive): string => KEEPALIVE_NAMES[keepalive];

/** The settings of a half one by one. */
export const halfShape = {
  /** The same at both switches, and at no other. */
  domain: field(pairDomain, { label: 'domain', reads: 'trees' }),
  /** What both are called as one bridge and as one LACP system. */
  mac: field(macAddress, { label: 'address of the pair', reads: 'trees' }),
  /** The lower is primary; of two alike the switch with the lower address. */
  priority: field(pairPriority.default(PAIR_PRIORITY.default), { label: 'priority in the pair', reads: 'trees' }),
  /** The bundle of this switch that leads to its peer. */
  peerLink: field(branded<BundleId>(), { label: 'peer link', reads: 'trees' }),
  keepalive: field(z.enum(KEEPALIVES).default('out-of-band'), {
    label: 'keepalive',
    reads: 'trees',
    text: (keepalive) => keepaliveName(keepalive),
  }),
  /** The port of this switch that the cable for the keepalive is in; it takes part in nothing else. */
  keepalivePort: field(branded<PortId>().optional(), {
    label: 'port for the keepalive',
    reads: 'trees',
    absent: 'none',
  }),
  /** False: the network that carries an out-of-band keepalive has failed at this switch. */
  keepaliveUp: field(z.boolean().default(true), {
    label: 'network of the keepalive',
    reads: 'trees',
    text: (up) => (up ? 'works' : 'has failed'),
    done: (up) => (up ? 'keepalive works again' : 'keepalive has failed'),
  }),
  /** How long this switch, once it is back, leaves its pair bundles down, seconds. */
  delay: field(pairDelay, { label: 'delay of its bundles', reads: 'run', text: (delay) => `${delay} s` }),
};

export const halfSchema = z.strictObject(halfShape);
const pairSchema = halfSchema.superRefine(({ keepalive, keepalivePort }, ctx) => {
  if (keepalive === 'own-link' && keepalivePort === undefined)
    ctx.addIssue({
      code: 'custom',
      path: ['keepalivePort'],
      message: 'the port that the cable for the keepalive is in',
    });
  if (keepalive !== 'own-link' && keepalivePort !== undefined)
    ctx.addIssue({
      code: 'custom',
      path: ['keepalivePort'],
      message: 'no port, since the keepalive has no cable of its own',
    });
});
/** One switch's half of a pair. */
export type PairHalf = z.output<typeof pairSchema>;

/** `domain 7, priority 100, peer link b1, keepalive out of band`. */
function pairText(half: PairHalf | undefined): string {
  if (!half) return 'none';
  const { domain, mac, priority, peerLink, keepalive, keepalivePort, keepaliveUp, delay } = half;
  return [
    `domain ${domain}`,
    mac,
    `priority ${priority}`,
    `peer link ${peerLink}`,
    `keepalive ${keepaliveName(keepalive)}${keepalivePort === undefined ? '' : `, port ${keepalivePort}`}${keepaliveUp ? '' : ', which has failed'}`,
    `delay ${delay} s`,
  ].join(', ');
}

export const pairField = field(pairSchema.optional(), {
  label: 'pair',
  reads: 'trees',
  absent: 'none',
  text: pairText,
  whole: true,
});
