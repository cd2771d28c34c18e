/** Networks for tests: a short notation for hand-worked ones, and fast-check arbitraries for random ones. */
import fc from 'fast-check';
import { readDesign } from '../model/read';
import type { Design, Dialect } from '../model/document';
import { problemText } from '../model/problem';
import { solve } from '../tree/solve';
import { treeOf, viewTree, type Solution, type SwitchView, type TreeView } from '../tree/settled';
import type { PortId, SwitchId, TreeId } from '../model/ids';

/** Reads a document, failing the test with every problem where it is not legal. */
export function designOf(document: object): Design {
  const design = readDesign({
    format: 'knot-path-design',
    version: 1,
    name: 'test',
    links: [],
    switches: [],
    ...document,
  });
  if (!design.ok) throw new Error(design.error.map(problemText).join('\n'));
  return design.value;
}

type Settings = Record<string, unknown>;

/**
 * Builds a design from switches (name to settings; MACs rise in the order given unless set) and cables such as
 * `a 1 = b 2`; ports appear as they are named, and `ports` gives some of them settings by `a 1`.
 */
export function networkOf(
  switches: Record<string, Settings>,
  cables: readonly string[],
  ports: Record<string, Settings> = {},
  rest: Settings = {},
): Design {
  const named = new Map(Object.keys(switches).map((name) => [name, new Set<string>()]));
  const ends = cables.map((cable) => cable.split('=').map((end) => end.trim().split(' ') as [string, string]));
  for (const [name, port] of [...ends.flat(), ...Object.keys(ports).map((key) => key.split(' ') as [string, string])])
    named.get(name)?.add(port);
  return designOf({
    switches: Object.entries(switches).map(([id, settings], i) => ({
      id,
      mac: `02:00:00:00:00:${(i + 1).toString(16).padStart(2, '0')}`,
      ...settings,
      ports: [...(named.get(id) ?? [])].map((port) => ({ id: port, number: Number(port), ...ports[`${id} ${port}`] })),
    })),
    links: ends.map(([a, b], i) => ({
      id: `l${i}`,
      a: { switch: a![0], port: a![1] },
      b: { switch: b![0], port: b![1] },
    })),
    ...rest,
  });
}

export const solutionOf = (design: Design): Solution => solve(design);

/** One tree of a design as the command line shows it. */
export function settledTree(design: Design, tree = 'cst'): TreeView {
  const solution = solutionOf(design);
  const found = treeOf(solution, tree as TreeId);
  if (!found) throw new Error(`no tree ${tree}`);
  return viewTree(solution.network, found);
}

/** A switch in a settled tree. */
export const at = (tree: TreeView, sw: string): SwitchView => tree.switches[sw as SwitchId]!;

/** `R`, `D`, `A`, `B` or `-` of a port such as `a 1`, `m` of a bundle's member; a dot where the port is not in the tree. */
export function roleAt(tree: TreeView, end: string): string {
  const [sw, port] = end.split(' ');
  const part = tree.switches[sw as SwitchId]?.ports[port as PortId];
  if (part && !('role' in part)) return 'm';
  const role = part?.role;
  return role === undefined ? '.' : role === 'disabled' ? '-' : role[0]!.toUpperCase();
}

/** Which dialects a random network draws from. */
export const FAMILIES: Readonly<Record<'standard' | 'perVlan' | 'mixed' | 'hubs', readonly Dialect[]>> = {
  standard: ['stp', 'rstp', 'rstp', 'off'],
  perVlan: ['per-vlan-stp', 'per-vlan-rstp', 'per-vlan-rstp', 'off'],
  mixed: ['rstp', 'per-vlan-rstp', 'off'],
  hubs: ['rstp', 'off'],
};

const COSTS = [undefined, undefined, 1, 2, 4000, 20_000];
const ALLOWED = ['1-4094', '1-4094', '15', '25', '1,25', ''];

