import { atEnd, polyline } from '../run';
import type { Glyph } from './glyph';

/** A bar across: the segment's designated port. */
export const collar: Glyph = {
  shows: ({ role }) => role === 'designated',
  trim: 5,
  draw: ({ end, colour }) => (
    <path d={polyline([atEnd(end, 4, -5), atEnd(end, 4, 5)])} stroke={colour} strokeWidth={3} />
  ),
  signs: [
    { at: { role: 'designated', disputed: false }, says: 'collar, D: designated port, forwards away from the root' },
  ],
};
