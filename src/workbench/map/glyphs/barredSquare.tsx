import { atEnd, polyline, type CourseEnd } from '../run';
import type { Glyph } from './glyph';

/** The mark of a port that is shut, or without signal. */
export function BarredSquare({ end, colour }: { readonly end: CourseEnd; readonly colour: string }) {
  const square = [atEnd(end, 4, -4.5), atEnd(end, 13, -4.5), atEnd(end, 13, 4.5), atEnd(end, 4, 4.5)];
  return (
    <g stroke={colour} strokeWidth={1.5} fill="var(--paper)">
      <path d={polyline(square, true)} />
      <path d={polyline([atEnd(end, 4, -4.5), atEnd(end, 13, 4.5)])} />
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
