'use client';
/** Beside each switch how many of its edges are open to a stranger, and how many guards harm, where there is room to say so. */
import { memo, useMemo } from 'react';
import { protectionOf } from '../../../core/analysis/guards/protection';
import type { SwitchId } from '../../../core/model/ids';
import { crosses } from '../../map/facing';
import type { Box, LayerProps, Line } from '../../map/geometry';
import { hostsRectangle } from '../../map/hosts';
import { useKeepClear } from '../../map/kept';
import { textSize } from '../../map/labels';
import { MapLayer } from '../../map/MapLayer';
import { around, Occupied, type Rectangle } from '../../map/occupied';
import { useFar } from '../../map/seen';
import { useFollowing } from '../../state/context';

const SIZE = 11;
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
    const size = textSize(text, SIZE);
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

export const OpenEdges = memo(function OpenEdges({ boxes, lines }: LayerProps) {
  const solution = useFollowing((state) => state.solution);
  const far = useFar();
  const texts = useMemo(() => {
    const counts = new Map<SwitchId, { open: number; harms: number }>();
    for (const { switch: sw, lead, verdict } of solution ? protectionOf(solution) : []) {
      const own = counts.get(sw) ?? { open: 0, harms: 0 };
      if (lead === 'edge' && verdict === 'open') own.open += 1;
      if (verdict === 'harms') own.harms += 1;
      counts.set(sw, own);
    }
    return new Map(
      [...counts].flatMap(([id, { open, harms }]) => {
        const parts = [
          ...(open > 0 ? [`${open} open`] : []),
          ...(harms > 0 ? [`${harms} ${harms === 1 ? 'harms' : 'harm'}`] : []),
        ];
        return parts.length > 0 ? [[id, parts.join(', ')] as const] : [];
      }),
    );
  }, [solution]);
  const tags = useMemo(() => (far ? NONE : placeTags(texts, boxes, lines)), [far, texts, boxes, lines]);
  useKeepClear(useMemo(() => tags.map(({ at }) => at), [tags]));
  return (
    <MapLayer level={3}>
      {tags.map(({ id, text, at }) => (
        <g key={id} data-open={id}>
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
