/** Pairs of switches: a line around both boxes. */
import { memo } from 'react';
import { useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';
import type { Box } from './drawn';
import { MapLayer } from './MapLayer';
import { yokesOf, type Yoke } from './yokes';

export const PairYokes = memo(function PairYokes({ boxes }: { readonly boxes: readonly Box[] }) {
  const solution = useWorkbench((state) => state.solution);
  const network = useInstant(({ picture }) => picture.network) ?? solution?.network;
  const yokes = network ? yokesOf(network, boxes) : [];
  if (yokes.length === 0) return null;
  return (
    <MapLayer level={-1}>
      {yokes.map((yoke) => (
        <YokeDrawing key={yoke.key} yoke={yoke} />
      ))}
    </MapLayer>
  );
});

export const YokeDrawing = ({ yoke: { d, whole, title } }: { readonly yoke: Yoke }) => (
  <path
    d={d}
    data-pair={whole ? 'whole' : 'apart'}
    fill="var(--ink)"
    fillOpacity={0.035}
    stroke="var(--ink-soft)"
    strokeWidth={1.3}
    strokeLinejoin="round"
    strokeDasharray={whole ? undefined : '3 6'}
  >
    <title>{title}</title>
  </path>
);
