/** Two states of a design side by side: settings that differ, and ends whose role differs. */
import { carriageText, TIMER_NAMES } from '../../edit/describe';
import { treeName, type HostId, type LinkId, type PortId, type SwitchId, type TreeId } from '../../model/ids';
import type { Bundle, Design, Host, Link, LinkEnd, Port, Switch, Timers } from '../../model/document';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import type { Solution } from '../../tree/settled';

/** One setting that differs; null where one of the two has no such thing. */
export interface Difference {
  /** What it is on: `ridge-a`, `ridge-a port 1`, `VLAN 15`. */
  readonly on: string;
  readonly setting: string;
  readonly before: string | null;
  readonly after: string | null;
  readonly at: { readonly switch?: SwitchId; readonly port?: PortId; readonly link?: LinkId; readonly host?: HostId };
}

export interface Comparison {
  readonly settings: readonly Difference[];
  /** In the trees that both have. */
  readonly ends: readonly MovedEnd[];
  /** Trees that only one of the two has. */
  readonly trees: readonly { readonly tree: TreeId; readonly only: 'before' | 'after' }[];
}

/** Compares two designs with their solutions (null where there is none: then ends are not compared). */
export function compareDesigns(
  before: Design,
  after: Design,
  solutions: readonly [Solution | null, Solution | null],
): Comparison {
  const [a, b] = solutions;
  const ids = (solution: Solution) => new Set(solution.trees.map((tree) => tree.id));
  const [ta, tb] = [a ? ids(a) : new Set<TreeId>(), b ? ids(b) : new Set<TreeId>()];
  return {
    settings: settingDifferences(before, after),
    ends: a && b ? movedEnds(a, b) : [],
    trees:
      a && b
        ? [
            ...[...ta].filter((tree) => !tb.has(tree)).map((tree) => ({ tree, only: 'before' as const })),
            ...[...tb].filter((tree) => !ta.has(tree)).map((tree) => ({ tree, only: 'after' as const })),
          ]
        : [],
  };
}

/** Every setting by name, as text; what a thing has none of is left out. */
type Facts = Readonly<Record<string, string | undefined>>;

/** Settings that differ, in the order of the document. */
export function settingDifferences(before: Design, after: Design): Difference[] {
  if (before === after) return [];
  const nameIn = (design: Design) => {
    const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
    return (id: SwitchId): string => names.get(id) ?? id;
  };
  const [nameBefore, nameAfter] = [nameIn(before), nameIn(after)];
  const endText = (name: (id: SwitchId) => string) => (end: LinkEnd) => `${name(end.switch)} port ${end.port}`;
  const [endBefore, endAfter] = [endText(nameBefore), endText(nameAfter)];
  const differences: Difference[] = [];

  const compare = (on: string, at: Difference['at'], x: Facts | null, y: Facts | null): void => {
    if (x === null || y === null) {
      differences.push({
        on,
        setting: y === null ? 'taken away' : 'added',
        before: x && summary(x),
        after: y && summary(y),
        at,
      });
      return;
    }
    for (const setting of new Set([...Object.keys(x ?? {}), ...Object.keys(y ?? {})])) {
      const [was, is] = [x?.[setting] ?? null, y?.[setting] ?? null];
      if (was !== is) differences.push({ on, setting, before: was, after: is, at });
    }
  };
  const pairs = <T>(
    xs: readonly T[],
    ys: readonly T[],
    idOf: (item: T) => string | number,
    each: (x: T | null, y: T | null) => void,
  ): void => {
    const later = new Map(ys.map((y) => [idOf(y), y]));
    const seen = new Set(xs.map(idOf));
    for (const x of xs) {
      const y = later.get(idOf(x)) ?? null;
      if (x !== y) each(x, y);
    }
    for (const y of ys) if (!seen.has(idOf(y))) each(null, y);
  };

  compare('the design', {}, designFacts(before), designFacts(after));
  pairs(
    before.vlans,
    after.vlans,
    (vlan) => vlan.id,
    (x, y) => compare(`VLAN ${(x ?? y)!.id}`, {}, x && vlanFacts(x), y && vlanFacts(y)),
  );
  pairs(
    before.regions,
    after.regions,
    (region) => region.id,
    (x, y) => compare(`region ${(x ?? y)!.id}`, {}, x && regionFacts(x), y && regionFacts(y)),
  );
  pairs(
    before.switches,
    after.switches,
    (sw) => sw.id,
    (x, y) => {
      const { id } = (x ?? y)!;
      const on = y ? nameAfter(id) : nameBefore(id);
      compare(on, { switch: id }, x && switchFacts(x), y && switchFacts(y));
      if (x && y)
        pairs(
          x.ports,
          y.ports,
          (port) => port.id,
          (p, q) =>
            compare(
              `${on} port ${(p ?? q)!.id}`,
              { switch: id, port: (p ?? q)!.id },
              p && portFacts(p),
              q && portFacts(q),
            ),
        );
    },
  );
  pairs(
    before.links,
    after.links,
    (link) => link.id,
    (x, y) => {
      const on = y ? `${endAfter(y.a)} to ${endAfter(y.b)}` : `${endBefore(x!.a)} to ${endBefore(x!.b)}`;
      compare(on, { link: (x ?? y)!.id }, x && linkFacts(x, endBefore), y && linkFacts(y, endAfter));
    },
  );
  pairs(
    before.bundles,
    after.bundles,
    (bundle) => bundle.id,
    (x, y) => compare(`bundle ${(x ?? y)!.id}`, {}, x && bundleFacts(x), y && bundleFacts(y)),
  );
  pairs(
    before.hosts,
    after.hosts,
    (host) => host.id,
    (x, y) =>
      compare(
        `host ${(y ?? x)!.name ?? (y ?? x)!.id}`,
        { host: (x ?? y)!.id },
        x && hostFacts(x, endBefore),
        y && hostFacts(y, endAfter),
      ),
  );
  return differences;
}

