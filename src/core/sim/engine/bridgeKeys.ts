/** Bridge identifiers as single numbers that compare as they do (IEEE 802.1Q-2018 13.26.2), and back. */
import type { Bridge } from '../../topology/bridges';
import { ADDRESSES } from '../../modes/vector';
import type { BridgeId } from '../../topology/bridgeId';

export interface BridgeKeys {
  /** The number of the identifier that switch index `s` has with a priority, the system ID extension added. */
  readonly keyOf: (s: number, priority: number) => number;
  readonly idOf: (key: number) => BridgeId;
  /** The switch that an identifier is of. */
  readonly switchOf: (key: number) => number;
}

/** Numbers for the switches of a network: priority first, then the place of the address; of one address twice, the switch's id decides. */
export function bridgeKeys(switches: readonly Bridge[]): BridgeKeys {
  const byMac = Array.from(switches.keys()).sort((s, t) => {
    const [a, b] = [switches[s]!, switches[t]!];
    return a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : a.id < b.id ? -1 : 1;
  });
  const place = new Int32Array(switches.length);
  byMac.forEach((s, at) => (place[s] = at));
  const switchOf = (key: number): number => byMac[key % ADDRESSES]!;
  return {
    keyOf: (s, priority) => priority * ADDRESSES + place[s]!,
    switchOf,
    idOf: (key) => ({ priority: Math.floor(key / ADDRESSES), mac: switches[switchOf(key)]!.mac }),
  };
}
