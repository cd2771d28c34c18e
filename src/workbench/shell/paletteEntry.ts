import type { Workbench } from '../state/store';

/** One line of the palette. */
export interface PaletteEntry {
  readonly key: string;
  readonly name: string;
  readonly detail: string;
  readonly run: (state: Workbench) => void;
}
