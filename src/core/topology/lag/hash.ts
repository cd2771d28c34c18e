/**
 * Which member a frame leaves by (802.1AX-2020 6.2.4, Frame Distributor): the clause asks only that the frames of one
 * conversation stay in order, so all of them take one member. As switches commonly do, a few low bits of what the policy
 * looks at choose one of eight buckets (64 above eight members), and buckets are dealt to the members in turn.
 */
import type { HashPolicy } from '../../model/document';

/** What a policy may look at. Without IP the looks at it fall away, as for any frame that has none. */
export interface Flow {
  /** MAC addresses. */
  readonly from: string;
  readonly to: string;
  readonly ip?: { readonly from: string; readonly to: string; readonly fromPort?: number; readonly toPort?: number };
}

export const BROADCAST = 'ff:ff:ff:ff:ff:ff';

/** How many buckets are dealt to so many members. */
export const bucketCount = (members: number): number => (members <= 8 ? 8 : 64);

const folded = (octets: readonly number[]): number => octets.reduce((sum, octet) => sum ^ octet, 0);
const macOctets = (mac: string): number[] => mac.split(':').map((octet) => parseInt(octet, 16));
const ipOctets = (ip: string): number[] => ip.split('.').map(Number);

/** The hash of a flow, eight bits: its parts, folded by exclusive or; both directions have the same one. */
export function hashOf(policy: HashPolicy, { from, to, ip }: Flow): number {
  const macs = () => [...macOctets(from), ...macOctets(to)];
  const ips = () => (ip ? [...ipOctets(ip.from), ...ipOctets(ip.to)] : []);
  const portOctets = (port = 0): number[] => [port >> 8, port & 255];
  switch (policy) {
    case '2':
      return folded(macs());
    case '2+3':
      return folded([...macs(), ...ips()]);
    case '3+4':
      return ip ? folded([...ips(), ...portOctets(ip.fromPort), ...portOctets(ip.toPort)]) : folded(macs());
  }
}

/**
 * Which of `members` configured ones a flow leaves by while `active` (places among them, rising) carry frames; -1 with
 * none. What a lost member carried is dealt to the others; no other flow moves.
 */
export function memberFor(policy: HashPolicy, flow: Flow, members: number, active: readonly number[]): number {
  if (active.length === 0) return -1;
  return bucketOwner(hashOf(policy, flow) % bucketCount(members), members, active);
}

/** Who a bucket is dealt to: its own member, or, while that is lost, one of the others in turn. */
export function bucketOwner(bucket: number, members: number, active: readonly number[]): number {
  const own = bucket % members;
  return active.includes(own) ? own : active[Math.floor(bucket / members) % active.length]!;
}
