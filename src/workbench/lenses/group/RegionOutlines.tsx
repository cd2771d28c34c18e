/** Regions on the map: the switches of each piece and the links inside of it shaded as one, outlined and named. */
import { memo, useMemo } from 'react';
import type { LinkId } from '../../../core/model/ids';
import { partsThatDiffer, type Region } from '../../../core/analysis/regions/regions';
import type { RegionMap } from '../../../core/topology/region';
import { useRegions } from '../../state/useRegions';
import { useWorkbench } from '../../state/context';
import type { Box, LayerProps, Line } from '../../map/geometry';
import { endsIn, type EndsOf } from '../../map/shades/ends';
import { Shades, type Shade } from '../../map/shades/Shades';

/** What names a region on the map: a letter, since names may be alike. */
export const regionLetter = (index: number): string => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'[index] ?? String(index + 1);

/** One shade for each piece of each region, the largest first, so that small ones lie on top. */
export function shadesOf(
  regions: readonly Region[],
  boxes: readonly Box[],
  lines: readonly Line[],
  endsOf: EndsOf,
): Shade[] {
  const at = new Map(boxes.map((box) => [box.id, box]));
  // One that all but agrees with the largest is likely meant to be part of it.
  const unlike = (map: RegionMap): string => {
    const parts = partsThatDiffer(map, regions[0]!.map);
    return parts.length === 1 && parts[0] !== 'name' ? `, ${parts[0]} ≠ A` : '';
  };
  const found = regions.flatMap(({ map, given, pieces }, r) =>
    pieces.map((piece, i): Shade => {
      const own = new Set(piece);
      const { name, revision } = map.configurationId;
      return {
        key: `${r} ${i}`,
        colour: `var(--strand-${(r + 3) % 8})`,
        label:
          `${regionLetter(r)}. ${given ? name || 'no name' : 'no settings'}, rev. ${revision}${pieces.length > 1 ? `, piece ${i + 1} of ${pieces.length}` : ''}${unlike(map)}`.slice(
            0,
            60,
          ),
        boxes: piece.flatMap((id) => at.get(id) ?? []),
        lines: lines.filter(({ link }) => endsOf(link)?.every((id) => own.has(id))),
      };
    }),
  );
  return found.sort((a, b) => b.boxes.length - a.boxes.length);
}

/** What two regions differ in, to be written on a link between them. */
export function bordersBetween(regions: readonly Region[], endsOf: EndsOf): (link: LinkId) => string | null {
  const regionOf = new Map(regions.flatMap((region) => region.switches.map((id) => [id, region] as const)));
  return (link) => {
    const [a, b] = (endsOf(link) ?? []).map((id) => regionOf.get(id));
    return !a || !b || a === b ? null : `≠ ${partsThatDiffer(a.map, b.map).join(', ')}`;
  };
}

export const RegionOutlines = memo(function RegionOutlines({ boxes, lines }: LayerProps) {
  const regions = useRegions();
  const links = useWorkbench((state) => state.design.links);
  const endsOf = useMemo(() => endsIn(links), [links]);
  const shades = useMemo(() => shadesOf(regions, boxes, lines, endsOf), [regions, boxes, lines, endsOf]);
  const labelOf = useMemo(() => bordersBetween(regions, endsOf), [regions, endsOf]);
  return <Shades shades={shades} labelOf={labelOf} boxes={boxes} lines={lines} />;
});
