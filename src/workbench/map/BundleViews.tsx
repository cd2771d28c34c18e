'use client';
/** Bundles on the map: a band around the links that act as one, at the middle where both ends mean the same ones, else near the end that has it. */
import { means } from '../ui/means';
import { useMemo } from 'react';
import type { Link } from '../../core/model/document';
import { useBundles } from '../state/useBundles';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isSelected, type Item } from '../state/selection';
import { BandDrawing, bandWidth } from './BandDrawing';
import { bandsOf, isUpNow, type BundleBand } from './bundleBands';
import type { Line } from './drawn';
import { polyline } from './run';

export function BundleViews({ links, lines }: { readonly links: readonly Link[]; readonly lines: readonly Line[] }) {
  const { bundles, settled } = useBundles();
  const bundling = useWorkbench((state) => state.lens === 'Bundle');
  const bands = useMemo(() => bandsOf(links, lines, bundles, settled), [links, lines, bundles, settled]);
  const played = useInstant(({ picture }) => picture.network);
  return (
    <g>
      {bands.map((band) => (
        <BandView
          key={`${band.end.owner.kind} ${band.end.id}`}
          band={band}
          up={isUpNow(band, played)}
          strong={bundling}
        />
      ))}
    </g>
  );
}

function BandView({
  band: { end, points, title },
  up,
  strong,
}: {
  readonly band: BundleBand;
  readonly up: boolean;
  readonly strong: boolean;
}) {
  const item: Item =
    end.owner.kind === 'switch'
      ? { kind: 'port', switch: end.owner.switch, port: end.owner.bundle }
      : { kind: 'host', host: end.owner.host };
  const selected = useWorkbench((state) => isSelected(state.selection, item));
  const store = useWorkbenchStore();
  const d = polyline(points);
  return (
    <g data-bundle={end.id} data-up={up}>
      {selected && (
        <path
          d={d}
          stroke="var(--accent)"
          strokeOpacity={0.35}
          strokeWidth={bandWidth(strong) + 10}
          strokeLinecap="round"
          fill="none"
        />
      )}
      <BandDrawing points={points} up={up} strong={strong} />
      <path
        d={d}
        stroke="transparent"
        strokeWidth={20}
        strokeLinecap="round"
        fill="none"
        pointerEvents="stroke"
        style={{ cursor: 'pointer' }}
        onClick={(event) => store.getState().pick(item, means(event))}
      >
        <title>{title}</title>
      </path>
    </g>
  );
}
