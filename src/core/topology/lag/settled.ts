/** What the bundles of a design settle to, without running the protocol (802.1AX-2020 6.4; the machines are in modes/lacp). */
import { oncePer } from '../../base/cache';
import { comparePorts, selectMembers, type SelectedPort, type PortSelection } from '../../modes/lacp/selectionLogic';
import { STATE_BITS, type MemberState, type StateBit } from '../../modes/lacp/state';
import { initiates, negotiationOf, type BundleEnd, type BundleMember, type Bundles } from './ends';
import { endReason, memberReason, type MemberCause } from './words';

/** What a port says of itself in an LACPDU. */
export interface PortInfo {
  readonly system: string;
  readonly systemPriority: number;
  readonly key: number;
  readonly port: number;
  readonly portPriority: number;
  readonly bits: readonly StateBit[];
}

export interface SettledMember {
  readonly state: MemberState;
  readonly cause: MemberCause;
  readonly reason: string;
  readonly actor: PortInfo;
  /** Null where nothing was heard. */
  readonly partner: PortInfo | null;
}

export interface SettledEnd {
  readonly up: boolean;
  readonly reason: string;
  /** Active members, by index. */
  readonly active: readonly number[];
}

export interface SettledBundles {
  /** One for each end, by index. */
  readonly ends: readonly SettledEnd[];
  readonly members: readonly SettledMember[];
}

interface Heard extends SelectedPort {
  readonly member: BundleMember;
}

/** What every bundle settles to; of the same bundles found once. */
export const settleBundles = oncePer(settle);

function settle(bundles: Bundles): SettledBundles {
  const { ends, members } = bundles;
  const causes: MemberCause[] = members.map((member) => firstCause(bundles, member));
  const selections = ends.map((end): PortSelection<Heard> | null => {
    if (end.mode === 'static') return null;
    const heard = end.members.filter((m) => causes[m] === null).map((m) => heardBy(bundles, members[m]!));
    const selection = selectMembers(end, heard);
    for (const [{ member }, refusal] of selection.refused) causes[member.index] = refusal;
    return selection;
  });
  for (const end of ends) {
    if (end.mode !== 'static') continue;
    const lit = end.members.filter((m) => causes[m] === null).sort((a, b) => comparePorts(members[a]!, members[b]!));
    if (Math.min(lit.length, end.maxActive) < end.minLinks) for (const m of lit) causes[m] = 'too-few';
    else for (const m of lit.slice(end.maxActive)) causes[m] = 'over-limit';
  }
  const inStep = causes.map((cause) => cause === null);
  const active = members.map(
    (member) => inStep[member.index]! && (ends[member.end]!.mode === 'static' || inStep[member.far]!),
  );
  members.forEach(({ index }) => {
    if (inStep[index] && !active[index]) causes[index] = 'not-in-step';
  });
  // Fewer members than the minimum, since the other end holds some back, is a bundle that is down all the same.
  const activeOf = ends.map((end) => end.members.filter((m) => active[m]));
  const up = ends.map((end) => activeOf[end.index]!.length >= end.minLinks);

  const states = members.map((member): MemberState => memberStateOf(causes[member.index]!));
  const infos = members.map((member) =>
    infoOf(ends[member.end]!, member, bitsOf(ends[member.end]!, states[member.index]!, inStep[member.index]!)),
  );
  const settled = members.map((member, m): SettledMember => {
    const met =
      causes[m] !== 'no-signal' &&
      causes[m] !== 'no-answer' &&
      causes[m] !== 'both-wait' &&
      ends[member.end]!.mode !== 'static';
    return {
      state: states[m]!,
      cause: causes[m]!,
      reason: memberReason(bundles, member, causes[m]!, selections[member.end]?.partnerDecides ?? false),
      actor: infos[m]!,
      partner: met ? infos[member.far]! : null,
    };
  });
  return {
    members: settled,
    ends: ends.map((end, e) => ({
      up: up[e]!,
      active: activeOf[e]!,
      reason: endReason(
        bundles,
        end,
        end.members.map((m) => settled[m]!),
        up[e]!,
      ),
    })),
  };
}

/** What stands against a member before anything is compared. */
function firstCause({ ends, members }: Bundles, member: BundleMember): MemberCause {
  if (!member.macOperational) return 'no-signal';
  const end = ends[member.end]!;
  if (end.mode === 'static') return null;
  const far = member.far < 0 ? null : ends[members[member.far]!.end]!;
  if (!far || negotiationOf(far.mode) !== negotiationOf(end.mode)) return 'no-answer';
  return initiates(end.mode) || initiates(far.mode) ? null : 'both-wait';
}

function heardBy({ ends, members }: Bundles, member: BundleMember): Heard {
  const far = members[member.far]!;
  const { systemPriority, mac } = ends[far.end]!;
  const { priority, number, key, speed } = member;
  return {
    member,
    priority,
    number,
    key,
    speed,
    partner: { systemPriority, system: mac, key: far.key, portPriority: far.priority, port: far.number },
  };
}

function memberStateOf(cause: MemberCause): MemberState {
  switch (cause) {
    case null:
      return 'active';
    case 'no-signal':
      return 'down';
    case 'no-answer':
    case 'both-wait':
      return 'individual';
    case 'not-in-step':
    case 'too-few':
      return 'waiting';
    case 'key':
    case 'own-system':
    case 'partner':
    case 'partner-key':
    case 'speed':
    case 'limit':
    case 'over-limit':
      return 'standby';
  }
}

function bitsOf({ mode, fast }: BundleEnd, state: MemberState, inStep: boolean): StateBit[] {
  if (mode === 'static') return [];
  const open = state === 'active' || state === 'individual';
  const on: Record<StateBit, boolean> = {
    activity: initiates(mode),
    timeout: fast,
    aggregation: true,
    synchronization: inStep || state === 'individual',
    collecting: open,
    distributing: open,
    defaulted: state === 'individual' || state === 'down',
    expired: false,
  };
  return STATE_BITS.filter((bit) => on[bit]);
}

const infoOf = (end: BundleEnd, member: BundleMember, bits: readonly StateBit[]): PortInfo => ({
  system: end.mac,
  systemPriority: end.systemPriority,
  key: member.key,
  port: member.number,
  portPriority: member.priority,
  bits,
});
