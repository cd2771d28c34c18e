/** BPDUs that ride through switches that have no part in them: a band along the cables that they take, with the way that they go. */
import { memo } from 'react';
import type { LinkId } from '../../core/model/ids';
import { useWorkbench } from '../state/context';
import type { Line } from './drawn';
import { MapLayer } from './MapLayer';
import { ridesBy, type RideSign } from './rideSigns';
import { courseOf } from './run';

export const Rides = memo(function Rides({ lines }: { readonly lines: readonly Line[] }) {
  const rides = useWorkbench((state) => state.rides);
  const selection = useWorkbench((state) => state.selection);
  const links = useWorkbench((state) => state.design.links);
  if (!rides?.length) return null;
  const signs = ridesBy(rides, selection, links);
  const byLink = new Map<LinkId, Line>(lines.map((line) => [line.link as LinkId, line]));
  return (
    <MapLayer level={-1}>
      {signs.map((sign) => {
        const line = byLink.get(sign.link);
        return line ? <RideDrawing key={`${sign.link} ${sign.forward}`} line={line} sign={sign} /> : null;
      })}
    </MapLayer>
  );
});

/** Chevrons along the band, at these shares of it. */
const SHARES = [0.25, 0.5, 0.75] as const;

function RideDrawing({ line, sign: { forward, returns } }: { readonly line: Line; readonly sign: RideSign }) {
  const course = courseOf(line, forward ? 9 : -9);
  const colour = returns ? 'var(--accent)' : 'var(--ink)';
  return (
    <g data-ride={returns ? 'returns' : 'through'} pointerEvents="none">
      <path
        d={course.path(2, 2)}
        stroke={colour}
        strokeOpacity={0.18}
        strokeWidth={11}
        strokeLinecap="round"
        fill="none"
      />
      {SHARES.map((share) => {
        const [at, next] = [course.along(share), course.along(share + (forward ? 0.01 : -0.01))];
        const turn = (Math.atan2(next.y - at.y, next.x - at.x) * 180) / Math.PI;
        return (
          <path
            key={share}
            d="M-3-4L3 0L-3 4"
            transform={`translate(${at.x} ${at.y}) rotate(${turn})`}
            stroke={colour}
            strokeOpacity={0.75}
            strokeWidth={1.6}
            fill="none"
          />
        );
      })}
    </g>
  );
}
