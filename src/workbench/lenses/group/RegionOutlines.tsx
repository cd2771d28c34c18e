/** Regions on the map: the switches of each piece and the links inside of it shaded as one, outlined and named. */
import { memo, useMemo } from 'react';
import type { LinkId, SwitchId } from '../../../core/model/ids';
import { partsThatDiffer, type Region } from '../../../core/analysis/regions/regions';
import type { RegionMap } from '../../../core/topology/region';
import { useRegions } from '../../state/useRegions';
import { useWorkbench } from '../../state/context';
import type { Box, LayerProps, Line } from '../../map/geometry';
import { useKeepClear } from '../../map/kept';
import { MapLayer } from '../../map/MapLayer';
import type { Rectangle } from '../../map/occupied';
import { bordersOf, type RegionBorder } from './regionBorders';
import { placeNames } from './regionNames';

/** How far outside of a box the outline runs, and half the width of the shade along a link. */
const AROUND = 15;
const ALONG = 13;
const EDGE = 2;
/** Of names, and of what differs at a border. */
const SIZE = 14;
const BORDER_SIZE = 12;

interface Shade {
  readonly key: string;
  readonly label: string;
  readonly region: number;
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

/** What names a region on the map: a letter, since names may be alike. */
export const regionLetter = (index: number): string => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'[index] ?? String(index + 1);

/** One shade for each piece of each region, the largest first, so that small ones lie on top. */
export function shadesOf(
  regions: readonly Region[],
  boxes: readonly Box[],
  lines: readonly Line[],
  endsOf: (link: LinkId) => readonly [SwitchId, SwitchId] | undefined,
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
        region: r,
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

export const RegionOutlines = memo(function RegionOutlines({ boxes, lines }: LayerProps) {
  const regions = useRegions();
  const links = useWorkbench((state) => state.design.links);
  const ends = useMemo(() => new Map(links.map((link) => [link.id, [link.a.switch, link.b.switch] as const])), [links]);
  const shades = useMemo(
    () => shadesOf(regions, boxes, lines, (link) => ends.get(link)),
    [regions, boxes, lines, ends],
  );
  const names = useMemo(() => placeNames(shades, boxes, lines, SIZE, AROUND), [shades, boxes, lines]);
  const borders = useMemo(
    () => bordersOf(regions, boxes, lines, (link) => ends.get(link), names, BORDER_SIZE),
    [regions, boxes, lines, ends, names],
  );
  useKeepClear(useMemo(() => [...names, ...borders.map(({ at }) => at)], [names, borders]));
  return (
    <>
      <MapLayer level={-1}>
        {shades.map((shade) => (
          <g key={shade.key} data-region={shade.label}>
            <Shape shade={shade} colour={colourOf(shade)} less={0} />
            <Shape shade={shade} colour="var(--paper)" less={EDGE} />
            <g opacity={0.16}>
              <Shape shade={shade} colour={colourOf(shade)} less={EDGE} />
            </g>
          </g>
        ))}
      </MapLayer>
      <MapLayer level={3}>
        {shades.map((shade, i) => (
          <Name key={shade.key} shade={shade} at={names[i]!} />
        ))}
        {borders.map((border) => (
          <Border key={border.link} border={border} />
        ))}
      </MapLayer>
    </>
  );
});

const colourOf = ({ region }: Shade): string => `var(--strand-${(region + 3) % 8})`;

/** What differs between the two ends of a link, on a plate that the link passes under. */
function Border({ border: { label, at } }: { readonly border: RegionBorder }) {
  return (
    <g data-border={label}>
      <rect {...at} rx={3} fill="var(--paper)" stroke="var(--ink-soft)" strokeWidth={1} />
      <text
        x={at.x + at.width / 2}
        y={at.y + at.height / 2}
        textAnchor="middle"
        dominantBaseline="central"
        fontSize={BORDER_SIZE}
        fontFamily="var(--sans)"
        fill="var(--ink)"
      >
        {label}
      </text>
    </g>
  );
}

/** The region's name, in ink of its colour with paper around it. */
function Name({ shade, at }: { readonly shade: Shade; readonly at: Rectangle }) {
  return (
    <text
      x={at.x}
      y={at.y + SIZE}
      fontSize={SIZE}
      fontWeight={700}
      fontFamily="var(--sans)"
      fill={colourOf(shade)}
      stroke="var(--paper)"
      strokeWidth={SIZE / 3.5}
      paintOrder="stroke"
    >
      {shade.label}
    </text>
  );
}

/** Boxes and links in one colour: what overlaps is one shape. */
function Shape({
  shade: { boxes, lines },
  colour,
  less,
}: {
  readonly shade: Shade;
  readonly colour: string;
  readonly less: number;
}) {
  const out = AROUND - less;
  return (
    <g fill={colour} stroke={colour}>
      {lines
        .filter((line) => !line.loops)
        .map(({ link, from, to }) => (
          <line
            key={link}
            x1={from.x}
            y1={from.y}
            x2={to.x}
            y2={to.y}
            strokeWidth={2 * (ALONG - less)}
            strokeLinecap="round"
          />
        ))}
      {boxes.map(({ id, centre, width, height }) => (
        <rect
          key={id}
          x={centre.x - width / 2 - out}
          y={centre.y - height / 2 - out}
          width={width + 2 * out}
          height={height + 2 * out}
          rx={16 - less}
          stroke="none"
        />
      ))}
    </g>
  );
}
