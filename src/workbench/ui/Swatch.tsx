/** A short piece of a tree's strand. */
import { strandStyle } from './strandStyle';

export function Swatch({ index, width = 34 }: { readonly index: number; readonly width?: number }) {
  const { colour, dash } = strandStyle(index);
  return (
    <svg width={width} height={8} aria-hidden="true" style={{ flex: 'none' }}>
      <line x1={0} x2={width} y1={4} y2={4} stroke={colour} strokeWidth={3.5} strokeDasharray={dash} />
    </svg>
  );
}
