/** Campuses of any size: a core pair, pairs of distribution switches, access switches with two uplinks, some of them chained, some in rings. */
import type { Design } from '../model/document';
import { designOf } from './networks';

interface Campus {
  readonly switches: number;
  readonly vlans: number;
  /** Access switches under a pair. */
  readonly perPair?: number;
}

/** A campus whose switches have no positions; every tree has the root that MAC addresses chose: an access switch. */
export function campusOf({ switches, vlans, perPair = 20 }: Campus): Design {
  const pairs = Math.max(1, Math.round((switches - 2) / (perPair + 2)));
  const access = switches - 2 - 2 * pairs;
  const ports = new Map<string, number>();
  const names: [string, string][] = [
    ...pairOf('core', 1).map((name): [string, string] => [name, 'core']),
    ...Array.from({ length: pairs }, (_, p) => pairOf('dist', 2 * p + 1)).flatMap((pair) =>
      pair.map((name): [string, string] => [name, 'distribution']),
    ),
    ...Array.from({ length: access }, (_, i): [string, string] => [`acc-${i + 1}`, 'access']),
  ];
  const links: object[] = [];
  const cable = (a: string, b: string): void => {
    const port = (name: string): string => {
      const next = (ports.get(name) ?? 0) + 1;
      ports.set(name, next);
      return String(next);
    };
    links.push({ id: `l${links.length + 1}`, a: { switch: a, port: port(a) }, b: { switch: b, port: port(b) } });
  };
  cable('core-1', 'core-2');
  cable('core-1', 'core-2');
  for (let p = 0; p < pairs; p += 1) {
    const [one, two] = pairOf('dist', 2 * p + 1) as [string, string];
    for (const core of ['core-1', 'core-2']) for (const own of [one, two]) cable(core, own);
    cable(one, two);
    const own = Array.from({ length: access }, (_, i) => i).filter((i) => i % pairs === p);
    own.forEach((i, at) => {
      const name = `acc-${i + 1}`;
      // The last of each pair hangs from the one before; the three before those form a ring.
      const fromEnd = own.length - 1 - at;
      const before = `acc-${own[at - 1]! + 1}`;
      if (own.length > 5 && fromEnd === 0) cable(before, name);
      else if (own.length > 5 && fromEnd === 3) cable(one, name);
      else if (own.length > 5 && fromEnd === 2) cable(before, name);
      else if (own.length > 5 && fromEnd === 1) {
        cable(before, name);
        cable(two, name);
      } else {
        cable(one, name);
        cable(two, name);
      }
    });
  }
  const hex = (n: number): string => n.toString(16).padStart(4, '0');
  return designOf({
    name: `Campus of ${switches}`,
    vlans: Array.from({ length: vlans }, (_, i) => ({ id: i + 2 })),
    switches: names.map(([id, tier], i) => ({
      id,
      tier,
      // The newest access switch has the oldest address.
      mac: `02:4b:00:${hex(i === names.length - 7 ? 0 : i + 1).replace(/(..)(..)/, '$1:$2')}:01`,
      dialect: 'per-vlan-rstp',
      ports: Array.from({ length: ports.get(id) ?? 0 }, (_, p) => ({
        id: String(p + 1),
        number: p + 1,
        speed: tier === 'access' ? 1000 : 10_000,
        vlans: { mode: 'trunk', native: 1, allowed: `1-${vlans + 1}` },
      })),
    })),
    links,
  });
}

const pairOf = (name: string, first: number): string[] => [`${name}-${first}`, `${name}-${first + 1}`];
