import { atEnd, polyline } from '../run';
import type { Glyph } from './glyph';

/** A bar across: who speaks for the segment. */
export const collar: Glyph = {
  shows: ({ role }) => role === 'designated',
  trim: 5,
  draw: ({ end, colour }) => (
    <path d={polyline([atEnd(end, 4, -5), atEnd(end, 4, 5)])} stroke={colour} strokeWidth={3} />
  ),
};
