/** The cable under the hand. */
import type { CableHeld } from './cableDrag';

export function HeldCable({ held }: { readonly held: CableHeld | null }) {
  if (!held) return null;
  const { from, to } = held;
  return (
    <svg aria-hidden="true" style={{ position: 'absolute', left: 0, top: 0, width: 1, height: 1, overflow: 'visible', zIndex: 5, pointerEvents: 'none' }}>
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} stroke="var(--accent)" strokeWidth={2.5} strokeDasharray="7 5" fill="none" />
    </svg>
  );
}
