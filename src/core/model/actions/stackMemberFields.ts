/** What actions about members of stacks have in common. */
import { stackMemberNumber } from '../legal';
import type { SwitchId } from '../ids';
import { among, type ActionFault, type CommandCall, type Topology } from './kind';
import { switchFaults, switchFields } from './switchFields';

export const stackMemberFields = { ...switchFields, member: stackMemberNumber };

export function stackMemberFaults(
  action: { readonly switch: string; readonly member: number },
  topology: Topology,
): ActionFault[] {
  const faults = switchFaults(action, topology);
  if (faults.length > 0) return faults;
  const members = topology.switches.find(({ id }) => id === action.switch)!.stack?.members ?? [];
  if (members.some(({ id }) => id === action.member)) return [];
  const allowed =
    members.length === 0
      ? `${action.switch} is no stack`
      : `a member of ${action.switch}: ${among(members.map(({ id }) => String(id)))}`;
  return [{ field: 'member', found: action.member, allowed }];
}

/** Sets a member, or the stack cable that leads on from it. */
export const setStackMember = (
  { switch: sw, member }: { readonly switch: SwitchId; readonly member: number },
  settings: { readonly up?: boolean; readonly cable?: boolean },
): CommandCall => ({ do: 'set-stack-member', switch: sw, member, ...settings });
