/** Edits are pure: a design and a command give a new design and the patches that lead there and back. */
import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import { fail, ok, type Result } from '../base/result';
import type { Command } from './commands';
import type { BundleId, HostId, LinkId, PortId, RegionId, SwitchId, TreeId } from '../model/ids';
import { treeInstance, vlanTree } from '../model/ids';
import { BRIDGE_PRIORITY, LACP_PRIORITY, PORT_PRIORITY } from '../model/legal';
import type { DesignProblem } from '../model/problem';
import { LIMITS, MAX_COMMANDS } from '../model/limits';
import { changeProblems } from '../model/read';
import { vlanSet } from '../model/vlanSet';
import type { Design } from '../model/document';

enablePatches();

/** A change of a document: immer patches, JSON by nature. */
export type { Patch };

export interface Edited {
  readonly design: Design;
  readonly patches: Patch[];
  readonly inverse: Patch[];
}

/**
 * Applies a command. Fails, changing nothing, where the command names something that is not there or the result would
 * not be a legal document. A command that changes nothing gives no patches.
 */
export const edit = (design: Design, command: Command): Result<Edited, DesignProblem> => editAll(design, [command]);

/** Applies several commands as one step; all of them or none. */
export function editAll(design: Design, commands: readonly Command[]): Result<Edited, DesignProblem> {
  if (commands.length > MAX_COMMANDS)
    return fail({
      path: 'commands',
      found: `${commands.length} changes`,
      allowed: `at most ${MAX_COMMANDS} in one step`,
    });
  try {
    const [next, patches, inverse] = produceWithPatches(design, (draft) => {
      for (const command of commands) apply(draft, command);
    });
    const [broken] = changeProblems(design, next);
    return broken ? fail(broken) : ok({ design: next, patches, inverse });
  } catch (error) {
    if (error instanceof Missing)
      return fail({ path: error.what, found: 'nothing', allowed: 'something this design has' });
    throw error;
  }
}

/** A command that names what the design does not have. */
class Missing extends Error {
  constructor(readonly what: string) {
    super(what);
  }
}

function find<T>(item: T | undefined, what: string): T {
  if (item === undefined) throw new Missing(what);
  return item;
}

const findSwitch = (draft: Draft<Design>, id: SwitchId) =>
  find(
    draft.switches.find((sw) => sw.id === id),
    `switch ${id}`,
  );
const findPort = (draft: Draft<Design>, sw: SwitchId, id: PortId) =>
  find(
    findSwitch(draft, sw).ports.find((port) => port.id === id),
    `port ${id} of ${sw}`,
  );
const findBundle = (draft: Draft<Design>, id: BundleId) =>
  find(
    draft.bundles.find((bundle) => bundle.id === id),
    `bundle ${id}`,
  );
/** What a tree's settings stand on: a port, or a bundle by its id. */
const findBridgePort = (draft: Draft<Design>, sw: SwitchId, id: PortId) =>
  draft.bundles.find((bundle) => bundle.switch === sw && bundle.id === (id as string)) ?? findPort(draft, sw, id);
const findRegion = (draft: Draft<Design>, id: RegionId) =>
  find(
    draft.regions.find((region) => region.id === id),
    `region ${id}`,
  );
const findHost = (draft: Draft<Design>, id: HostId) =>
  find(
    draft.hosts.find((host) => host.id === id),
    `host ${id}`,
  );
const findVlan = (draft: Draft<Design>, id: number) =>
  find(
    draft.vlans.find((vlan) => vlan.id === id),
    `VLAN ${id}`,
  );
const findLink = (draft: Draft<Design>, id: LinkId) =>
  find(
    draft.links.find((link) => link.id === id),
    `link ${id}`,
  );

