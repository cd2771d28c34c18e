/** What actions about switches have in common. */
import { ids, unless, type ActionFault, type Change, type Stage } from './kind';
import type { SwitchId } from '../ids';

export const switchFields = { switch: ids.switch };
export const switchFaults = ({ switch: sw }: { readonly switch: string }, { switches }: Stage): ActionFault[] =>
  unless(switches, sw, 'switch', 'a switch');
export const aboutSwitch = ({ switch: sw }: { readonly switch: SwitchId }): SwitchId => sw;
/** Switches it on or off. */
export const power = (sw: string, up: boolean): Change => ({ do: 'set-switch', switch: sw, up });
