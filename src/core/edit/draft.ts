/** Finding and setting things in a draft of a design. */
import equal from 'fast-deep-equal';
import type { Draft } from 'immer';
import type { Bundle, Design, PairHalf, Port } from '../model/document';
import type { BridgePortId, BundleId, GroupId, HostId, LinkId, RegionId, SwitchId, TreeId } from '../model/ids';
import { PORT_PRIORITY } from '../model/legal';

/** A command that names what the design does not have. */
export class Missing extends Error {
  readonly what: string;

  constructor(what: string) {
    super(what);
    this.what = what;
  }
}

/** The first item that passes, or `Missing`. */
export function find<T>(items: readonly T[], is: (item: T) => boolean, what: string): T {
  const found = items.find(is);
  if (found === undefined) throw new Missing(what);
  return found;
}

export const findSwitch = ({ switches }: Draft<Design>, id: SwitchId) =>
  find(switches, (sw) => sw.id === id, `switch ${id}`);
export const findStackMember = (draft: Draft<Design>, sw: SwitchId, member: number) =>
  find(findSwitch(draft, sw).stack?.members ?? [], ({ id }) => id === member, `member ${member} of ${sw}`);
/** A switch's half of a pair. */
export function findHalf(draft: Draft<Design>, sw: SwitchId): Draft<PairHalf> {
  const { pair } = findSwitch(draft, sw);
  if (!pair) throw new Missing(`half of a pair at ${sw}`);
  return pair;
}
export const findPort = (draft: Draft<Design>, sw: SwitchId, id: BridgePortId) =>
  find(findSwitch(draft, sw).ports, (port) => port.id === id, `port ${id} of ${sw}`);
export const findBundle = ({ bundles }: Draft<Design>, id: BundleId) =>
  find(bundles, (bundle) => bundle.id === id, `bundle ${id}`);
/** What a tree's settings stand on: a port, or a bundle by its id. */
export const findBridgePort = (draft: Draft<Design>, sw: SwitchId, id: BridgePortId) =>
  draft.bundles.find((bundle) => bundle.switch === sw && bundle.id === id) ?? findPort(draft, sw, id);
export const findRegion = ({ regions }: Draft<Design>, id: RegionId) =>
  find(regions, (region) => region.id === id, `region ${id}`);
export const findGroup = ({ groups }: Draft<Design>, id: GroupId) =>
  find(groups, (group) => group.id === id, `group ${id}`);
export const findHost = ({ hosts }: Draft<Design>, id: HostId) => find(hosts, (host) => host.id === id, `host ${id}`);
export const findVlan = ({ vlans }: Draft<Design>, id: number) => find(vlans, (vlan) => vlan.id === id, `VLAN ${id}`);
export const findLink = ({ links }: Draft<Design>, id: LinkId) => find(links, (link) => link.id === id, `link ${id}`);

/** A value of its own: what a command brings is changed by later commands of the same step, and the command must not be. */
export const copyOf = <T>(value: T): T =>
  typeof value === 'object' ? (JSON.parse(JSON.stringify(value)) as T) : value;

/** Sets a value where it is another one, so that a command that changes nothing gives no patches. */
export function assign<T extends object, K extends keyof T>(target: T, key: K, value: T[K]): void {
  if (!equal(target[key], value)) target[key] = copyOf(value);
}

/** Sets a cost or a priority of a bridge port, in one tree or, null, wherever a tree says nothing else; null takes it away. */
export function setOnPort(
  port: Draft<Port> | Draft<Bundle>,
  tree: TreeId | null,
  key: 'cost' | 'priority',
  value: number | null,
): void {
  if (tree === null) {
    if (key === 'priority') port.priority = value ?? PORT_PRIORITY.default;
    else if (value === null) delete port.cost;
    else port.cost = value;
    return;
  }
  const set = { ...port.trees[tree] };
  if (value === null) delete set[key];
  else set[key] = value;
  if (Object.keys(set).length === 0) delete port.trees[tree];
  else assign(port.trees, tree, set);
}

/** Everything that has settings of its own for single trees. */
export const withTrees = ({ switches, bundles }: Draft<Design>): { trees: Partial<Record<TreeId, object>> }[] => [
  ...switches.flatMap((sw) => [sw, ...sw.ports]),
  ...bundles,
];
