/** Parts of the network on the map: the switches of each and the links inside of it shaded as one, outlined and named, with a word on links between them. */
import { useMemo } from 'react';
import type { LinkId } from '../../../core/model/ids';
import type { Box, LayerProps, Line } from '../geometry';
import { useKeepClear } from '../kept';
import { MapLayer } from '../MapLayer';
import type { Rectangle } from '../occupied';
import { bordersOf, type ShadeBorder } from './shadeBorders';
import { placeNames } from './shadeNames';

/** How far outside of a box the outline runs, and half the width of the shade along a link. */
const AROUND = 15;
const ALONG = 13;
const EDGE = 2;
/** Of names, and of what is written on links. */
const SIZE = 14;
const BORDER_SIZE = 12;

export interface Shade {
  readonly key: string;
  readonly label: string;
  /** A CSS colour. */
  readonly colour: string;
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

interface Props extends LayerProps {
  readonly shades: readonly Shade[];
  /** What is written on a link. */
  readonly labelOf: (link: LinkId) => string | null;
}

export function Shades({ shades, labelOf, boxes, lines }: Props) {
  const names = useMemo(() => placeNames(shades, boxes, lines, SIZE, AROUND), [shades, boxes, lines]);
  const borders = useMemo(() => bordersOf(boxes, lines, labelOf, names, BORDER_SIZE), [boxes, lines, labelOf, names]);
  useKeepClear(useMemo(() => [...names, ...borders.map(({ at }) => at)], [names, borders]));
  return (
    <>
      <MapLayer level={-1}>
        {shades.map((shade) => (
          <g key={shade.key} data-shade={shade.label}>
            <Shape shade={shade} colour={shade.colour} less={0} />
            <Shape shade={shade} colour="var(--paper)" less={EDGE} />
            <g opacity={0.16}>
              <Shape shade={shade} colour={shade.colour} less={EDGE} />
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
}

/** A word on a link, on a plate that the link passes under. */
function Border({ border: { label, at } }: { readonly border: ShadeBorder }) {
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

/** The name, in ink of its colour with paper around it. */
function Name({ shade, at }: { readonly shade: Shade; readonly at: Rectangle }) {
  return (
    <text
      x={at.x}
      y={at.y + SIZE}
      fontSize={SIZE}
      fontWeight={700}
      fontFamily="var(--sans)"
      fill={shade.colour}
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
