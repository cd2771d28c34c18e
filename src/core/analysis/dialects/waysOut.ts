/**
 * Ways out of a network in which bridges with a tree for each VLAN and bridges with one tree for all share a loop: what each takes,
 * step by step, and what the network is then.
 */
import { fail, ok, type Result } from '../../base/result';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { stackTogether } from '../../edit/stacking';
import { isPerVlan, runsTrees, traitsOf, type Design, type Dialect } from '../../model/document';
import type { LinkId, SwitchId } from '../../model/ids';
import { DEFAULT_TALK } from '../../model/scenario';
import { simulate } from '../../sim/simulate';
import { isBundle, type Network } from '../../topology/network';
import { label, switchName } from '../../tree/explain/phrases';
import type { Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { openLoopFindings, returningBpduFindings } from '../findings/dialectFindings';
import { bundleAt, bundleThese, parallelsOf } from '../lag/bundling';
import { closingPorts, lonelyCables, partsOf } from '../parts';
import { keepingTrees } from '../regions/asDialect';
import { outcomesOf, type StepOutcome } from '../plans/outcome';
import type { Plan } from '../plans/plan';
import { playOf, type PlayedPlan } from '../plans/played';
import { outwardsFrom, planMoving, type MovingKind } from '../regions/movingPlan';
import type { Progress } from '../steering/steer';
import { paired } from './pairedWay';
import type { Draft } from './wayDraft';

export interface WayOut extends Plan {
  readonly key: string;
  readonly name: string;
  /** What it comes to, in a sentence. */
  readonly says: string;
  /** Whether a run shows it: switches that are rebuilt are in none. */
  readonly isRun: boolean;
  readonly costs: WayCosts;
}

export interface WayCosts {
  /** Settings that are touched, and at how many switches. */
  readonly settings: number;
  readonly switches: number;
  /** Cables that are unplugged; each is one of the settings. */
  readonly cables: number;
  /** Trees in the end. */
  readonly trees: number;
  /** Cables of which no other takes the place when they are lost: now, and in the end. */
  readonly alone: readonly [now: number, then: number];
  /** Ports at which a bridge blocks since its own BPDUs come back, and loops that no tree sees: in the end. */
  readonly returning: number;
  readonly open: number;
  /** Of all steps together, simulated: the longest outage, the pairs of hosts cut off, and whether frames circle; null where switches are rebuilt, which no run shows. */
  readonly simulated: StepOutcome | null;
}

/** Switches that have one tree for all, where others have one for each VLAN; empty where all agree. */
export function strangersIn({ switches }: Pick<Design, 'switches'>): SwitchId[] {
  const running = switches.filter((sw) => sw.up && runsTrees(sw));
  const strangers = running.filter((sw) => !isPerVlan(sw));
  return strangers.length === running.length ? [] : strangers.map(({ id }) => id);
}

/** All ways, each solved and simulated; the error says that there is nothing to get out of. */
export function waysOut(before: Solution, progress: Progress = () => true): Result<WayOut[], string> {
  const { design } = before.network;
  const strangers = strangersIn(design);
  if (strangers.length === 0)
    return fail(
      'All switches that run spanning tree agree on trees for VLANs or on one for all: there is nothing to get out of.',
    );
  const drafts = [
    speakThere(before, strangers),
    unplugged(before, strangers),
    stacked(before, strangers),
    paired(design, strangers),
    ...ORDERS.map((order) => changed(before, strangers, 'per-vlan-rstp', order)),
    ...ORDERS.map((order) => changed(before, othersThan(design, 'rstp'), 'rstp', order)),
  ].filter((draft) => draft.steps.length > 0);
  const ways: WayOut[] = [];
  const add = (way: WayOut | null): boolean => {
    if (way) ways.push(way);
    return progress(ways.length / (drafts.length + ORDERS.length));
  };
  for (const draft of drafts) if (!add(finished(before, draft))) return ok(ways);
  for (const order of ORDERS) if (!add(toRegion(before, order))) break;
  return ok(ways);
}

/** Core first, or closet by closet. */
const ORDERS = ['outwards', 'inwards'] as const satisfies readonly MovingKind[];
const ORDER_TEXT = { outwards: 'from the root outwards', inwards: 'from the rim inwards' } as const;
type Order = (typeof ORDERS)[number];

const othersThan = ({ switches }: Design, dialect: Dialect): SwitchId[] =>
  switches.filter((sw) => sw.up && runsTrees(sw) && sw.dialect !== dialect).map(({ id }) => id);

/** Ports of switches with one tree for all, toward others, have trees of VLANs. */
function speakThere(before: Solution, strangers: readonly SwitchId[]): Draft {
  const { network } = before;
  const { firstPort, far, live, ports, switchIndex, design } = network;
  return {
    key: 'speak',
    name: `trees of VLANs at the cables of ${namesOf(design, strangers)}`,
    says: 'They keep their one tree, and take part in the others at their cables: no BPDU of a VLAN rides through them any more.',
    steps: outwardsFrom(before, strangers).flatMap((id) => {
      const s = switchIndex.get(id)!;
      const own = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i)
        .filter((p) => far[p]! >= 0 && live[p] && ports[p]!.speaks === undefined)
        .map((p) => ports[p]!.id);
      if (own.length === 0) return [];
      const name = nameOf(design, id);
      return [
        {
          switch: id,
          does: [`${name}: trees of VLANs at ${own.length === 1 ? 'port' : 'ports'} ${own.join(', ')}.`],
          why: 'Where it has part in a VLAN’s tree, it reads that BPDU instead of passing it on.',
          changes: own.map((port): Command => ({ do: 'set-port', switch: id, port, speaks: 'per-vlan-rstp' })),
        },
      ];
    }),
  };
}

