/** What actions about switches have in common. */
import { ids, unless, type ActionFault, type CommandCall, type Topology } from './kind';
import type { SwitchId } from '../ids';

export const switchFields = { switch: ids.switch };
export const switchFaults = ({ switch: sw }: { readonly switch: string }, { switches }: Topology): ActionFault[] =>
  unless(switches, sw, 'switch', 'a switch');
export const aboutSwitch = ({ switch: sw }: { readonly switch: SwitchId }): SwitchId => sw;
/** Switches it on or off. */
export const power = (sw: string, up: boolean): CommandCall => ({ do: 'set-switch', switch: sw, up });
