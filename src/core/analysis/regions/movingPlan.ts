/** Moving a running network to MSTP: the order of the switches, and what each step does to regions and trees. */
import { isMultiple, runsTrees } from '../../model/document';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import type { LinkId, RegionId, SwitchId } from '../../model/ids';
import type { Design, RegionSettings } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';
import { islandRoots } from '../../tree/explain/election';
import { bridgePortOf, type Network } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import { type Solution, forwards } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { joining, keepingTrees, mainRegion } from './asDialect';
import { proposeGroupings } from './grouping';
import type { Plan, PlanStep } from '../plans/plan';
import { regionsIn } from './regions';
import type { Progress } from '../steering/steer';

/** From the root outwards or toward it, with every cable in; or outwards with the redundant cables out meanwhile. */
export type MovingKind = 'tree' | 'outwards' | 'inwards';

/** One switch that begins to speak MSTP, or cables unplugged or plugged in. */
export interface MovingStep extends PlanStep {
  /** What regions there are then. */
  readonly regions: string;
}

/** Region settings, priorities and costs of instances come first: they do nothing before a switch speaks MSTP. */
export type MovingPlan = Plan<MovingStep>;

type Joining = Extract<Command, { do: 'set-switch' }> & { readonly region: RegionId };
const isJoining = (command: Command): command is Joining =>
  command.do === 'set-switch' && typeof command.region === 'string';

/**
 * Plans what commands do that make bridges speak MSTP. Between bridges of a region and bridges with a tree for each VLAN,
 * frames can circle until all has settled; on cables that form a tree they cannot.
 */
export function planMoving(
  before: Solution,
  commands: readonly Command[],
  kind: MovingKind,
  progress: Progress = () => true,
): Result<MovingPlan, string> {
  const { design } = before.network;
  const joins = commands
    .filter(isJoining)
    .filter(({ switch: id, region }) =>
      design.switches.some((sw) => sw.id === id && sw.up && (!isMultiple(sw) || sw.region !== region)),
    );
  if (joins.length === 0) return fail('Every switch is in the region already: there is nothing to move.');
  const preparation = commands.filter((command) => !isJoining(command));
  const prepared = editAll(design, preparation);
  if (!prepared.ok) return fail(`${prepared.error.path}: ${prepared.error.found}; allowed: ${prepared.error.allowed}`);
  const goal = editAll(design, commands);
  const target = goal.ok ? solve(goal.value.design) : null;
  if (!target) return fail('The plan does not fit the design.');
  const order = kind === 'inwards' ? outwards(target, joins).reverse() : outwards(target, joins);
  const joined = design.switches.some(
    (sw) => sw.up && isMultiple(sw) && order.some((join) => join.region === sw.region),
  );
  const spare = kind === 'tree' ? spareLinks(target) : [];
  const steps: MovingStep[] = [];
  let at: Design = prepared.value.design;
  const step = (where: SwitchId | null, text: string, why: string, changes: readonly Command[]): boolean => {
    const edited = editAll(at, changes);
    const next = edited.ok ? solve(edited.value.design) : null;
    if (!edited.ok || !next || !progress(steps.length / (order.length + 2))) return false;
    at = edited.value.design;
    steps.push({
      key: String(steps.length),
      switch: where,
      does: [text],
      why,
      changes,
      regions: regionsText(next.network),
    });
    return true;
  };
  const cables = (up: boolean): Command[] => spare.map((link) => ({ do: 'set-link', link, up }));
  const names = cableNames(before.network, spare);
  const done = [
    spare.length === 0 ||
      step(
        null,
        `Unplug ${names}, or shut their ports.`,
        'What is left is a tree: while bridges that understand each other only in part run side by side, nothing can circle.',
        cables(false),
      ),
    ...order.map((join, i) =>
      step(
        join.switch,
        `${switchName(design.switches.find((sw) => sw.id === join.switch)!)}: MSTP, with the settings of region ${regionName(at.regions, join.region)}.`,
        reason(kind, i, order.length, joined),
        [{ do: 'set-switch', switch: join.switch, dialect: 'mstp', region: join.region }],
      ),
    ),
    spare.length === 0 ||
      step(
        null,
        `Plug ${spare.length === 1 ? 'it' : 'them'} in again.`,
        'All run MSTP: the instances take their ways.',
        cables(true),
      ),
  ];
  if (done.includes(false)) return fail('The plan does not fit the design.');
  return ok({ preparation, steps });
}

const regionName = (regions: readonly RegionSettings[], id: RegionId): string =>
  regions.find((region) => region.id === id)?.name || id;

/** Why a switch moves when it does; `joined`: some are in the region already. */
function reason(kind: MovingKind, step: number, of: number, joined: boolean): string {
  const inwards = kind === 'inwards' && !joined;
  if (step === of - 1)
    return `${inwards ? 'The root last' : 'The last one'}: no boundary is left, and every VLAN goes with its instance.`;
  if (inwards) return 'From the rim inwards: it is a region by itself until its neighbour follows.';
  return step === 0 && !joined
    ? 'The root first: the region begins where the common tree does, and those outside keep their ways.'
    : 'It hangs on the region, and the boundary moves outwards by one switch.';
}

