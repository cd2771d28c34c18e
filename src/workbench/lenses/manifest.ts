/** What a lens brings to the workbench: the shell is made of these, and of nothing else. */
import type { ComponentType } from 'react';
import { loadable } from '../ui/loadable';
import type { Lens, Workbench } from '../state/workbench';

/** A table of the drawer. */
export interface Table {
  /** Tells tables apart: in tests, and where something opens it. */
  readonly key: string;
  readonly label: string;
  /** What the palette calls it; without it, it is not offered there. */
  readonly offer?: string;
  readonly Body: ComponentType;
  /** Needs more of the screen than others. */
  readonly tall?: boolean;
  /** Has something to show though no tree could be solved. */
  readonly withoutTrees?: boolean;
  /** Gives nothing away while a worksheet is filled in. */
  readonly open?: boolean;
  /** How many things it holds, where people should see that from outside. */
  readonly count?: (state: Workbench) => number;
}

/** Puts a table together; the grid is the largest part of the page, so each is loaded when it is first shown. */
export const table = (
  key: string,
  label: string,
  load: () => Promise<ComponentType>,
  rest: Omit<Table, 'key' | 'label' | 'Body'> = {},
): Table => ({ key, label, Body: loadable(key, load), ...rest });

/** A lens: its tables in the order of their tabs, the first open with it. */
export interface LensManifest {
  readonly lens: Lens;
  readonly tables: readonly [Table, ...Table[]];
}
