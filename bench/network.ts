/** Networks of a given size for the benchmarks: layered, redundant, the same every time. */
import { randomFrom } from '../src/core/base/random';
import { readDesign } from '../src/core/model/read';
import type { Design } from '../src/core/model/document';

/** A per-VLAN network of `switches`, about `links` cables and `trees` trees (VLAN 1 among them), of which `own` have priorities of their own. */
export function benchNetwork(switches: number, links: number, trees: number, own = 60): Design {
  const random = randomFrom(7);
  const ports: object[][] = Array.from({ length: switches }, () => []);
  const plug = (s: number) => {
    const number = ports[s]!.length + 1;
    const tier = s < switches / 20 ? 10_000 : 1000;
    ports[s]!.push({
      id: String(number),
      number,
      speed: tier,
      ...(random() < 0.2 ? { trees: { 'vlan:7': { cost: 1 + Math.floor(random() * 30_000) } } } : {}),
    });
    return { switch: `sw-${s}`, port: String(number) };
  };
  const cables = Array.from({ length: links }, (_, l) => {
    // A spanning backbone first, then cross-links that stay mostly near.
    const a = l < switches - 1 ? l + 1 : Math.floor(random() * switches);
    const b =
      l < switches - 1
        ? Math.floor(random() * a)
        : (a + 1 + Math.floor(random() * Math.min(40, switches - 1))) % switches;
    return { id: `l${l}`, a: plug(a), b: plug(b) };
  });
  const columns = Math.ceil(Math.sqrt(switches * 1.6));
  const design = readDesign({
    format: 'knot-path-design',
    version: 1,
    name: `Bench ${switches} / ${links} / ${trees}`,
    vlans: Array.from({ length: trees - 1 }, (_, i) => ({ id: i + 2, name: `Bench ${i + 2}` })),
    switches: ports.map((list, s) => ({
      id: `sw-${s}`,
      dialect: 'per-vlan-rstp',
      tier: s < switches / 20 ? 'core' : 'access',
      ports: list,
      mac: `02:be:00:00:${(s >> 8).toString(16).padStart(2, '0')}:${(s & 255).toString(16).padStart(2, '0')}`,
      trees: { [`vlan:${2 + (s % own)}`]: { priority: 4096 * (s % 8) } },
      position: { x: (s % columns) * 220, y: Math.floor(s / columns) * 190 },
    })),
    links: cables,
  });
  if (!design.ok) throw new Error(JSON.stringify(design.error[0]));
  return design.value;
}
