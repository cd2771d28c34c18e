/** The lenses: one line each. */
import type { ComponentType } from 'react';
import { oncePer } from '../../core/base/cache';
import { LENSES, type Lens } from '../state/lens';
import { HAS_SERVER } from '../state/reach';
import type { SubjectKind, Subjects } from '../state/subject';
import { breaking } from './break';
import { bundle } from './bundle';
import { cable } from './cable';
import { group } from './group';
import { guard } from './guard';
import { handOver } from './handOver';
import { PARTS, type LensManifest, type Panel, type PanelOf, type Table } from './manifest';
import { observe } from './observe';
import { prove } from './prove';
import { root } from './root';
import { steer } from './steer';

const BY_LENS: Readonly<Record<Lens, LensManifest>> = {
  Cable: cable,
  Root: root,
  Steer: steer,
  Group: group,
  Bundle: bundle,
  Guard: guard,
  Break: breaking,
  Prove: prove,
  'Hand over': handOver,
  Observe: observe,
};

/** Without what only a server knows; no lens has nothing else. */
const withoutServer = oncePer((manifest: LensManifest): LensManifest => {
  const [first = manifest.tables[0], ...rest] = manifest.tables.filter(({ ofServer }) => !ofServer);
  return { ...manifest, tables: [first, ...rest] };
});

/** In the order in which they stand above the map. */
export const MANIFESTS: readonly LensManifest[] = LENSES.map((lens) => manifestOf(lens));

export function manifestOf(lens: Lens): LensManifest {
  const manifest = BY_LENS[lens];
  return HAS_SERVER ? manifest : withoutServer(manifest);
}

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

const PANELS = MANIFESTS.flatMap(({ lens, panels = [] }) => panels.map((each, i) => ({ key: `${lens} ${i}`, each })));
const isOf =
  <K extends SubjectKind>(kind: K) =>
  (panel: Panel): panel is Panel & PanelOf<K> =>
    panel.of === kind;

/** The panels about a kind of thing in a lens, from top to bottom; within a part, those for few lenses first. */
export function panelsFor<K extends SubjectKind>(
  kind: K,
  lens: Lens,
): { readonly key: string; readonly Body: ComponentType<Subjects[K]> }[] {
  const own = isOf(kind);
  const order = manifestOf(lens).itselfFirst ? [...PARTS.slice(0, 2), ...PARTS.slice(2).reverse()] : PARTS;
  return PANELS.flatMap(({ key, each }) =>
    own(each) && (each.only?.includes(lens) ?? true)
      ? [{ key, Body: each.Body, place: 2 * order.indexOf(each.part) + (each.only ? 0 : 1) }]
      : [],
  ).sort((a, b) => a.place - b.place);
}