/** Everything that is set on a thing, in one line. */
const summary = (facts: Facts): string =>
  Object.entries(facts)
    .flatMap(([setting, value]) => (value === undefined || value === '' ? [] : [`${setting} ${value}`]))
    .join('; ');

const text = (value: unknown): string | undefined => (value === undefined ? undefined : String(value));
const perTree = (
  trees: Partial<Record<TreeId, { cost?: number | undefined; priority?: number | undefined }>>,
): [string, string | undefined][] =>
  Object.entries(trees).flatMap(([tree, set]): [string, string | undefined][] => [
    [`cost in ${treeName(tree as TreeId)}`, text(set?.cost)],
    [`priority in ${treeName(tree as TreeId)}`, text(set?.priority)],
  ]);

const designFacts = (design: Design): Facts => ({
  name: design.name,
  notes: design.notes || undefined,
  'path cost method': design.pathCost,
  'observed neighbours': design.observed.length ? JSON.stringify(design.observed) : undefined,
  worksheets: design.worksheets.length ? `${design.worksheets.length} kept` : undefined,
});
const vlanFacts = (vlan: Design['vlans'][0]): Facts => ({ name: vlan.name, 'load, Mb/s': text(vlan.load) });
const regionFacts = (region: Design['regions'][0]): Facts => ({
  name: region.name,
  revision: text(region.revision),
  ...Object.fromEntries(region.instances.map((instance) => [`VLANs of instance ${instance.id}`, instance.vlans])),
});
const switchFacts = (sw: Switch): Facts => ({
  name: sw.name ?? sw.id,
  tier: sw.tier,
  'MAC address': sw.mac,
  power: sw.up ? 'on' : 'off',
  dialect: sw.dialect,
  region: sw.region,
  'path cost method': sw.pathCost,
  priority: text(sw.priority),
  ...Object.fromEntries(perTree(sw.trees)),
  ...Object.fromEntries(
    (Object.keys(TIMER_NAMES) as (keyof Timers)[]).map((key) => [TIMER_NAMES[key], text(sw.timers[key])]),
  ),
  place: sw.position && `${sw.position.x}, ${sw.position.y}`,
});
const steeringFacts = (port: Port | Bundle): Facts => ({
  cost: text(port.cost),
  'external cost': text(port.externalCost),
  priority: text(port.priority),
  ...Object.fromEntries(perTree(port.trees)),
  VLANs: carriageText(port.vlans),
});
const portFacts = (port: Port): Facts => ({
  number: text(port.number),
  'speed, Mb/s': text(port.speed),
  set: port.up ? 'up' : 'down',
  'edge port': port.edge ? 'yes' : 'no',
  ...steeringFacts(port),
});
const bundleFacts = (bundle: Bundle): Facts => ({
  switch: bundle.switch,
  name: bundle.name,
  number: text(bundle.number),
  ports: bundle.ports.join(', '),
  mode: bundle.mode,
  ...steeringFacts(bundle),
});
const linkFacts = (link: Link, endText: (end: LinkEnd) => string): Facts => ({
  cable: link.up ? 'up' : 'cut',
  from: endText(link.a),
  to: endText(link.b),
});
const hostFacts = (host: Host, endText: (end: LinkEnd) => string): Facts => ({
  name: host.name ?? host.id,
  'MAC address': host.mac,
  VLAN: text(host.vlan),
  'plugged into': host.attach.map(endText).join(', ') || undefined,
});
