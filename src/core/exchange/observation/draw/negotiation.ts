/** How a bundle's end negotiates, by what its members say of themselves. */
import type { BundleMode } from '../../../model/document';
import type { ObservedBundle } from '../observation';

/** LACP states: it begins to speak by itself; it wants to hear each second (802.1AX-2020 6.4.2.3). */
const ACTIVITY = 0x01;
const TIMEOUT = 0x02;

interface Negotiation {
  readonly mode: BundleMode;
  readonly timeout: 'slow' | 'fast';
  /** Null where it does not negotiate by LACP. */
  readonly key: number | null;
}

export function negotiationOf({ members }: ObservedBundle): Negotiation {
  const actor = members.flatMap(({ lacp }) => lacp?.actor ?? [])[0];
  if (!actor) return { mode: 'static', timeout: 'slow', key: null };
  return {
    mode: actor.state & ACTIVITY ? 'active' : 'passive',
    timeout: actor.state & TIMEOUT ? 'fast' : 'slow',
    key: actor.key,
  };
}
