/** The stripes of equal root path cost behind switches that hang from their root. */
import { memo } from 'react';
import { groupText } from '../ui/words/units';
import type { Band } from './hung';
import { MapLayer } from './MapLayer';
import { useScale } from './scale';

interface Props {
  readonly bands: readonly Band[];
  readonly bounds: { readonly x: number; readonly width: number };
}

/** Between the figures and the boxes, pixels. */
const LABEL_GAP = 90;

export const Bands = memo(function Bands({ bands, bounds }: Props) {
  const scale = useScale();
  if (bands.length === 0) return null;
  const reach = 4000;
  const [left, right] = [bounds.x * scale, (bounds.x + bounds.width) * scale];
  const end = left - LABEL_GAP;
  return (
    <MapLayer level={-2}>
      {bands.map(({ cost, internal, ...band }, i) => {
        const [y, half] = [band.y * scale, band.half * scale];
        const roomy = 2 * half > 44;
        return (
          <g key={cost === null ? 'outside' : `${cost} ${internal}`} data-band={cost ?? 'outside'}>
            {i % 2 === 1 && (
              <rect
                x={left - reach}
                y={y - half}
                width={right - left + 2 * reach}
                height={2 * half}
                fill="var(--surface)"
                fillOpacity={0.6}
              />
            )}
            <line x1={left - reach} x2={right + reach} y1={y - half} y2={y - half} stroke="var(--rule)" />
            {2 * half > 14 && (
              <text
                x={end}
                textAnchor="end"
                y={roomy ? y - 3 : y + 5}
                fontSize={15}
                fontWeight={700}
                fontFamily="var(--mono)"
                fill="var(--ink-soft)"
              >
                {cost === null ? 'not in this tree' : groupText(internal > 0 ? internal : cost)}
              </text>
            )}
            {cost !== null && roomy && (
              <text x={end} textAnchor="end" y={y + 14} fontSize={12} fontFamily="var(--sans)" fill="var(--ink-soft)">
                {internal > 0 ? `inside; outside ${groupText(cost)}` : cost === 0 ? 'the root' : 'root path cost'}
              </text>
            )}
          </g>
        );
      })}
    </MapLayer>
  );
});
