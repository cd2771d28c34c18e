'use client';
/** The drawing between the switches: every link in view, or from afar the trees as a whole. */
import { memo, useMemo } from 'react';
import type { Design } from '../../core/model/document';
import { FarStrands } from './FarStrands';
import type { Box, Line } from './drawn';
import { LinkView } from './LinkView';
import { MapLayer } from './MapLayer';
import { useMapDesign } from './mapDesign';
import { Sheaves } from './Sheaves';
import { inWindow, useFar, useWindow } from './seen';
import { useLabels } from './useLabels';

interface Props {
  readonly links: Design['links'];
  readonly lines: readonly Line[];
  readonly boxes: readonly Box[];
}

export const Strands = memo(function Strands(props: Props) {
  const far = useFar();
  return (
    <MapLayer level={-1}>
      {far ? <FarStrands lines={props.lines} /> : <NearLinks {...props} />}
      {!far && <Sheaves links={props.links} lines={props.lines} />}
    </MapLayer>
  );
});

function NearLinks({ links, lines, boxes }: Props) {
  const window = useWindow();
  const { switches } = useMapDesign();
  const speeds = useMemo(() => {
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
  const labels = useLabels(near, links, lines, boxes);
  return near.map(({ link, line, speed }) => (
    <LinkView key={link.id} link={link} line={line} speed={speed} labels={labels.get(link.id)} />
  ));
}