/** Links with signal that the common tree leaves idle. */
function spareLinks({ network, trees: [common] }: Solution): LinkId[] {
  const { design, portIndexOf, macOperational: light } = network;
  return design.links.flatMap(({ id, a, b }) => {
    const ends = [a, b].map((end) => portIndexOf(end.switch, end.port));
    return ends.every((p) => light[p]) && !ends.every((p) => common && forwards(common, bridgePortOf(network, p)))
      ? [id]
      : [];
  });
}

/** `the cable lodge port 2 to ridge-b port 7`, `these 3 cables: …`. */
function cableNames({ design }: Network, ids: readonly LinkId[]): string {
  const nameOf = (id: SwitchId): string => switchName(design.switches.find((sw) => sw.id === id)!);
  const names = ids.flatMap((id) =>
    design.links
      .filter((link) => link.id === id)
      .map(({ a, b }) => `${nameOf(a.switch)} port ${a.port} to ${nameOf(b.switch)} port ${b.port}`),
  );
  return names.length === 1
    ? `the cable ${names[0]}`
    : `these ${names.length} cables: ${names.slice(0, 12).join(', ')}${names.length > 12 ? ` and ${names.length - 12} more` : ''}`;
}

/** Switches from the root of the common tree outwards: each hangs on one before it, where there is one. */
const outwards = (solution: Solution, joins: readonly Joining[]): Joining[] => {
  const place = new Map(
    outwardsFrom(
      solution,
      joins.map((join) => join.switch),
    ).map((id, i) => [id, i]),
  );
  return [...joins].sort((a, b) => place.get(a.switch)! - place.get(b.switch)!);
};

/** The same of any switches. */
export function outwardsFrom({ network, trees }: Solution, ids: readonly SwitchId[]): SwitchId[] {
  const { switches, switchIndex, owner, far, live, firstPort } = network;
  const root = trees[0] ? (islandRoots(network, trees[0])[0] ?? 0) : 0;
  const distance = new Map<number, number>([[root, 0]]);
  for (const s of distance.keys()) {
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (live[p] && far[p]! >= 0 && !distance.has(owner[far[p]!]!))
        distance.set(owner[far[p]!]!, distance.get(s)! + 1);
  }
  const strength = { core: 0, distribution: 1, access: 2 } as const;
  const at = (id: SwitchId): number => switchIndex.get(id)!;
  const rank = (id: SwitchId): [number, number] => [distance.get(at(id)) ?? Infinity, strength[switches[at(id)]!.tier]];
  return [...ids].sort((a, b) => rank(a)[0] - rank(b)[0] || rank(a)[1] - rank(b)[1] || at(a) - at(b));
}

/** `VALLEY: 3 switches; 5 outside of any region`. */
function regionsText(network: Network): string {
  const regions = regionsIn(network);
  const outside = network.switches.filter((sw) => sw.up && runsTrees(sw) && !isMultiple(sw)).length;
  const parts = regions.map(
    ({ map, switches, pieces }) =>
      `${map.configurationId.name}: ${switches.length} ${switches.length === 1 ? 'switch' : 'switches'}${pieces.length > 1 ? ` in ${pieces.length} pieces` : ''}`,
  );
  return [
    ...parts.slice(0, 3),
    ...(parts.length > 3 ? [`${parts.length - 3} regions more`] : []),
    ...(outside > 0 ? [`${outside} outside`] : ['nobody outside']),
  ].join('; ');
}

/** Where one may move. */
export interface MovingGoal {
  readonly key: string;
  readonly name: string;
  readonly commands: readonly Command[];
}

/** Into the region that there is; where there is none, to the best groupings, or with the trees kept. The error says that all are there. */
export function movingGoals(solution: Solution, progress: Progress = () => true): Result<MovingGoal[], string> {
  const { design } = solution.network;
  if (design.switches.every((sw) => !sw.up || !runsTrees(sw)))
    return fail('No switch here runs spanning tree: there is nothing to move.');
  const region = mainRegion(design);
  const outside = design.switches
    .filter((sw) => sw.up && runsTrees(sw) && (!isMultiple(sw) || sw.region !== region?.id))
    .map((sw) => sw.id);
  if (outside.length === 0)
    return fail('Every switch that runs spanning tree is in one region already: there is nothing to move.');
  if (region)
    return ok([
      {
        key: 'join',
        name: `everybody into ${region.name || region.id}`,
        commands: joining(design, region.id, outside),
      },
    ]);
  const proposed = proposeGroupings(solution, progress);
  const kept = keepingTrees(design);
  const goals = [
    ...(proposed.ok
      ? proposed.value
          .slice(0, 3)
          .map((each, i): MovingGoal => ({ key: `proposal ${i}`, name: each.sentence, commands: each.commands }))
      : []),
    {
      key: 'keep',
      name: kept.instances.length === 0 ? 'every VLAN in the IST' : 'the trees as they are',
      commands: kept.commands,
    },
  ];
  return ok(
    goals.filter(
      (goal, i) => goals.findIndex((other) => JSON.stringify(other.commands) === JSON.stringify(goal.commands)) === i,
    ),
  );
}