/** Random networks of 1 to `most` switches: parallel and looped cables, things down, overrides, VLANs missing here and there. */
export function randomDesign(family: keyof typeof FAMILIES, most = 8): fc.Arbitrary<Design> {
  const port = fc.record({
    speed: fc.constantFrom(100, 1000, 1000, 10_000),
    cost: fc.constantFrom(...COSTS),
    priority: fc.constantFrom(0, 128, 128, 240),
    up: fc.constantFrom(true, true, true, true, true, false),
    allowed: fc.constantFrom(...ALLOWED),
    override: fc.constantFrom(...COSTS),
  });
  const cable = fc.record({
    a: fc.nat(),
    b: fc.nat(),
    up: fc.constantFrom(true, true, true, true, false),
    portA: port,
    portB: port,
  });
  return fc
    .record({
      switches: fc.array(
        fc.record({
          dialect: fc.constantFrom(...FAMILIES[family]),
          mac: fc.integer({ min: 1, max: 0xffff }),
          up: fc.constantFrom(true, true, true, true, true, true, false),
          method: fc.constantFrom(undefined, undefined, undefined, 'short', 'long'),
          priority: fc.constantFrom(0, 4096, 32768, 32768),
          override: fc.constantFrom(undefined, undefined, 4096, 61440),
        }),
        { minLength: 1, maxLength: most },
      ),
      cables: fc.array(cable, { maxLength: most * 2, size: '+1' }),
      pathCost: fc.constantFrom('long', 'short'),
    })
    .map(({ switches, cables, pathCost }) => {
      const ports: object[][] = switches.map(() => []);
      const plug = (index: number, { allowed, override, cost, ...settings }: (typeof cables)[0]['portA']) => {
        const list = ports[index % ports.length]!;
        const trees = override === undefined ? {} : { 'vlan:15': { cost: override }, cst: { cost: override } };
        list.push({
          id: String(list.length + 1),
          number: list.length + 1,
          ...settings,
          ...(cost === undefined ? {} : { cost }),
          trees,
          vlans: { mode: 'trunk', allowed },
        });
        return { switch: `s${index % ports.length}`, port: String(list.length) };
      };
      const links = cables.map(({ a, b, up, portA, portB }, i) => ({
        id: `l${i}`,
        a: plug(a, portA),
        b: plug(b, portB),
        up,
      }));
      return designOf({
        pathCost,
        links,
        vlans: [{ id: 15 }, { id: 25 }],
        switches: switches.map(({ dialect, mac, priority, override, up, method }, i) => ({
          id: `s${i}`,
          dialect,
          priority,
          up,
          ports: ports[i],
          ...(method === undefined ? {} : { pathCost: method }),
          mac: `02:00:00:${i.toString(16).padStart(2, '0')}:${(mac >> 8).toString(16).padStart(2, '0')}:${(mac & 255).toString(16).padStart(2, '0')}`,
          trees: override === undefined ? {} : { 'vlan:15': { priority: override }, cst: { priority: override } },
        })),
      });
    });
}

/** Random networks of any family. */
export const anyDesign = fc
  .constantFrom('standard' as const, 'perVlan' as const, 'mixed' as const, 'hubs' as const)
  .chain((family) => randomDesign(family, family === 'hubs' ? 4 : 8));

/** Random networks as people build them: every switch reached by two cables or more, all up, all VLANs carried, one dialect; parallel cables too. */
export const meshDesign: fc.Arbitrary<Design> = fc
  .record({
    dialect: fc.constantFrom<Dialect>('rstp', 'stp', 'per-vlan-rstp'),
    switches: fc.array(
      fc.record({
        mac: fc.integer({ min: 1, max: 0xffff }),
        tier: fc.constantFrom('core', 'distribution', 'access'),
        priority: fc.constantFrom(0, 4096, 32768, 32768, 32768),
        load: fc.nat(500),
      }),
      { minLength: 3, maxLength: 7 },
    ),
    chords: fc.array(fc.record({ a: fc.nat(), b: fc.nat() }), { maxLength: 6 }),
    ports: fc.array(fc.record({ speed: fc.constantFrom(100, 1000, 1000, 10_000), cost: fc.constantFrom(...COSTS) }), {
      minLength: 40,
      maxLength: 40,
    }),
  })
  .map(({ dialect, switches, chords, ports }) => {
    const count = switches.length;
    const ring = switches.map((_, i) => ({ a: i, b: (i + 1) % count }));
    const pairs = [...ring, ...chords.map(({ a, b }) => ({ a: a % count, b: b % count }))].filter(
      ({ a, b }) => a !== b,
    );
    const used = switches.map(() => 0);
    const settings: Record<string, Settings> = {};
    const plug = (s: number, i: number): string => {
      const end = `s${s} ${(used[s]! += 1)}`;
      const { speed, cost } = ports[i % ports.length]!;
      settings[end] = { speed, ...(cost === undefined ? {} : { cost }) };
      return end;
    };
    const cables = pairs.map(({ a, b }, i) => `${plug(a, 2 * i)} = ${plug(b, 2 * i + 1)}`);
    const named = Object.fromEntries(
      switches.map(({ mac, tier, priority }, i) => [
        `s${i}`,
        {
          dialect,
          tier,
          priority,
          mac: `02:00:00:${i.toString(16).padStart(2, '0')}:${(mac >> 8).toString(16).padStart(2, '0')}:${(mac & 255).toString(16).padStart(2, '0')}`,
        },
      ]),
    );
    const vlans = switches.slice(0, 4).map(({ load }, i) => ({ id: 15 + 10 * i, load }));
    return networkOf(named, cables, settings, { vlans });
  });

