/** Short texts in a frame beside boxes, where there is room for them. */
import { memo, useMemo } from 'react';
import type { SwitchId } from '../../core/model/ids';
import type { Box, LayerProps, Line } from './drawn';
import { crosses } from './facing';
import { hostsRectangle } from './hosts';
import { useKeepClear } from './kept';
import { textSize } from './labels';
import { MapLayer } from './MapLayer';
import { around, Occupied, type Rectangle } from './occupied';
import { useFar } from './seen';

const SIZE = 11;
/** Between a text and its frame. */
const PAD = 3;
/** From a box. */
const GAP = 4;

interface Tag {
  readonly id: SwitchId;
  readonly text: string;
  readonly at: Rectangle;
}

/** Where each text goes: beside its box, clear of boxes, hosts, links and one another; those without room are left out. */
export function placeTags(texts: ReadonlyMap<SwitchId, string>, boxes: readonly Box[], lines: readonly Line[]): Tag[] {
  const taken = new Occupied();
  for (const box of boxes) {
    taken.take(around(box.centre, box.width, box.height));
    const hosts = hostsRectangle(box);
    if (hosts) taken.take(hosts);
  }
  return boxes.flatMap((box): Tag[] => {
    const text = texts.get(box.id);
    if (text === undefined) return [];
    const { width, height } = textSize(text, SIZE);
    const size = { width: width + 2 * PAD, height };
    const at = placesBeside(box, size).find(
      (place) => taken.free(place) && !lines.some((line) => !line.loops && crosses(line, clearOf(place))),
    );
    if (!at) return [];
    taken.take(at);
    return [{ id: box.id, text, at }];
  });
}

/** Room for strands beside it. */
const clearOf = ({ x, y, width, height }: Rectangle): Rectangle => ({
  x: x - BESIDE,
  y,
  width: width + 2 * BESIDE,
  height,
});
const BESIDE = 9;

/** Below and above a box, flush with either side, then beside it. */
function placesBeside(
  { centre, width, height }: Box,
  size: { readonly width: number; readonly height: number },
): Rectangle[] {
  const [left, right] = [centre.x - width / 2, centre.x + width / 2 - size.width];
  const [above, below] = [centre.y - height / 2 - GAP - size.height, centre.y + height / 2 + GAP];
  const beside = [centre.x - width / 2 - GAP - size.width, centre.x + width / 2 + GAP];
  return [
    ...[below, above].flatMap((y) => [right, left].map((x) => ({ x, y, ...size }))),
    ...beside.flatMap((x) =>
      [-1, 1].map((side) => ({ x, y: centre.y + side * (height / 2 - size.height / 2) - size.height / 2, ...size })),
    ),
  ];
}

interface Props extends LayerProps {
  readonly texts: ReadonlyMap<SwitchId, string>;
  /** The attribute by which a tag is found, with its switch. */
  readonly mark: `data-${string}`;
}

export const Tags = memo(function Tags({ texts, mark, boxes, lines }: Props) {
  const far = useFar();
  const tags = useMemo(() => (far ? NONE : placeTags(texts, boxes, lines)), [far, texts, boxes, lines]);
  useKeepClear(useMemo(() => tags.map(({ at }) => at), [tags]));
  return (
    <MapLayer level={3}>
      {tags.map(({ id, text, at }) => (
        <g key={id} {...{ [mark]: id }}>
          <rect {...at} rx={3} fill="var(--paper)" stroke="var(--accent)" strokeWidth={1} strokeDasharray="3 2" />
          <text
            x={at.x + at.width / 2}
            y={at.y + at.height / 2}
            textAnchor="middle"
            dominantBaseline="central"
            fontSize={SIZE}
            fontWeight={600}
            fontFamily="var(--mono)"
            fill="var(--ink)"
          >
            {text}
          </text>
        </g>
      ))}
    </MapLayer>
  );
});

const NONE: readonly Tag[] = [];
