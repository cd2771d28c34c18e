/** What a lens brings to the workbench: the shell and the inspector are made of these. */
import type { ComponentType } from 'react';
import type { LayerProps } from '../map/geometry';
import { loadable } from '../ui/loadable';
import type { PageAction } from '../state/action';
import type { SubjectKind, Subjects } from '../state/subject';
import type { Workbench } from '../state/workbench';
import type { Lens } from '../state/lens';

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
  /** Says what a server knows. */
  readonly ofServer?: true;
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

/**
 * Where in the inspector a panel stands: what it is part of, what can be done with it in this lens, why it is as it is, what
 * tunes it, what it is itself.
 */
export const PARTS = ['whole', 'here', 'why', 'tuning', 'itself'] as const;
export type PanelPart = (typeof PARTS)[number];

/** A panel of the inspector, about things of one kind. */
export interface PanelOf<K extends SubjectKind> {
  readonly of: K;
  readonly part: PanelPart;
  /** The lenses in which it is shown; all, where they are left out. */
  readonly only: readonly Lens[] | null;
  readonly Body: ComponentType<Subjects[K]>;
}
export type Panel = { [K in SubjectKind]: PanelOf<K> }[SubjectKind];

/** Puts a panel together. */
export const panel = <K extends SubjectKind>(
  of: K,
  part: PanelPart,
  Body: ComponentType<Subjects[K]>,
  ...only: readonly Lens[]
): PanelOf<K> => ({ of, part, only: only.length > 0 ? only : null, Body });

/** Something drawn on the map, in its coordinates. */
export type MapLayer = ComponentType<LayerProps>;

/** A lens: its tables in the order of their tabs, the first open with it; its panels, and what it adds to the map, keys and palette. */
export interface LensManifest {
  readonly lens: Lens;
  /** What it is for, in one sentence. */
  readonly purpose: string;
  readonly tables: readonly [Table, ...Table[]];
  readonly panels?: readonly Panel[];
  /** In this lens the inspector says what a thing is before it says why. */
  readonly itselfFirst?: true;
  readonly actions?: readonly PageAction[];
  /** Drawn under the switches and links, and over them. */
  readonly layers?: { readonly under?: MapLayer; readonly over?: MapLayer };
  /** What its layers draw, as rows of the map's legend. */
  readonly Signs?: ComponentType;
  /** A strip above the map. */
  readonly Above?: ComponentType;
}
