/** Designs on the way from one state to another: some switches visited, some cables done, the rest as before. */
import { oncePer } from '../../base/cache';
import type { Bundle, Design, Host, Link, RegionSettings, Switch } from '../../model/document';
import { treeInstance, treeVlan, type LinkId, type RegionId, type SwitchId, type TreeId } from '../../model/ids';
import { touchedPlaces, valueAt, withPlaces, type Place } from '../../model/derive/touched';
import { leanDesign } from '../../model/derive/write';
import { readDesign } from '../../model/read';

/** Everything that is set at one switch in one visit, or one setting there; a cable that is plugged in, unplugged, or plugged in elsewhere. */
export type Step =
  | { readonly kind: 'visit'; readonly switch: SwitchId }
  | { readonly kind: 'setting'; readonly switch: SwitchId; readonly setting: string }
  | { readonly kind: 'cable'; readonly link: LinkId; readonly does: 'in' | 'out' | 'over' };

/** Each switch's settings in one visit, or one by one. */
export type Grain = 'visits' | 'settings';

export function stepKey(step: Step): string {
  switch (step.kind) {
    case 'visit':
      return `visit ${step.switch}`;
    case 'setting':
      return `setting ${step.switch} ${step.setting}`;
    case 'cable':
      return `cable ${step.link}`;
  }
}

const text = (value: unknown): string => JSON.stringify([value]);
const byId = <T extends { readonly id: string }>(items: readonly T[]): Map<T['id'], T> =>
  new Map(items.map((item) => [item.id, item]));

/** Every step between two states, those at switches first, in the order of the design. */
export function stepsBetween(before: Design, after: Design, grain: Grain = 'visits'): Step[] {
  const ids = [...new Set([...before.switches, ...after.switches].map(({ id }) => id))];
  const visits = ids
    .filter((id) => changesAt(before, after, id))
    .flatMap((id): Step[] =>
      grain === 'visits'
        ? [{ kind: 'visit', switch: id }]
        : [...settingsAt(before, after, id).keys()].map((setting) => ({ kind: 'setting', switch: id, setting })),
    );
  const [was, is] = [byId(before.links), byId(after.links)];
  const cables = [...new Set([...was.keys(), ...is.keys()])].flatMap((id): Step[] => {
    const [a, b] = [was.get(id), is.get(id)];
    if (text(a) === text(b)) return [];
    const [wasIn, isIn] = [a?.up ?? false, b?.up ?? false];
    return [{ kind: 'cable', link: id, does: wasIn === isIn ? 'over' : isIn ? 'in' : 'out' }];
  });
  return [...visits, ...cables];
}

/** All that is set at a switch: its own settings, its bundles, the contents of its region, the cost method. */
interface SetThere {
  readonly switch: Switch;
  readonly bundles: readonly Bundle[];
  readonly region: Omit<RegionSettings, 'id'> | null;
}

const setAt = oncePer(
  (design: Design): ReadonlyMap<SwitchId, SetThere> =>
    new Map(
      design.switches.map((sw) => {
        const region = design.regions.find(({ id }) => id === sw.region);
        const { region: _, ...own } = sw;
        const { id: __, ...contents } = region ?? { id: null };
        return [
          sw.id,
          {
            switch: { ...own, pathCost: sw.pathCost ?? design.pathCost },
            bundles: design.bundles.filter((bundle) => bundle.switch === sw.id),
            region: region ? (contents as Omit<RegionSettings, 'id'>) : null,
          },
        ];
      }),
    ),
);
/** Where it is on the map, and in which group, is set at no switch. */
const isOnPaper = ([part, key]: Place): boolean =>
  part === 'switch' && key !== undefined && ['position', 'tier', 'group'].includes(key);

/** The settings that differ at a switch, by name, each with its places: what differs alike in several trees is one. */
function settingsAt(before: Design, after: Design, id: SwitchId): ReadonlyMap<string, readonly Place[]> {
  const [was, is] = [setAt(before).get(id), setAt(after).get(id)];
  if (!was || !is) return new Map([['all', []]]);
  const found = new Map<string, { readonly name: string; readonly places: Place[] }>();
  for (const place of touchedPlaces(was, is)) {
    if (isOnPaper(place)) continue;
    // The region is one setting, and so is all of a port or a bundle that comes or goes.
    const [whole, trees] = [place[0] === 'region', place.findIndex((key) => isTree(key))];
    const values = [was, is].map((side) => valueAt(side, place));
    const key = whole ? 'region' : trees < 0 ? place.join('/') : text([place.toSpliced(trees, 1), values]);
    const known = found.get(key);
    if (known) known.places.push(place);
    else found.set(key, { name: whole ? 'region' : place.join('/'), places: [place] });
  }
  return new Map([...found.values()].map(({ name, places }) => [name, places]));
}

