import { atEnd, polyline } from '../run';
import type { Glyph } from './glyph';

const FIBRES = [
  [14, -5.5],
  [11, 0.5],
  [14.5, 5.5],
] as const;

/** The rope is cut: an end that blocks, whatever its role. */
export const fray: Glyph = {
  shows: ({ role, disputed }) => disputed || role === 'alternate' || role === 'backup',
  trim: 24,
  draw: ({ end, colour, width }) => (
    <path
      d={FIBRES.map(([away, across]) => polyline([atEnd(end, 25), atEnd(end, away, across)])).join('')}
      stroke={colour}
      strokeWidth={Math.max(1.2, width - 0.8)}
      fill="none"
    />
  ),
  signs: [
    { at: { role: 'alternate', disputed: false }, says: 'frayed end, A or B: alternate or backup port, blocks' },
    {
      at: { role: 'designated', disputed: true },
      says: 'frayed end, D: designated, but the other end is too, so it blocks',
    },
  ],
};