/** Their cables that close loops are out. */
function unplugged({ network }: Solution, strangers: readonly SwitchId[]): Draft {
  const { design, owner, far, switchIndex } = network;
  const own = new Set(strangers.map((id) => switchIndex.get(id)!));
  const touches = (p: number): boolean => own.has(owner[p]!) || own.has(owner[far[p]!]!);
  // Cables of the others come first: what closes a loop then is one of a stranger.
  const closing = closingPorts(network, () => true, touches).filter(touches);
  return {
    key: 'unplug',
    name: `redundant cables of ${namesOf(design, strangers)} unplugged`,
    says: 'What is left is a tree: nothing can circle, and nothing stands by for a cable that is lost. For as long as it lasts.',
    steps: closing.map((p) => {
      const cables = cablesOf(network, p);
      return {
        switch: null,
        does: [
          `Unplug ${cables.length === 1 ? 'the cable' : `all ${cables.length} cables of the bundle`} ${label(network, p)} to ${label(network, far[p]!)}.`,
        ],
        why: 'It closes a loop through a switch that does not see the trees of VLANs.',
        changes: cables.map((link): Command => ({ do: 'set-link', link, up: false })),
      };
    }),
  };
}

/** The cables of a bridge port. */
function cablesOf(network: Network, p: number): LinkId[] {
  const members = isBundle(network, p) ? network.aggregates.get(p)!.aggregationPorts : [p];
  return members.flatMap((q) => (network.cable[q]! >= 0 ? [network.design.links[network.cable[q]!]!.id] : []));
}

/** Those that hang together become a stack, and its cables to each neighbour a bundle. */
function stacked({ network }: Solution, strangers: readonly SwitchId[]): Draft {
  const { design, owner, far, switchIndex, switches } = network;
  const own = new Set(strangers.map((id) => switchIndex.get(id)!));
  const parts = partsOf(network, (p) => own.has(owner[p]!) && far[p]! >= 0 && own.has(owner[far[p]!]!));
  const groups = new Map<string, SwitchId[]>();
  for (const s of own) {
    const key = `${parts[s]!} ${switches[s]!.dialect}`;
    groups.set(key, [...(groups.get(key) ?? []), switches[s]!.id]);
  }
  const steps: Draft['steps'][number][] = [];
  let at = design;
  const step = (id: SwitchId, text: string, why: string, changes: readonly Command[]): boolean => {
    const edited = editAll(at, changes);
    if (!edited.ok) return false;
    at = edited.value.design;
    steps.push({ switch: id, does: [text], why, changes });
    return true;
  };
  for (const ids of groups.values()) {
    const commands = stackTogether(at, ids);
    const [lead] = ids as [SwitchId];
    if (!commands.ok || ids.length < 2) continue;
    const names = ids.map((id) => nameOf(design, id));
    const done = step(
      lead,
      `Cable ${names.slice(0, -1).join(', ')} and ${names.at(-1)!} into one stack.`,
      'They are one switch then, and need no cable of the network between them. They are off meanwhile.',
      commands.value,
    );
    if (!done) continue;
    for (const { a, b, links } of parallelsOf(at)) {
      const free = links.filter((link) => [link.a, link.b].every((end) => !bundleAt(at, end.switch, end.port)));
      const bundling =
        [a, b].includes(lead) && free.length > 1
          ? bundleThese(
              at,
              free.map(({ id }) => id),
            )
          : null;
      if (bundling?.ok)
        step(
          lead,
          `Bundle the ${free.length} cables ${nameOf(at, a)} to ${nameOf(at, b)} at both ends.`,
          'A bundle is one port: no BPDU leaves by one of its cables and comes back by the other.',
          bundling.value.commands,
        );
    }
  }
  return {
    key: 'stack',
    name: `${namesOf(design, strangers)} made into ${groups.size === 1 ? 'a stack' : 'stacks'}, with their uplinks bundled`,
    says: 'They keep their one tree, in which there is no loop any more; what they are made of has to be able to do it.',
    steps,
    rebuilds: true,
  };
}

