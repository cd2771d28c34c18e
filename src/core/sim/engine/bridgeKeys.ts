/** Bridge identifiers as single numbers that compare as they do (IEEE 802.1Q-2018 13.26.2), and back. */
import type { Network } from '../../topology/network';
import { ADDRESSES } from '../../modes/vector';
import type { BridgeId } from '../../topology/bridgeId';
import { addressesOf } from '../../topology/stacks';

export interface BridgeKeys {
  /** The number of the identifier that switch index `s` has with an address of its own and a priority, the system ID extension added. */
  readonly keyOf: (s: number, mac: string, priority: number) => number;
  readonly idOf: (key: number) => BridgeId;
  /** The number of an identifier; null where no switch has its address. Of one address twice, that of the first. */
  readonly of: (id: BridgeId) => number | null;
  /** The switch that an identifier is of. */
  readonly switchOf: (key: number) => number;
}

/** Numbers for the switches of a network: priority first, then the place of the address; of one address twice, the switch's id decides. */
export function bridgeKeys({ switches, design }: Pick<Network, 'switches' | 'design'>): BridgeKeys {
  const known = new Map(design.switches.map((sw) => [sw.id, sw]));
  const byMac = switches.flatMap((sw, s) =>
    [...new Set(addressesOf(known.get(sw.id)!))].map((mac) => ({ s, mac, id: sw.id })),
  );
  byMac.sort((a, b) => (a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : a.id < b.id ? -1 : 1));
  const places = switches.map(() => new Map<string, number>());
  byMac.forEach(({ s, mac }, at) => places[s]!.set(mac, at));
  const at = (key: number) => byMac[key % ADDRESSES]!;
  const placeOf = new Map([...byMac.keys()].reverse().map((place) => [byMac[place]!.mac, place]));
  return {
    keyOf: (s, mac, priority) => priority * ADDRESSES + places[s]!.get(mac)!,
    switchOf: (key) => at(key).s,
    of: ({ priority, mac }) => {
      const place = placeOf.get(mac);
      return place === undefined ? null : priority * ADDRESSES + place;
    },
    idOf: (key) => ({ priority: Math.floor(key / ADDRESSES), mac: at(key).mac }),
  };
}
