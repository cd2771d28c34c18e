/** Groups that are drawn open: an outline around each, and its name, which folds it. */
import { memo } from 'react';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { MapLayer } from './MapLayer';
import { NAME, type Outline } from './outlines';

export const GroupOutlines = memo(function GroupOutlines({ outlines }: { readonly outlines: readonly Outline[] }) {
  const store = useWorkbenchStore();
  const shading = useWorkbench((state) => state.lens === 'Group');
  if (outlines.length === 0) return null;
  return (
    <>
      <MapLayer level={-2}>
        {outlines.map(({ group, rectangles }) => (
          <g key={group} data-group-outline={group} fill="none" stroke="var(--rule-strong)" strokeDasharray="2 4">
            {rectangles.map(({ x, y, width, height }, i) => (
              <rect key={i} x={x} y={y} width={width} height={height} rx={10} strokeOpacity={shading ? 0.5 : 1} />
            ))}
          </g>
        ))}
      </MapLayer>
      <MapLayer level={3}>
        {outlines.map(
          ({ group, name, label }) =>
            label && (
              <g
                key={group}
                data-group-name={group}
                pointerEvents="all"
                style={{ cursor: 'pointer' }}
                onClick={() => store.getState().fold([group], 'fold')}
              >
                <title>{`fold ${name}`}</title>
                <rect {...label.at} rx={4} fill="var(--paper)" />
                <text
                  x={label.at.x + 4}
                  y={label.at.y + 12}
                  fontSize={NAME.size}
                  fontFamily="var(--sans)"
                  fontWeight={600}
                  fill="var(--ink-soft)"
                >
                  {label.text}
                </text>
              </g>
            ),
        )}
      </MapLayer>
    </>
  );
});