/** Whether a key is the name of a tree. */
const isTree = (key: string): boolean =>
  key === 'cst' || treeVlan(key as TreeId) !== null || treeInstance(key as TreeId) !== null;

const changesAt = (before: Design, after: Design, id: SwitchId): boolean => {
  const [was, is] = [setAt(before).get(id), setAt(after).get(id)];
  return was !== is && (!was || !is || touchedPlaces(was, is).some((place) => !isOnPaper(place)));
};

/** What is set at a switch once some steps are done; undefined where there is no such switch then. */
function setThere(before: Design, after: Design, id: SwitchId, done: ReadonlySet<string>): SetThere | undefined {
  const [was, is] = [setAt(before).get(id), setAt(after).get(id)];
  if (done.has(`visit ${id}`) || (!was || !is ? done.has(`setting ${id} all`) : !changesAt(before, after, id)))
    return is;
  if (!was || !is) return was;
  const settings = [...settingsAt(before, after, id)].filter(([setting]) => done.has(`setting ${id} ${setting}`));
  const places = new Set(settings.flatMap(([, all]) => all.map((place) => place.join('/'))));
  return withPlaces(was, is, (place) => isOnPaper(place) || places.has(place.join('/')));
}

/** The state in which some steps are done; null where that is no legal design, as a cable to a port that is not there yet. */
export function mixed(before: Design, after: Design, done: ReadonlySet<string>): Design | null {
  const regions = new Map<string, RegionSettings>();
  const ids = [...new Set([...after.switches, ...before.switches].map(({ id }) => id))];
  const set = ids.flatMap((id) => setThere(before, after, id, done) ?? []);
  const switches = set.map((each): Switch => {
    const { pathCost, ...sw } = each.switch;
    const isOwn = [before, after].some(({ switches: all }) => all.some(({ id, pathCost: own }) => id === sw.id && own));
    // A method of its own it has only where it had one, or where the design's is another one by now.
    const method = isOwn || pathCost !== after.pathCost ? { pathCost } : {};
    return { ...sw, ...method, ...regionOf(each, [after, before], regions) };
  });
  const used = new Set<string>([...regions.values()].map(({ id }) => id));
  const there = new Map(switches.map((sw) => [sw.id, new Set<string>(sw.ports.map(({ id }) => id))]));
  const has = (end: { readonly switch: SwitchId; readonly port: string }): boolean =>
    there.get(end.switch)?.has(end.port) ?? false;
  const links = merged(before.links, after.links, (link) => done.has(`cable ${link}`));
  const plugged = new Map<string, Link>();
  for (const link of links)
    for (const end of [link.a, link.b]) {
      // Two cables at one port, or a cable to none: this order does not work.
      if (!has(end) || plugged.has(`${end.switch} ${end.port}`)) return null;
      plugged.set(`${end.switch} ${end.port}`, link);
    }
  const fits = (host: Host): boolean =>
    host.attach.every((end) => has(end) && !plugged.has(`${end.switch} ${end.port}`));
  const old = byId(before.hosts);
  const hosts = after.hosts.map((host) => (fits(host) ? host : (old.get(host.id) ?? { ...host, attach: [] })));
  const design: Design = {
    ...after,
    switches,
    links,
    hosts: hosts.map((host) => (fits(host) ? host : { ...host, attach: [] })),
    bundles: set
      .flatMap(({ bundles }) => bundles)
      .filter(({ switch: id, ports }) => ports.every((port) => has({ switch: id, port }))),
    regions: [...regions.values(), ...after.regions.filter(({ id }) => !used.has(id))],
  };
  const read = readDesign(leanDesign(design));
  return read.ok ? read.value : null;
}

/** Regions are settings of each switch: two states of one may stand side by side, as two regions of one name. */
function regionOf(
  { switch: { id: sw }, region: contents }: SetThere,
  designs: readonly Design[],
  regions: Map<string, RegionSettings>,
): Partial<Switch> {
  if (!contents) return {};
  const known = regions.get(text(contents));
  if (known) return { region: known.id };
  const taken = new Set<string>([...regions.values()].map(({ id }) => id));
  const own = designs.flatMap((design) => design.switches.find((each) => each.id === sw)?.region ?? [])[0] ?? 'region';
  let id: string = own;
  for (let i = 2; taken.has(id); i += 1) id = `${own}-${i}`;
  regions.set(text(contents), { ...contents, id: id as RegionId });
  return { region: id as RegionId };
}

/** Links as they are: those whose step is done as after, the others as before. */
function merged(before: readonly Link[], after: readonly Link[], done: (id: LinkId) => boolean): Link[] {
  const [was, is] = [byId(before), byId(after)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((id) => {
    const [a, b] = [was.get(id), is.get(id)];
    const link = done(id) || text(a) === text(b) ? b : a;
    return link ? [link] : [];
  });
}
