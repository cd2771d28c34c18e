import { atEnd, polyline, type CourseEnd } from '../run';
import type { Glyph } from './glyph';

/** The mark of a port that is shut, or without signal. */
export function BarredSquare({ end, colour }: { readonly end: CourseEnd; readonly colour: string }) {
  // Upright whatever the link's direction: a square on its corner would look like another sign.
  const { x, y } = atEnd(end, 9.5);
  const corner = (across: -1 | 1, down: -1 | 1) => ({ x: x + 4.5 * across, y: y + 4.5 * down });
  const square = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  return (
    <g stroke={colour} strokeWidth={1.5} fill="var(--paper)">
      <path d={polyline(square, true)} />
      <path d={polyline([corner(-1, -1), corner(1, 1)])} />
    </g>
  );
}

export const barredSquare: Glyph = {
  shows: ({ role }) => role === 'disabled',
  trim: 16,
  draw: BarredSquare,
  // The legend shows it on the cable, where no strand is drawn.
  signs: [],
};
