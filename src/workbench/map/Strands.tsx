'use client';
/** The drawing between the switches: every link in view, or from afar the trees as a whole. */
import { memo, useMemo } from 'react';
import type { Design } from '../../core/model/document';
import { FarStrands } from './FarStrands';
import type { Box, Line } from './drawn';
import type { FoldedSkeleton } from './folded';
import { FoldedLinks, useSheaves } from './FoldedLinks';
import type { Sheaf } from './sheaf';
import type { Rectangle } from './occupied';
import type { Outline } from './outlines';
import { LinkView } from './LinkView';
import { MapLayer } from './MapLayer';
import { useMapDesign } from './mapDesign';
import { BundleViews } from './BundleViews';
import { inWindow, useFar, useWindow } from './seen';
import { useLabels } from './useLabels';

interface Props {
  readonly skeleton: FoldedSkeleton;
  readonly lines: readonly Line[];
  readonly boxes: readonly Box[];
  readonly outlines: readonly Outline[];
  /** What a lens writes between the links. */
  readonly kept: readonly Rectangle[];
}

export const Strands = memo(function Strands({ skeleton, lines, boxes, outlines, kept }: Props) {
  const far = useFar();
  // Sheaves come after the links that are drawn themselves.
  const [links, own] = useMemo(() => {
    const count = skeleton.links.length - skeleton.sheaves.size;
    return [skeleton.links.slice(0, count), lines.slice(0, count)] as const;
  }, [skeleton, lines]);
  const sheaves = useSheaves(lines, skeleton.sheaves);
  const clear = useMemo(() => [...kept, ...outlines.flatMap(({ label }) => label?.at ?? [])], [kept, outlines]);
  return (
    <MapLayer level={-1}>
      {far && <FarStrands lines={own} />}
      <NearLinks
        links={far ? NO_LINKS : links}
        lines={far ? NO_LINES : own}
        boxes={boxes}
        sheaves={sheaves}
        kept={clear}
      />
      {!far && <BundleViews links={links} lines={own} />}
    </MapLayer>
  );
});

const NO_LINKS: Design['links'] = [];
const NO_LINES: readonly Line[] = [];

interface NearProps {
  readonly links: Design['links'];
  readonly lines: readonly Line[];
  readonly boxes: readonly Box[];
  readonly sheaves: readonly Sheaf[];
  readonly kept: readonly Rectangle[];
}

function NearLinks({ links, lines, boxes, sheaves, kept }: NearProps) {
  const window = useWindow();
  const { switches } = useMapDesign();
  const speeds = useMemo(() => {
    if (links.length === 0) return [];
    const byPort = new Map<string, number>(
      switches.flatMap((sw) => sw.ports.map((port) => [`${sw.id}\n${port.id}`, port.speed] as const)),
    );
    const at = (end: { switch: string; port: string }) => byPort.get(`${end.switch}\n${end.port}`) ?? 0;
    return links.map((link) => Math.max(at(link.a), at(link.b)));
  }, [switches, links]);
  const near = useMemo(
    () =>
      links.flatMap((link, i) => {
        const line = lines[i];
        return line && inWindow(line, window) ? [{ link, line, speed: speeds[i] ?? 0 }] : [];
      }),
    [links, lines, window, speeds],
  );
  const labels = useLabels(near, links, lines, boxes, sheaves, kept);
  return (
    <>
      <FoldedLinks sheaves={sheaves} labels={labels} />
      {near.map(({ link, line, speed }) => (
        <LinkView key={link.id} link={link} line={line} speed={speed} labels={labels.get(link.id)} />
      ))}
    </>
  );
}