/** Switches change to another mode, one after the other; nothing for one alone in the second order. */
function changed(before: Solution, ids: readonly SwitchId[], dialect: Dialect, order: Order): Draft {
  const { network } = before;
  const { name, trees } = traitsOf(dialect);
  const inwards = order === 'inwards';
  const outwards = outwardsFrom(before, ids);
  const inOrder = !inwards ? outwards : ids.length > 1 ? outwards.reverse() : [];
  return {
    key: `${dialect} ${order}`,
    name: `${name} at every switch${ids.length > 1 ? `, ${ORDER_TEXT[order]}` : ''}`,
    says:
      trees === 'vlan'
        ? 'Every VLAN has a tree of its own, which all switches see whole. All of them have to know that mode.'
        : 'One tree for all VLANs, which every switch knows: VLANs share their ways, and half of the cables may lie idle.',
    steps: inOrder.map((id) => ({
      switch: id,
      does: [`${nameOf(network.design, id)}: ${name}.`],
      why: inwards
        ? 'Nothing beyond it hangs on it.'
        : 'From the root outwards: those that have changed hang together.',
      changes: [{ do: 'set-switch', switch: id, dialect }],
    })),
  };
}

/** `stairs-a and stairs-b`, `5 switches`. */
const namesOf = (design: Design, ids: readonly SwitchId[]): string =>
  ids.length > 2 ? `${ids.length} switches` : ids.map((id) => nameOf(design, id)).join(' and ');

const nameOf = ({ switches }: Design, id: SwitchId): string => switchName(switches.find((sw) => sw.id === id)!);

/** A draft, simulated and counted. */
const finished = (before: Solution, { rebuilds, steps, preparation = [], ...draft }: Draft): WayOut | null =>
  reckoned(before, {
    ...draft,
    preparation,
    steps: steps.map((step, i) => ({ ...step, key: String(i) })),
    isRun: !rebuilds,
  });

/** Into one region, with an instance for each way in which the trees are set. */
function toRegion(before: Solution, order: Order): WayOut | null {
  const plan = planMoving(before, keepingTrees(before.network.design).commands, order);
  if (!plan.ok) return null;
  return reckoned(before, {
    key: `mstp ${order}`,
    name: `MSTP at every switch, in one region, ${ORDER_TEXT[order]}`,
    says: 'VLANs share a few trees, which every switch sees whole; each has to have the same region settings.',
    ...plan.value,
    isRun: true,
  });
}

const scenarioOf = ({ actions, until }: Pick<PlayedPlan, 'actions' | 'until'>) => ({
  actions: [...actions],
  until,
  talk: DEFAULT_TALK,
  fromBoot: false,
});

/** What a way costs; null where it does not fit the design, or cannot be run. */
function reckoned(before: Solution, way: Omit<WayOut, 'costs'>): WayOut | null {
  const { design } = before.network;
  const commands = [...way.preparation, ...way.steps.flatMap(({ changes }) => changes)];
  const edited = editAll(design, commands);
  if (!edited.ok) return null;
  const after = solve(edited.value.design);
  const play = way.isRun ? playOf(design, way) : null;
  if (play && !play.ok) return null;
  const run = play && simulate(play.value.design, scenarioOf(play.value), { mostFrames: 0, views: false });
  if (run && !run.ok) return null;
  const [simulated] = run ? outcomesOf({ times: [0], until: play.value.until }, run.value) : [];
  return {
    ...way,
    costs: {
      settings: commands.length,
      switches: new Set(
        commands.flatMap((command) =>
          'switch' in command && typeof command.switch === 'string' ? [command.switch] : [],
        ),
      ).size,
      cables: commands.filter((command) => command.do === 'set-link' && command.up === false).length,
      trees: after.trees.length,
      alone: [lonelyCables(before.network), lonelyCables(after.network)],
      returning: returningBpduFindings(after).length,
      open: openLoopFindings(after).length,
      simulated: simulated ?? null,
    },
  };
}
