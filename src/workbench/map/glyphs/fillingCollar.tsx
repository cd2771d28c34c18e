import type { RunState } from '../../../core/modes/entity';
import { stateOf } from '../../../core/tree/settled';
import { atEnd, polyline, type CourseEnd } from '../run';
import type { Glyph } from './glyph';

/** How far a port is on its way to forward. */
export const fillOf = (state: RunState): number =>
  ({ disabled: 0, blocking: 0, discarding: 0, listening: 1 / 3, learning: 2 / 3, forwarding: 1 })[state];

/** A collar that fills: empty discarding, a third listening, two thirds learning. */
export function FillingCollar({
  end,
  fill,
  colour,
}: {
  readonly end: CourseEnd;
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

/** A port that is to forward and does not yet. */
export const fillingCollar: Glyph = {
  shows: ({ role, state }) => state !== undefined && state !== 'forwarding' && stateOf(role) === 'forwarding',
  trim: 5,
  draw: ({ end, colour, state }) => <FillingCollar end={end} colour={colour} fill={fillOf(state ?? 'forwarding')} />,
  signs: [
    { at: { role: 'designated', disputed: false, state: 'discarding' }, says: 'empty collar: still discarding' },
    { at: { role: 'designated', disputed: false, state: 'listening' }, says: 'collar a third full: listening' },
    { at: { role: 'designated', disputed: false, state: 'learning' }, says: 'collar two thirds full: learning' },
  ],
};