const REGION_KINDS = ['r0', 'r0', 'r0', 'r1', 'r1', 'r2', 'r3', 'rstp', 'stp'] as const;

/**
 * Random networks of up to four regions, whole or in pieces, with up to `instances` instances, beside bridges that speak
 * otherwise; every cable carries every VLAN. VLAN 10 n is mapped to instance n, where there is such a VLAN.
 */
export function regionsDesign(
  most = 8,
  kinds: readonly (Dialect | 'r0' | 'r1' | 'r2' | 'r3')[] = REGION_KINDS,
  mostInstances = 3,
): fc.Arbitrary<Design> {
  const cost = fc.constantFrom(...COSTS);
  const sw = fc.record({
    kind: fc.constantFrom(...kinds),
    priority: fc.constantFrom(0, 4096, 32_768, 32_768),
    first: fc.constantFrom(0, 32_768, 32_768),
    second: fc.constantFrom(0, 32_768, 61_440),
  });
  const link = fc.record({
    a: fc.nat(),
    b: fc.nat(),
    cost,
    other: cost,
    external: cost,
    first: cost,
    priority: fc.constantFrom(0, 128, 240),
    up: fc.constantFrom(true, true, true, true, false),
  });
  return fc
    .record({
      switches: fc.array(sw, { minLength: 1, maxLength: most }),
      links: fc.array(link, { maxLength: 2 * most }),
      instances: fc.integer({ min: 0, max: mostInstances }),
    })
    .map(({ switches, links, instances }) => {
      const ports = switches.map((): Settings[] => []);
      const plug = (at: number, settings: Settings): object => {
        const s = at % switches.length;
        ports[s]!.push({ id: String(ports[s]!.length + 1), number: ports[s]!.length + 1, ...settings });
        return { switch: `s${s}`, port: String(ports[s]!.length) };
      };
      const cables = links.map(({ a, b, up, ...set }, i) => ({
        id: `l${i}`,
        up,
        a: plug(a, {
          cost: set.cost,
          externalCost: set.external,
          priority: set.priority,
          trees: set.first ? { 'mst:1': { cost: set.first } } : {},
        }),
        b: plug(b, { cost: set.other }),
      }));
      const region = (id: string) => ({
        id,
        name: id,
        instances: Array.from({ length: instances }, (_, i) => ({
          id: i + 1,
          vlans: 10 * (i + 1) > 4094 ? '' : String(10 * (i + 1)),
        })),
      });
      return designOf({
        vlans: [{ id: 10 }, { id: 20 }, { id: 30 }],
        regions: ['r0', 'r1', 'r2', 'r3'].map(region),
        links: cables,
        switches: switches.map(({ kind, priority, first, second }, s) => ({
          id: `s${s}`,
          mac: `02:00:00:00:00:${(s + 1).toString(16).padStart(2, '0')}`,
          priority,
          ports: ports[s]!,
          ...(!/^r\d$/.test(kind)
            ? { dialect: kind }
            : {
                dialect: 'mstp',
                region: kind,
                trees: { 'mst:1': { priority: first }, 'mst:2': { priority: second } },
              }),
        })),
      });
    });
}
