/** The stripes of equal root path cost behind switches that hang from their root. */
import { useStore } from '@xyflow/react';
import { memo } from 'react';
import { groupText } from '../ui/words/units';
import type { Band } from './hung';

interface Props {
  readonly bands: readonly Band[];
  readonly bounds: { readonly x: number; readonly width: number };
}

/** Where the figures end, from the left edge of what is drawn. */
const LABEL_END = 135;

export const Bands = memo(function Bands({ bands, bounds }: Props) {
  // The figures stay legible from afar, where there is room for them.
  const zoom = useStore((state) => Math.max(0.05, Math.round(state.transform[2] * 20) / 20));
  if (bands.length === 0) return null;
  const reach = 4000;
  const size = Math.max(17, 12 / zoom);
  const near = zoom > 0.55;
  return (
    <svg
      aria-hidden="true"
      style={{
        position: 'absolute',
        left: 0,
        top: 0,
        width: 1,
        height: 1,
        overflow: 'visible',
        zIndex: -2,
        pointerEvents: 'none',
      }}
    >
      {bands.map(({ cost, internal, y, half }, i) => (
        <g key={cost === null ? 'outside' : `${cost} ${internal}`} data-band={cost ?? 'outside'}>
          {i % 2 === 1 && (
            <rect
              x={bounds.x - reach}
              y={y - half}
              width={bounds.width + 2 * reach}
              height={2 * half}
              fill="var(--surface)"
              fillOpacity={0.6}
            />
          )}
          <line
            x1={bounds.x - reach}
            x2={bounds.x + bounds.width + reach}
            y1={y - half}
            y2={y - half}
            stroke="var(--rule)"
          />
          {2 * half * zoom > 13 && (
            <text
              x={bounds.x + LABEL_END}
              textAnchor="end"
              y={near ? y - 4 : y + size / 3}
              fontSize={size}
              fontWeight={700}
              fontFamily="var(--mono)"
              fill="var(--ink-soft)"
            >
              {cost === null ? 'not in this tree' : groupText(internal > 0 ? internal : cost)}
            </text>
          )}
          {cost !== null && near && (
            <text
              x={bounds.x + LABEL_END}
              textAnchor="end"
              y={y + 14}
              fontSize={13}
              fontFamily="var(--sans)"
              fill="var(--ink-soft)"
            >
              {internal > 0 ? `inside; outside ${groupText(cost)}` : cost === 0 ? 'the root' : 'root path cost'}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
});
