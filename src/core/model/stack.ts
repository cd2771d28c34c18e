/**
 * A stack: members cabled into one switch, with one bridge identifier and the ports of all. Standards know the one bridge alone;
 * how its members choose a master, and what they do when they lose each other, is common practice.
 */
import { z } from '../base/zod';
import { field } from './field';
import { MASTER_PRIORITY, stackMemberNumber, masterPriority, macAddress } from './legal';
import { MAX_STACK_MEMBERS } from './limits';

/** One of the members. */
export const stackMemberSchema = z.strictObject({
  id: stackMemberNumber,
  mac: field(macAddress, { label: 'MAC address', reads: 'trees' }),
  /** The highest is master; of several, the one with the lowest address. */
  masterPriority: field(masterPriority.default(MASTER_PRIORITY.default), {
    label: 'priority to be master',
    reads: 'trees',
  }),
  /** False: without power. */
  up: field(z.boolean().default(true), {
    label: 'power',
    reads: 'trees',
    text: (up) => (up ? 'on' : 'off'),
    done: (up) => (up ? 'switched on' : 'switched off'),
  }),
  /** Whether its stack cable to the next member carries; the last one's leads to the first, in a ring. */
  cable: field(z.boolean().default(true), {
    label: 'stack cable to the next member',
    reads: 'trees',
    text: (carries) => (carries ? 'whole' : 'cut'),
    done: (carries) => (carries ? 'stack cable plugged in' : 'stack cable cut'),
  }),
});
export type StackMember = z.output<typeof stackMemberSchema>;

const stackSchema = z.strictObject({
  /** False: a chain, without a cable from the last member to the first. */
  ring: z.boolean().default(true),
  /** Whether the address of the switch stays when the master is lost; else it is that of its master. */
  keepsAddress: z.boolean().default(true),
  members: z
    .array(stackMemberSchema)
    .min(2, `at least 2 members; one alone is a switch`)
    .max(MAX_STACK_MEMBERS, `at most ${MAX_STACK_MEMBERS} members`)
    .superRefine((members, ctx) => {
      members.forEach(({ id }, i) => {
        if (members.findIndex((each) => each.id === id) < i)
          ctx.addIssue({ code: 'custom', path: [i, 'id'], message: 'each member once: another one has this number' });
      });
    }),
});
export type Stack = z.output<typeof stackSchema>;

/** `3 members in a ring, member 2 without power`. */
function stackText(stack: Stack | undefined): string {
  if (!stack) return 'none';
  const { members, ring, keepsAddress } = stack;
  const off = members.filter(({ up }) => !up).map(({ id }) => id);
  const cut = members.filter(({ cable }) => !cable).map(({ id }) => id);
  return [
    `${members.length} members in a ${ring ? 'ring' : 'chain'}`,
    `priorities ${members.map(({ masterPriority }) => masterPriority).join(', ')}`,
    ...(keepsAddress ? [] : ['address of its master']),
    ...(off.length > 0 ? [`without power: ${off.join(', ')}`] : []),
    ...(cut.length > 0 ? [`stack cable cut after ${cut.join(', ')}`] : []),
  ].join('; ');
}

export const stackField = field(stackSchema.optional(), {
  label: 'stack',
  reads: 'trees',
  absent: 'none',
  text: stackText,
  whole: true,
});

/** How the members of a stack stand. */
export interface StackState {
  /** Those that act as the switch; none where none has power. */
  readonly acting: readonly StackMember[];
  /** Null where none acts. */
  readonly master: StackMember | null;
  /** Those that have power, and have lost the others: their ports are down, so that no two switches have one identity. */
  readonly apart: readonly StackMember[];
}

/** Which of its members act: of those that still reach each other the most, of as many those with the member that comes first as master. */
export function stackState({ members, ring }: Stack): StackState {
  const parts: StackMember[][] = [];
  for (const [i, member] of members.entries()) {
    if (!member.up) continue;
    const before = members[i - 1];
    if (before?.up && before.cable) parts.at(-1)!.push(member);
    else parts.push([member]);
  }
  const [first, last] = [parts[0], parts.at(-1)];
  const closes = ring && members[0]!.up && members.at(-1)!.up && members.at(-1)!.cable;
  if (closes && first && last && first !== last) {
    first.unshift(...last);
    parts.pop();
  }
  const ranked = parts.map((part) => ({ part, master: part.toSorted(asMasters)[0]! }));
  const [acting] = ranked.sort((a, b) => b.part.length - a.part.length || asMasters(a.master, b.master));
  if (!acting) return { acting: [], master: null, apart: [] };
  return {
    acting: acting.part,
    master: acting.master,
    apart: members.filter((member) => member.up && !acting.part.includes(member)),
  };
}

/** The better master first. */
const asMasters = (a: StackMember, b: StackMember): number =>
  b.masterPriority - a.masterPriority || (a.mac < b.mac ? -1 : 1);

/** The member that a port belongs to: where it says none, the first. */
export const stackMemberOf = ({ members }: Stack, port: { readonly stackMember?: number | undefined }): StackMember =>
  members.find(({ id }) => id === port.stackMember) ?? members[0]!;
