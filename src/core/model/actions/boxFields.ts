/** What actions about boxes of stacks have in common. */
import { boxNumber } from '../legal';
import type { SwitchId } from '../ids';
import { among, type ActionFault, type CommandCall, type Topology } from './kind';
import { switchFaults, switchFields } from './switchFields';

export const boxFields = { ...switchFields, box: boxNumber };

export function boxFaults(
  action: { readonly switch: string; readonly box: number },
  topology: Topology,
): ActionFault[] {
  const faults = switchFaults(action, topology);
  if (faults.length > 0) return faults;
  const boxes = topology.switches.find(({ id }) => id === action.switch)!.stack?.boxes ?? [];
  if (boxes.some(({ id }) => id === action.box)) return [];
  const allowed =
    boxes.length === 0
      ? `${action.switch} is no stack`
      : `a box of ${action.switch}: ${among(boxes.map(({ id }) => String(id)))}`;
  return [{ field: 'box', found: action.box, allowed }];
}

/** Sets a box, or the stack cable that leads on from it. */
export const setBox = (
  { switch: sw, box }: { readonly switch: SwitchId; readonly box: number },
  settings: { readonly up?: boolean; readonly cable?: boolean },
): CommandCall => ({ do: 'set-box', switch: sw, box, ...settings });
