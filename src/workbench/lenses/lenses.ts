/** The lenses: one line each, in the order in which they stand above the map. */
import { breaking } from './break';
import { bundle } from './bundle';
import { cable } from './cable';
import { group } from './group';
import type { LensManifest, Table } from './manifest';
import { root } from './root';
import { steer } from './steer';
import type { Lens } from '../state/workbench';

export const MANIFESTS: readonly LensManifest[] = [cable, root, steer, group, bundle, breaking];

export const manifestOf = (lens: Lens): LensManifest => MANIFESTS.find((each) => each.lens === lens)!;

/** The table that is open in a lens: the one chosen, where the lens has it, else its first. */
export function tableIn(lens: Lens, key: string | null): Table {
  const { tables } = manifestOf(lens);
  return tables.find((each) => each.key === key) ?? tables[0];
}

/** The lens in which a table opens: the present one, where it has the table. */
export function lensWith(key: string, present: Lens): Lens {
  const has = ({ tables }: LensManifest): boolean => tables.some((each) => each.key === key);
  return has(manifestOf(present)) ? present : (MANIFESTS.find(has)?.lens ?? present);
}

/** Every table that the palette offers, once. */
export const OFFERED: readonly Table[] = [...new Set(MANIFESTS.flatMap(({ tables }) => tables))].filter(
  (each) => each.offer,
);
