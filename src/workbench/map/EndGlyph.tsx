/** What a strand's end looks like for each role: arrowhead, collar bar, frayed end, barred square. */
import type { RunState } from '../../core/modes/entity';
import type { Role } from '../../core/tree/settled';
import { atEnd, polyline, type RunEnd } from './run';

/** How far from the box the strand itself begins, so that the glyph has its place. */
export const TRIM: Readonly<Record<Role, number>> = {
  root: 4,
  designated: 5,
  alternate: 24,
  backup: 24,
  master: 4,
  disabled: 16,
};

interface Props {
  readonly end: RunEnd;
  readonly role: Role;
  readonly colour: string;
  readonly width: number;
}

/** Draws one end. */
export function EndGlyph({ end, role, colour, width }: Props) {
  switch (role) {
    case 'root':
    case 'master':
      return (
        <path
          d={polyline([atEnd(end, 19), atEnd(end, 5, 5.5), atEnd(end, 9), atEnd(end, 5, -5.5)], true)}
          fill={colour}
        />
      );
    case 'designated':
      return <path d={polyline([atEnd(end, 4, -5), atEnd(end, 4, 5)])} stroke={colour} strokeWidth={3} />;
    case 'alternate':
    case 'backup':
      return (
        <path
          d={[
            [14, -5.5],
            [11, 0.5],
            [14.5, 5.5],
          ]
            .map(([away, across]) => polyline([atEnd(end, 25), atEnd(end, away!, across)]))
            .join('')}
          stroke={colour}
          strokeWidth={Math.max(1.2, width - 0.8)}
          fill="none"
        />
      );
    case 'disabled':
      return <BarredSquare end={end} colour={colour} />;
  }
}

/** How far a port is on its way to forward. */
export const fillOf = (state: RunState): number =>
  ({ disabled: 0, blocking: 0, discarding: 0, listening: 1 / 3, learning: 2 / 3, forwarding: 1 })[state];

/** A collar that fills while its port is on the way to forward: empty discarding, a third listening, two thirds learning. */
export function FillingCollar({
  end,
  fill,
  colour,
}: {
  readonly end: RunEnd;
  readonly fill: number;
  readonly colour: string;
}) {
  const [near, far, half] = [3, 12, 6];
  const box = (from: number) =>
    polyline([atEnd(end, near, -half), atEnd(end, far, -half), atEnd(end, far, from), atEnd(end, near, from)], true);
  return (
    <g>
      <path d={box(half)} fill="var(--paper)" stroke={colour} strokeWidth={1.6} />
      {fill > 0 && <path d={box(-half + 2 * half * fill)} fill={colour} />}
    </g>
  );
}

/** The mark of a port that is shut, or without signal. */
export function BarredSquare({ end, colour }: { readonly end: RunEnd; readonly colour: string }) {
  const square = [atEnd(end, 4, -4.5), atEnd(end, 13, -4.5), atEnd(end, 13, 4.5), atEnd(end, 4, 4.5)];
  return (
    <g stroke={colour} strokeWidth={1.5} fill="var(--paper)">
      <path d={polyline(square, true)} />
      <path d={polyline([atEnd(end, 4, -4.5), atEnd(end, 13, 4.5)])} />
    </g>
  );
}
