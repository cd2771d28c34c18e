/** What actions about halves of pairs have in common. */
import type { SwitchId } from '../ids';
import type { ActionFault, CommandCall, Topology } from './kind';
import { switchFaults } from './switchFields';

/** A keepalive that may fail by itself: one over cables fails with these. */
export function halfFaults(action: { readonly switch: string }, topology: Topology): ActionFault[] {
  const faults = switchFaults(action, topology);
  if (faults.length > 0) return faults;
  const half = topology.switches.find(({ id }) => id === action.switch)!.pair;
  return half?.keepalive === 'out-of-band'
    ? []
    : [{ field: 'switch', found: action.switch, allowed: 'a switch of a pair whose keepalive is out of band' }];
}

export const setHalf = (
  { switch: sw }: { readonly switch: SwitchId },
  settings: { readonly keepaliveUp: boolean },
): CommandCall => ({ do: 'set-pair', switch: sw, ...settings });
