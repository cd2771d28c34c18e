/** What is under the hand: a cable, or a frayed end with what letting go would mean. */
import type { Point } from './geometry';

interface Held {
  readonly from: Point;
  readonly to: Point;
  readonly says?: string | null;
}

export function HeldCable({ held }: { readonly held: Held | null }) {
  if (!held) return null;
  const { from, to, says } = held;
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
        zIndex: 5,
        pointerEvents: 'none',
      }}
    >
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
    </svg>
  );
}
