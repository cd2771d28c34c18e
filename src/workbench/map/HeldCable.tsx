/** What is under the hand: a cable, or a frayed end with what letting go would mean. */
import type { Point } from './drawn';
import { MapLayer } from './MapLayer';
import { useScale } from './scale';

/** Places in map units. */
interface Held {
  readonly from: Point;
  readonly to: Point;
  readonly says?: string | null;
}

export function HeldCable({ held }: { readonly held: Held | null }) {
  const scale = useScale();
  if (!held) return null;
  const at = ({ x, y }: Point): Point => ({ x: x * scale, y: y * scale });
  const [from, to, says] = [at(held.from), at(held.to), held.says];
  return (
    <MapLayer level={5}>
      <path
        d={`M${from.x} ${from.y}L${to.x} ${to.y}`}
        stroke="var(--accent)"
        strokeWidth={2.5}
        strokeDasharray="7 5"
        fill="none"
      />
      {says && (
        <g>
          <rect
            x={to.x + 12}
            y={to.y - 25}
            width={says.length * 7.5 + 14}
            height={20}
            rx={3}
            fill="var(--paper)"
            stroke="var(--accent)"
          />
          <text x={to.x + 19} y={to.y - 11} fontSize={12} fontWeight={600} fontFamily="var(--mono)" fill="var(--ink)">
            {says}
          </text>
        </g>
      )}
    </MapLayer>
  );
}
