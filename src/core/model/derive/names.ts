/** The names in a design, found in one pass: several hundred may be asked for at once. */
import { oncePer } from '../../base/cache';
import type { Bundle, Design, Group, Host, Link, RegionSettings, Switch } from '../document';
import type { BundleId, GroupId, HostId, LinkId, RegionId, SwitchId } from '../ids';
import { nameOf, type Names } from '../names';

/** The things of a design by id. */
export interface Things {
  readonly switches: Map<SwitchId, Switch>;
  readonly links: Map<LinkId, Link>;
  readonly hosts: Map<HostId, Host>;
  readonly bundles: Map<BundleId, Bundle>;
  readonly regions: Map<RegionId, RegionSettings>;
  readonly groups: Map<GroupId, Group>;
}

const byId = <T extends { readonly id: string }>(items: readonly T[]): Map<T['id'], T> =>
  new Map(items.map((item) => [item.id, item]));

export const thingsOf = ({ switches, links, hosts, bundles, regions, groups }: Design): Things => ({
  switches: byId(switches),
  links: byId(links),
  hosts: byId(hosts),
  bundles: byId(bundles),
  regions: byId(regions),
  groups: byId(groups),
});

/** Names of what is among the things at the time of asking. */
export function namesFrom({ switches, links, hosts, bundles, regions, groups }: Things): Names {
  const called = <I extends string>(
    things: Map<I, { readonly name?: string | undefined; readonly id: string }>,
    id: I,
  ) => {
    const found = things.get(id);
    return found ? nameOf(found) : id;
  };
  const names: Names = {
    switch: (id) => called(switches, id),
    end(at) {
      const bundle = bundles.get(at.port as BundleId);
      const port = bundle?.switch === at.switch ? `bundle ${nameOf(bundle)}` : `port ${at.port}`;
      return `${names.switch(at.switch)} ${port}`;
    },
    link(id) {
      const link = links.get(id);
      return link ? `${names.end(link.a)} to ${names.end(link.b)}` : id;
    },
    host: (id) => called(hosts, id),
    group: (id) => (id === undefined ? 'none' : called(groups, id)),
    bundle(id) {
      const bundle = bundles.get(id);
      return bundle ? `${nameOf(bundle)} on ${names.switch(bundle.switch)}` : id;
    },
    region(id) {
      if (id === undefined) return 'of its own';
      const region = regions.get(id);
      if (!region) return id;
      const name = region.name || 'no name';
      const alike = [...regions.values()].filter((other) => other.name === region.name);
      if (alike.length === 1) return name;
      const told = alike.filter((other) => other.revision === region.revision).length === 1;
      return `${name} (${told ? `revision ${region.revision}` : `number ${alike.indexOf(region) + 1} of ${alike.length} of this name`})`;
    },
  };
  return names;
}

/** The names in a design. */
export const namesOf = oncePer((design: Design): Names => namesFrom(thingsOf(design)));
