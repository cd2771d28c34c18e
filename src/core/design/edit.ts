/** Edits are pure: a design and a command give a new design and the patches that lead there and back. */
import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import { fail, ok, type Result } from '../result';
import type { Command } from './commands';
import type { LinkId, PortId, SwitchId, TreeId } from './ids';
import { BRIDGE_PRIORITY, PORT_PRIORITY } from './legal';
import type { DesignProblem } from './problem';
import { referenceProblems } from './references';
import type { Design } from './schema';

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
export function edit(design: Design, command: Command): Result<Edited, DesignProblem> {
  try {
    const [next, patches, inverse] = produceWithPatches(design, (draft) => {
      apply(draft, command);
    });
    const [broken] = next !== design && MAY_BREAK.has(command.do) ? referenceProblems(next) : [];
    return broken ? fail(broken) : ok({ design: next, patches, inverse });
  } catch (error) {
    if (error instanceof Missing) return fail({ path: error.what, found: 'nothing', allowed: 'something this design has' });
    throw error;
  }
}

/** Commands whose own check does not guarantee a legal document: they bring references, identifiers or costs along. */
const MAY_BREAK: ReadonlySet<Command['do']> = new Set(['set-cost-method', 'set-port-cost', 'add-switch', 'add-port', 'add-link']);

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

const findSwitch = (draft: Draft<Design>, id: SwitchId) => find(draft.switches.find((sw) => sw.id === id), `switch ${id}`);
const findPort = (draft: Draft<Design>, sw: SwitchId, id: PortId) =>
  find(findSwitch(draft, sw).ports.find((port) => port.id === id), `port ${id} of ${sw}`);
const findLink = (draft: Draft<Design>, id: LinkId) => find(draft.links.find((link) => link.id === id), `link ${id}`);

function apply(draft: Draft<Design>, command: Command): void {
  switch (command.do) {
    case 'rename-design':
      draft.name = command.name;
      return;
    case 'set-cost-method':
      draft.pathCost = command.method;
      return;
    case 'set-switch': {
      const { name, tier, dialect, mac, timers } = command;
      assign(findSwitch(draft, command.switch), { name, tier, dialect, mac, timers });
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
      const { speed, up, edge, vlans } = command;
      assign(findPort(draft, command.switch, command.port), { speed, up, edge, vlans });
      return;
    }
    case 'set-port-cost':
      setOnPort(findPort(draft, command.switch, command.port), command.tree, 'cost', command.cost);
      return;
    case 'set-port-priority':
      setOnPort(findPort(draft, command.switch, command.port), command.tree, 'priority', command.priority);
      return;
    case 'set-link': {
      const link = findLink(draft, command.link);
      assign(link, { up: command.up });
      for (const end of [link.a, link.b]) assign(findPort(draft, end.switch, end.port), { speed: command.speed });
      return;
    }
    case 'move-switches':
      for (const { switch: id, position } of command.to) assign(findSwitch(draft, id), { position });
      return;
    case 'add-switch':
      draft.switches.push(command.switch);
      return;
    case 'add-port':
      findSwitch(draft, command.switch).ports.push(command.port);
      return;
    case 'add-link':
      draft.links.push(command.link);
      return;
    case 'remove-switch':
      removeSwitch(draft, command.switch);
      return;
    case 'remove-link':
      findLink(draft, command.link);
      draft.links = draft.links.filter((link) => link.id !== command.link);
      return;
    case 'set-host':
      assign(find(draft.hosts.find((host) => host.id === command.host), `host ${command.host}`), { name: command.name });
  }
}

/** Sets what the command names and leaves the rest. */
function assign<T extends object>(target: T, values: Partial<T>): void {
  for (const [key, value] of Object.entries(values)) {
    if (value !== undefined && !same(target[key as keyof T], value)) target[key as keyof T] = value as T[keyof T];
  }
}

const same = (a: unknown, b: unknown): boolean => a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b));

function setOnPort(port: Draft<Design>['switches'][0]['ports'][0], tree: TreeId | null, key: 'cost' | 'priority', value: number | null): void {
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
  for (const host of draft.hosts) host.attach = host.attach.filter((at) => at.switch !== id);
}

/** Applies several commands as one step; all of them or none. */
export function editAll(design: Design, commands: readonly Command[]): Result<Edited, DesignProblem> {
  let step: Edited = { design, patches: [], inverse: [] };
  for (const command of commands) {
    const next = edit(step.design, command);
    if (!next.ok) return next;
    step = { design: next.value.design, patches: [...step.patches, ...next.value.patches], inverse: [...next.value.inverse, ...step.inverse] };
  }
  return ok(step);
}

/** Follows patches that `edit` gave, in either direction. */
export const applyChange = (design: Design, patches: readonly Patch[]): Design => applyPatches(design, patches as Patch[]);
