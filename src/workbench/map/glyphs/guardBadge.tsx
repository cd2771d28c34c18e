/** The sign of a guard: a hexagon, filled and with the guard's letter where it acts; around a role's letter where it stands by. */
import { polyline } from '../run';
import type { GuardSign } from '../linkStrands';

/** From the middle to its corners, and across. */
const REACH = 10;
const HALF = 8.5;

interface Spot {
  readonly x: number;
  readonly y: number;
}

export function Hexagon({
  at: { x, y },
  fill,
  stroke,
}: {
  readonly at: Spot;
  readonly fill: string;
  readonly stroke: string;
}) {
  const corners = [
    { x: x - REACH, y },
    { x: x - REACH / 2, y: y - HALF },
    { x: x + REACH / 2, y: y - HALF },
    { x: x + REACH, y },
    { x: x + REACH / 2, y: y + HALF },
    { x: x - REACH / 2, y: y + HALF },
  ];
  return <path d={polyline(corners, true)} fill={fill} stroke={stroke} strokeWidth={1.2} />;
}

/** A guard that acts. */
export function GuardBadge({ at, sign }: { readonly at: Spot; readonly sign: GuardSign }) {
  return (
    <g pointerEvents="none" data-guard={sign.letter}>
      <Hexagon at={at} fill="var(--ink)" stroke="var(--paper)" />
      <text
        x={at.x}
        y={at.y + 3.8}
        textAnchor="middle"
        fontSize={11}
        fontWeight={700}
        fontFamily="var(--mono)"
        fill="var(--paper)"
      >
        {sign.letter}
      </text>
    </g>
  );
}