function apply(draft: Draft<Design>, command: Command): void {
  switch (command.do) {
    case 'rename-design':
      draft.name = command.name;
      return;
    case 'set-cost-method':
      draft.pathCost = command.method;
      return;
    case 'set-switch': {
      const { name, tier, dialect, mac, timers, up, pathCost } = command;
      const sw = findSwitch(draft, command.switch);
      assign(sw, { name, tier, dialect, mac, timers, up });
      setOrClear(sw, 'pathCost', pathCost);
      setOrClear(sw, 'region', command.region);
      if (command.systemPriority !== undefined) assign(sw, { lacp: { systemPriority: command.systemPriority } });
      return;
    }
    case 'set-bridge-priority': {
      const sw = findSwitch(draft, command.switch);
      if (command.tree === null) sw.priority = command.priority ?? BRIDGE_PRIORITY.default;
      else if (command.priority === null) delete sw.trees[command.tree];
      else assign(sw.trees, { [command.tree]: { priority: command.priority } });
      return;
    }
    case 'set-port': {
      const { speed, up, edge, vlans, number, lacpPriority, lacpKey } = command;
      const bundle = draft.bundles.find(
        (each) => each.switch === command.switch && each.id === (command.port as string),
      );
      if (bundle && [speed, up, number, lacpPriority, lacpKey].every((value) => value === undefined))
        return assign(bundle, { edge, vlans });
      const port = findPort(draft, command.switch, command.port);
      assign(port, { speed, up, edge, vlans, number });
      if (lacpPriority === undefined && lacpKey === undefined) return;
      const key = lacpKey === undefined ? port.lacp?.key : (lacpKey ?? undefined);
      assign(port, {
        lacp: {
          priority: lacpPriority ?? port.lacp?.priority ?? LACP_PRIORITY.default,
          ...(key === undefined ? {} : { key }),
        },
      });
      return;
    }
    case 'set-port-cost':
      setOnPort(findBridgePort(draft, command.switch, command.port), command.tree, 'cost', command.cost);
      return;
    case 'set-external-cost':
      setOrClear(findBridgePort(draft, command.switch, command.port), 'externalCost', command.cost);
      return;
    case 'set-port-priority':
      setOnPort(findBridgePort(draft, command.switch, command.port), command.tree, 'priority', command.priority);
      return;
    case 'set-link': {
      const link = findLink(draft, command.link);
      assign(link, { up: command.up, a: command.a, b: command.b });
      if (command.delay === null) delete link.delay;
      else assign(link, { delay: command.delay });
      for (const end of [link.a, link.b]) assign(findPort(draft, end.switch, end.port), { speed: command.speed });
      return;
    }
    case 'move-switches':
      for (const { switch: id, position } of command.to) assign(findSwitch(draft, id), { position });
      return;
    case 'add-switch':
      draft.switches.push(copyOf(command.switch));
      return;
    case 'add-port':
      findSwitch(draft, command.switch).ports.push(copyOf(command.port));
      return;
    case 'add-link':
      draft.links.push(copyOf(command.link));
      return;
    case 'remove-switch':
      removeSwitch(draft, command.switch);
      return;
    case 'remove-link':
      findLink(draft, command.link);
      draft.links = draft.links.filter((link) => link.id !== command.link);
      return;
    case 'remove-port':
      removePort(draft, command.switch, command.port);
      return;
    case 'add-bundle':
      draft.bundles.push(copyOf(command.bundle));
      return;
    case 'set-bundle': {
      const { number, ports, mode, timeout, minLinks, maxActive, hash, edge, vlans } = command;
      const bundle = findBundle(draft, command.bundle);
      assign(bundle, { number, ports, mode, timeout, minLinks, maxActive, hash, edge, vlans });
      setOrClear(bundle, 'name', command.name);
      setOrClear(bundle, 'key', command.key);
      return;
    }
    case 'remove-bundle':
      findBundle(draft, command.bundle);
      draft.bundles = draft.bundles.filter((bundle) => bundle.id !== command.bundle);
      return;
    case 'add-host':
      draft.hosts.push(copyOf(command.host));
      return;
    case 'set-host': {
      const { name, mac, vlan, attach } = command;
      const host = findHost(draft, command.host);
      assign(host, { name, mac, vlan, attach });
      if (command.bundle === null) delete host.bundle;
      else if (command.bundle) assign(host, { bundle: command.bundle });
      return;
    }
    case 'remove-host':
      findHost(draft, command.host);
      draft.hosts = draft.hosts.filter((host) => host.id !== command.host);
      return;
    case 'add-vlan':
      draft.vlans.push(copyOf(command.vlan));
      draft.vlans.sort((a, b) => a.id - b.id);
      return;
    case 'set-vlan': {
      const vlan = findVlan(draft, command.vlan);
      setOrClear(vlan, 'name', command.name);
      setOrClear(vlan, 'load', command.load);
      return;
    }
    case 'add-region':
      draft.regions.push(copyOf(command.region));
      return;
    case 'set-region': {
      const { name, revision, instances } = command;
      assign(findRegion(draft, command.region), { name, revision, instances });
      forgetInstances(draft);
      return;
    }
    case 'map-vlans':
      mapVlans(findRegion(draft, command.region), command.vlans, command.instance);
      return;
    case 'remove-instance': {
      const region = findRegion(draft, command.region);
      find(
        region.instances.find(({ id }) => id === command.instance),
        `instance ${command.instance} of ${command.region}`,
      );
      region.instances = region.instances.filter(({ id }) => id !== command.instance);
      forgetInstances(draft);
      return;
    }
    case 'remove-region':
      findRegion(draft, command.region);
      draft.regions = draft.regions.filter(({ id }) => id !== command.region);
      for (const sw of draft.switches) if (sw.region === command.region) delete sw.region;
      forgetInstances(draft);
      return;
    case 'remove-vlan':
      removeVlan(draft, command.vlan);
      return;
    case 'set-observed':
      if (!same(draft.observed, command.observed)) draft.observed = copyOf(command.observed);
      return;
    case 'keep-worksheet':
      draft.worksheets.push(copyOf(command.worksheet));
      if (draft.worksheets.length > LIMITS.worksheets) draft.worksheets.shift();
      return;
    case 'keep-scenario': {
      const place = draft.scenarios.findIndex((each) => each.id === command.scenario.id);
      draft.scenarios.splice(place < 0 ? draft.scenarios.length : place, place < 0 ? 0 : 1, copyOf(command.scenario));
      return;
    }
    case 'forget-scenario': {
      const place = draft.scenarios.findIndex((each) => each.id === command.scenario);
      if (place < 0) throw new Missing(`scenario ${command.scenario}`);
      draft.scenarios.splice(place, 1);
      return;
    }
    case 'forget-worksheets':
      if (draft.worksheets.length > 0) draft.worksheets = [];
  }
}

