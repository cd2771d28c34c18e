'use client';
/** The drawing between the switches: every link in view, or from afar the trees as a whole. */
import { memo, useMemo } from 'react';
import type { Design } from '../../core/model/document';
import { FarStrands } from './FarStrands';
import type { Line } from './geometry';
import { LinkView } from './LinkView';
import { useMapDesign } from './mapDesign';
import styles from './map.module.css';
import { Sheaves } from './Sheaves';
import { inWindow, useFar, useWindow } from './seen';

/** Shares of the way at which neighbouring links have their labels. */
const LABEL_AT = [0.5, 0.4, 0.6];

export const Strands = memo(function Strands({
  links,
  lines,
}: {
  readonly links: Design['links'];
  readonly lines: readonly Line[];
}) {
  const far = useFar();
  return (
    <svg className={styles.strands} aria-hidden="true">
      {far ? <FarStrands lines={lines} /> : <NearLinks links={links} lines={lines} />}
      {!far && <Sheaves links={links} lines={lines} />}
    </svg>
  );
});

function NearLinks({ links, lines }: { readonly links: Design['links']; readonly lines: readonly Line[] }) {
  const window = useWindow();
  const { switches } = useMapDesign();
  const speeds = useMemo(() => {
    const byPort = new Map<string, number>(
      switches.flatMap((sw) => sw.ports.map((port) => [`${sw.id}\n${port.id}`, port.speed] as const)),
    );
    const at = (end: { switch: string; port: string }) => byPort.get(`${end.switch}\n${end.port}`) ?? 0;
    return links.map((link) => Math.max(at(link.a), at(link.b)));
  }, [switches, links]);
  return links.map((link, i) => {
    const line = lines[i];
    return line && inWindow(line, window) ? (
      <LinkView
        key={link.id}
        link={link}
        line={line}
        speed={speeds[i] ?? 0}
        labelAt={LABEL_AT[i % LABEL_AT.length] ?? 0.5}
      />
    ) : null;
  });
}
