/** Designs on the way from one state to another: some switches visited, some cables done, the rest as before. */
import { oncePer } from '../../base/cache';
import type { Bundle, Design, Host, Link, RegionSettings, Switch } from '../../model/document';
import type { LinkId, RegionId, SwitchId } from '../../model/ids';
import { leanDesign } from '../../model/derive/write';
import { readDesign } from '../../model/read';

/** Everything that is set at one switch in one visit; a cable that is plugged in, unplugged, or plugged in elsewhere. */
export type Step =
  | { readonly kind: 'visit'; readonly switch: SwitchId }
  | { readonly kind: 'cable'; readonly link: LinkId; readonly does: 'in' | 'out' | 'over' };

export const stepKey = (step: Step): string => (step.kind === 'visit' ? `visit ${step.switch}` : `cable ${step.link}`);

const text = (value: unknown): string => JSON.stringify([value]);
const byId = <T extends { readonly id: string }>(items: readonly T[]): Map<T['id'], T> =>
  new Map(items.map((item) => [item.id, item]));

/** Every step between two states, visits first, in the order of the design. */
export function stepsBetween(before: Design, after: Design): Step[] {
  const ids = [...new Set([...before.switches, ...after.switches].map(({ id }) => id))];
  const visits = ids.filter((id) => changesAt(before, after, id)).map((id): Step => ({ kind: 'visit', switch: id }));
  const [was, is] = [byId(before.links), byId(after.links)];
  const cables = [...new Set([...was.keys(), ...is.keys()])].flatMap((id): Step[] => {
    const [a, b] = [was.get(id), is.get(id)];
    if (text(a) === text(b)) return [];
    const [wasIn, isIn] = [a?.up ?? false, b?.up ?? false];
    return [{ kind: 'cable', link: id, does: wasIn === isIn ? 'over' : isIn ? 'in' : 'out' }];
  });
  return [...visits, ...cables];
}

/** By switch, all that is set there: its own settings, its bundles, the contents of its region, the cost method. */
const settingsOf = oncePer(
  (design: Design): ReadonlyMap<SwitchId, string> =>
    new Map(
      design.switches.map(({ position: _, tier: __, group: ___, ...settings }) => [
        settings.id,
        text([
          settings,
          bundlesAt(design, settings.id),
          design.regions.find((region) => region.id === settings.region) ?? null,
          settings.pathCost ?? design.pathCost,
        ]),
      ]),
    ),
);
const bundlesAt = ({ bundles }: Design, id: SwitchId): Bundle[] => bundles.filter((bundle) => bundle.switch === id);

/** The state in which some steps are done; null where that is no legal design, as a cable to a port that is not there yet. */
export function mixed(before: Design, after: Design, done: ReadonlySet<string>): Design | null {
  const visited = (id: SwitchId): boolean => done.has(`visit ${id}`);
  const [was, is] = [byId(before.switches), byId(after.switches)];
  const regions = new Map<string, RegionSettings>();
  const ids = [...new Set([...after.switches, ...before.switches].map(({ id }) => id))];
  const switches = ids.flatMap((id): Switch[] => {
    const from = visited(id) || !changesAt(before, after, id) ? after : before;
    const sw = (from === after ? is : was).get(id);
    if (!sw) return [];
    return [{ ...sw, pathCost: sw.pathCost ?? from.pathCost, ...regionOf(sw, from, regions) }];
  });
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
    bundles: ids
      .flatMap((id) =>
        is.has(id) || was.has(id) ? bundlesAt(visited(id) || !changesAt(before, after, id) ? after : before, id) : [],
      )
      .filter(({ switch: id, ports }) => ports.every((port) => has({ switch: id, port }))),
    regions: [...regions.values()],
  };
  const read = readDesign(leanDesign(design));
  return read.ok ? read.value : null;
}

const changesAt = (before: Design, after: Design, id: SwitchId): boolean =>
  settingsOf(before).get(id) !== settingsOf(after).get(id);

/** Regions are settings of each switch: two states of one may stand side by side, as two regions of one name. */
function regionOf(sw: Switch, from: Design, regions: Map<string, RegionSettings>): Partial<Switch> {
  const own = from.regions.find(({ id }) => id === sw.region);
  if (!own) return {};
  const { id: _, ...settings } = own;
  const known = regions.get(text(settings));
  if (known) return { region: known.id };
  const taken = new Set([...regions.values()].map(({ id }) => id));
  let id = own.id;
  for (let i = 2; taken.has(id); i += 1) id = `${own.id}-${i}` as RegionId;
  regions.set(text(settings), { ...own, id });
  return { region: id };
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
