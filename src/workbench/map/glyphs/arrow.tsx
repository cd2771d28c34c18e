import { atEnd, polyline } from '../run';
import type { Glyph } from './glyph';

/** An arrowhead toward the switch: the way to the root, or out of the region. */
export const arrow: Glyph = {
  shows: ({ role }) => role === 'root' || role === 'master',
  trim: 4,
  draw: ({ end, colour }) => (
    <path d={polyline([atEnd(end, 19), atEnd(end, 5, 5.5), atEnd(end, 9), atEnd(end, 5, -5.5)], true)} fill={colour} />
  ),
  signs: [{ at: { role: 'root', disputed: false }, says: 'arrowhead, R: root port, this way to the root' }],
};
