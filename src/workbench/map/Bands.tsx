/** The stripes of equal root path cost behind switches that hang from their root. */
import { memo } from 'react';
import { groupText } from '../words/units';
import type { Band } from './hung';

interface Props {
  readonly bands: readonly Band[];
  readonly bounds: { readonly x: number; readonly width: number };
}

export const Bands = memo(function Bands({ bands, bounds }: Props) {
  if (bands.length === 0) return null;
  const reach = 4000;
  return (
    <svg aria-hidden="true" style={{ position: 'absolute', left: 0, top: 0, width: 1, height: 1, overflow: 'visible', zIndex: -2, pointerEvents: 'none' }}>
      {bands.map(({ cost, y, half }, i) => (
        <g key={cost ?? 'outside'} data-band={cost ?? 'outside'}>
          {i % 2 === 1 && <rect x={bounds.x - reach} y={y - half} width={bounds.width + 2 * reach} height={2 * half} fill="var(--surface)" fillOpacity={0.6} />}
          <line x1={bounds.x - reach} x2={bounds.x + bounds.width + reach} y1={y - half} y2={y - half} stroke="var(--rule)" />
          <text x={bounds.x + 8} y={y - 4} fontSize={17} fontWeight={700} fontFamily="var(--mono)" fill="var(--ink-soft)">
            {cost === null ? 'not in this tree' : groupText(cost)}
          </text>
          {cost !== null && (
            <text x={bounds.x + 8} y={y + 14} fontSize={13} fontFamily="var(--sans)" fill="var(--ink-soft)">
              {cost === 0 ? 'the root' : 'root path cost'}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
});