/** A value of its own: what a command brings is changed by later commands of the same step, and the command must not be. */
const copyOf = <T>(value: T): T => (typeof value === 'object' ? (JSON.parse(JSON.stringify(value)) as T) : value);

/** Sets what the command names and leaves the rest. */
function assign<T extends object>(target: T, values: Partial<T>): void {
  for (const [key, value] of Object.entries(values)) {
    if (value !== undefined && !same(target[key as keyof T], value))
      target[key as keyof T] = copyOf(value) as T[keyof T];
  }
}

/** Sets a value, takes it away for null, leaves it for undefined. */
function setOrClear<T extends object, K extends keyof T>(target: T, key: K, value: T[K] | null | undefined): void {
  if (value === null) delete target[key];
  else if (value !== undefined && target[key] !== value) target[key] = value;
}

const same = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b));

function setOnPort(
  port: Pick<Draft<Design>['switches'][0]['ports'][0], 'cost' | 'priority' | 'trees'>,
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
  else assign(port.trees, { [tree]: set });
}

/** A switch leaves with its cables and bundles; hosts that hung on it stay, unplugged. */
function removeSwitch(draft: Draft<Design>, id: SwitchId): void {
  findSwitch(draft, id);
  draft.switches = draft.switches.filter((sw) => sw.id !== id);
  draft.links = draft.links.filter((link) => link.a.switch !== id && link.b.switch !== id);
  draft.bundles = draft.bundles.filter((bundle) => bundle.switch !== id);
  for (const host of draft.hosts)
    if (host.attach.some((at) => at.switch === id)) host.attach = host.attach.filter((at) => at.switch !== id);
}

/** A port leaves with its cable, its place in a bundle, and the plug of a host. */
function removePort(draft: Draft<Design>, sw: SwitchId, id: PortId): void {
  findPort(draft, sw, id);
  const here = (at: { switch: string; port: string }) => at.switch === sw && at.port === id;
  const owner = findSwitch(draft, sw);
  owner.ports = owner.ports.filter((port) => port.id !== id);
  draft.links = draft.links.filter((link) => !here(link.a) && !here(link.b));
  for (const bundle of draft.bundles)
    if (bundle.switch === sw && bundle.ports.includes(id)) bundle.ports = bundle.ports.filter((port) => port !== id);
  if (draft.bundles.some((bundle) => bundle.ports.length === 0))
    draft.bundles = draft.bundles.filter((bundle) => bundle.ports.length > 0);
  for (const host of draft.hosts) if (host.attach.some(here)) host.attach = host.attach.filter((at) => !here(at));
}

function removeVlan(draft: Draft<Design>, id: number): void {
  findVlan(draft, id);
  const tree = vlanTree(id);
  draft.vlans = draft.vlans.filter((vlan) => vlan.id !== id);
  for (const item of [...draft.switches.flatMap((sw) => [sw, ...sw.ports]), ...draft.bundles])
    if (item.trees[tree]) delete item.trees[tree];
}

/** Moves VLANs to an instance, 0 being the IST; instances that lose their last VLAN stay. */
function mapVlans(region: Draft<Design>['regions'][0], text: string, mstid: number): void {
  const moved = vlanSet(text);
  for (const instance of region.instances) {
    const own = vlanSet(instance.vlans);
    const left = instance.id === mstid ? own.union(moved) : own.intersect(own.differenceBothWays(moved));
    assign(instance, { vlans: left.format() });
  }
  if (mstid === 0 || region.instances.some(({ id }) => id === mstid)) return;
  region.instances.push({ id: mstid, vlans: moved.format() });
  region.instances.sort((a, b) => a.id - b.id);
}

/** What was set for instances that no region has any more goes with them. */
function forgetInstances(draft: Draft<Design>): void {
  const kept = new Set(draft.regions.flatMap((region) => region.instances.map(({ id }) => id)));
  for (const { trees } of [...draft.switches.flatMap((sw) => [sw, ...sw.ports]), ...draft.bundles]) {
    for (const tree of Object.keys(trees) as TreeId[])
      if ((treeInstance(tree) ?? 0) > 0 && !kept.has(treeInstance(tree)!)) delete trees[tree];
  }
}

/** The change that makes one design another, as an edit: whole parts of the document are replaced where they differ. */
export function replaceDesign(design: Design, by: Design): Edited {
  const keys = (Object.keys(by) as (keyof Design)[]).filter((key) => !same(design[key], by[key]));
  const patch = (value: Design): Patch[] => keys.map((key) => ({ op: 'replace', path: [key], value: value[key] }));
  return { design: keys.length === 0 ? design : by, patches: patch(by), inverse: patch(design) };
}

/** Follows patches that `edit` gave, in either direction. */
export const applyChange = (design: Design, patches: readonly Patch[]): Design =>
  applyPatches(design, patches as Patch[]);
