/** Why a bundle is up or down, and why a member is in or out, in words. */
import type { SelectionRefusal } from '../../modes/lacp/selectionLogic';
import type { MemberState } from '../../modes/lacp/state';
import { negotiationOf, type BundleEnd, type BundleMember, type Bundles } from './ends';

/** Why a member is not active; null where it is. */
export type MemberCause =
  SelectionRefusal | 'no-signal' | 'no-answer' | 'both-wait' | 'not-in-step' | 'over-limit' | null;

/** What is known of a member that a reason for its end is made of. */
interface Told {
  readonly state: MemberState;
  readonly cause: MemberCause;
  readonly reason: string;
}

/** One sentence on a member. */
export function memberReason(
  { ends, members }: Bundles,
  member: BundleMember,
  cause: MemberCause,
  partnerDecides: boolean,
): string {
  const end = ends[member.end]!;
  const far = member.far < 0 ? null : members[member.far]!;
  const farEnd = far && ends[far.end]!;
  const them = farEnd?.ownerName ?? member.farName;
  switch (cause) {
    case null:
      return end.mode === 'static'
        ? `Active: it has signal, and a static end asks nothing more of ${member.farName}.`
        : `Active: in step with ${member.farName}.`;
    case 'no-signal':
      return member.farSide === 'nothing' ? 'Down: nothing is plugged in.' : `Down: no signal from ${member.farName}.`;
    case 'no-answer':
      return `Individual: ${silence(end, member, farEnd)}, so it is a port of its own.`;
    case 'both-wait':
      return `Individual: both ends wait for the other to speak (${end.mode} and ${farEnd!.mode}), so it is a port of its own.`;
    case 'key':
      return `Standby: its key ${member.key} is not the bundle's, ${end.key}.`;
    case 'own-system':
      return 'Standby: its cable leads back to the same bundle.';
    case 'partner':
      return `Standby: its cable leads to ${them}, those of the bundle elsewhere.`;
    case 'partner-key':
      return `Standby: ${member.farName} has key ${far!.key}, the other members meet another one.`;
    case 'speed':
      return `Standby: its speed, ${member.speed} Mb/s, is not that of the other members.`;
    case 'limit':
      return `Standby: at most ${end.maxActive} members are active, and ${partnerDecides ? `${them}, which has the better system identifier,` : 'this end'} prefers others.`;
    case 'over-limit':
      return `Standby: at most ${end.maxActive} members are active, and others have lower port identifiers.`;
    case 'too-few':
      return `Waiting: fewer members than the minimum of ${end.minLinks} can be used.`;
    case 'not-in-step':
      return `Waiting: ${member.farName} is not in step.`;
  }
}

function silence(end: BundleEnd, member: BundleMember, farEnd: BundleEnd | null): string {
  const spoken = negotiationOf(end.mode) === 'lacp' ? 'LACP' : 'the legacy negotiation';
  if (!farEnd) return `${member.farName} is in no bundle and does not speak ${spoken}`;
  if (farEnd.mode === 'static') return `${member.farName} is in a static bundle, which does not speak ${spoken}`;
  return `${member.farName} speaks ${negotiationOf(farEnd.mode) === 'lacp' ? 'LACP' : 'the legacy negotiation'}, this end ${spoken}`;
}

/** One sentence on an end. */
export function endReason({ members }: Bundles, end: BundleEnd, settled: readonly Told[], up: boolean): string {
  const active = settled.filter((each) => each.state === 'active').length;
  if (up) {
    const outside = end.mode === 'static' && end.members.some((m) => members[m]!.farSide !== 'member');
    return `Up: ${active} of ${settled.length} ${settled.length === 1 ? 'member' : 'members'} active${end.mode === 'static' ? `; static, so nothing checks ${outside ? 'that the other end is a bundle at all' : 'the other end'}` : ''}.`;
  }
  const lit = settled.filter((each) => each.state !== 'down');
  const [first] = lit;
  if (!first) return 'Down: no member has signal.';
  if (lit.some((each) => each.cause === 'too-few') || active > 0) {
    const usable = lit.filter((each) => each.cause === 'too-few' || each.cause === null).length;
    return `Down: ${usable} ${usable === 1 ? 'member' : 'members'} can be used, the minimum is ${end.minLinks}.`;
  }
  return `Down: ${lit.every((each) => each.cause === first.cause) ? '' : 'no member is active; '}${plain(first.reason)}`;
}

/** A member's reason as part of the bundle's. */
const plain = (reason: string): string =>
  reason.replace(/^[A-Z][a-z]+: /, '').replace(/, so it is a port of its own\.$/, ', so its members are single ports.');
