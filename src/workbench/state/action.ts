/** What can be done from the keyboard or the palette: what it is called, its key, when it can be done. */
import { mayEdit } from './looking';
import { itemsOf } from './selection';
import type { Workbench } from './workbench';

export const ACTION_GROUPS = ['Anywhere', 'Trees', 'Map', 'Selection'] as const;
export type ActionGroup = (typeof ACTION_GROUPS)[number];

export interface PageAction {
  readonly id: string;
  readonly name: string;
  readonly group: ActionGroup;
  /** As people read it: `Ctrl+Shift+Z`, `[`. */
  readonly keys?: readonly string[];
  /** Whether it can be done now; always, where it is left out. */
  readonly when?: (state: Workbench) => boolean;
  readonly run: (state: Workbench) => void;
}

/** Whether the present is looked at and at least so many things of a kind are selected. */
export const selected =
  (kind: 'switch' | 'link', least = 1) =>
  (state: Workbench): boolean =>
    mayEdit(state) && itemsOf(state.selection).filter((item) => item.kind === kind).length >= least;
