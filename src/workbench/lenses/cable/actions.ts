/** What Cable adds to keys and palette: its line. */
import type { PageAction } from '../../state/action';
import { CABLING_FIELD } from '../../state/cablingField';
import type { Workbench } from '../../state/workbench';

/** Puts the cursor into the cabling line, in its lens. */
function toCablingLine(state: Workbench): void {
  state.setLens('Cable');
  requestAnimationFrame(() => document.getElementById(CABLING_FIELD)?.focus());
}

export const ACTIONS: readonly PageAction[] = [
  { id: 'line', name: 'Write into the cabling line', group: 'Anywhere', keys: ['/'], run: toCablingLine },
];
