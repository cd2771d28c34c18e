/** What each step of a plan does: once all has settled, and, run by the protocols, until then. */
import { ok, type Result } from '../../base/result';
import { settingDifferences } from '../../model/derive/compare';
import { namesOf } from '../../model/derive/names';
import { portSchema, type Design, type Link } from '../../model/document';
import type { HostId, SwitchId, TreeId } from '../../model/ids';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import { solve } from '../../tree/solve';
import { intentText, judged } from '../intents/intents';
import { Settled } from '../intents/settled';
import { statesOf, type Plan } from './plan';
import { runStep, type StepRun } from './stepRun';

/** What a step does, once all has settled. */
export interface StepEffect {
  /** Ports whose role changes. */
  readonly ends: number;
  /** The first of them: what can be looked at before and after. */
  readonly moves: readonly MovedEnd[];
  /** Trees with another root than before the step. */
  readonly roots: readonly { readonly tree: TreeId; readonly was: SwitchId | null; readonly root: SwitchId | null }[];
  /** Hosts cut off from some that they reach both before and after the whole change. */
  readonly cutOff: readonly HostId[];
  /** Intents on the network as it is that must hold, do before and after the whole change, and do not now: in words. */
  readonly broken: readonly string[];
}

export interface JudgedStep extends StepEffect {
  /** What takes it back, a sentence for each setting. */
  readonly back: readonly string[];
  /** What happens meanwhile; or why that was not run. */
  readonly run: Result<StepRun, string>;
}

/** Moved ends that are named. */
const NAMED = 3;
/** Outages that are worth a hold, seconds. */
const LONG = 1;

/** Whether one better looks before one goes on: who is root has changed, somebody is or was cut off for long, frames circled. */
export const isToBeHeld = ({ roots, cutOff, broken, run }: JudgedStep): boolean =>
  roots.length > 0 ||
  cutOff.length > 0 ||
  broken.length > 0 ||
  !run.ok ||
  run.value.frames !== null ||
  (run.value.worst !== null && (run.value.worst.lasting || run.value.worst.longest > LONG));

export interface JudgedPlan {
  /** How many intents are watched on the way. */
  readonly watched: number;
  /** By step. */
  readonly steps: readonly JudgedStep[];
}

/** What is to be kept on the way: pairs of hosts that reach each other at both ends, musts that hold at both. */
export interface Goal {
  readonly pairs: readonly (readonly [HostId, HostId])[];
  readonly musts: Design['intents'];
}

/** Judges the steps of a plan; the error is a sentence. `progress` is told how far it is, 0 to 1. */
export function judgePlan(
  design: Design,
  plan: Plan,
  progress: (share: number) => void = () => undefined,
): Result<JudgedPlan, string> {
  const states = statesOf(design, plan);
  if (!states.ok) return states;
  const [start, ...after] = states.value as [Design, ...Design[]];
  let at = new Settled(solve(start));
  const goal = watching(at, new Settled(solve(after.at(-1) ?? start)));
  const counts = countedIn(goal);
  return ok({
    watched: goal.musts.length,
    steps: after.map((to, i): JudgedStep => {
      progress(i / after.length);
      const from = at;
      const before = from.network.design;
      at = new Settled(solve(to));
      return { ...effectOf(from, at, goal), back: sentences(to, before), run: runStep(before, to, counts) };
    }),
  });
}

/** What holds at both ends, and so is to hold on the way. */
export function watching(before: Settled, after: Settled): Goal {
  const reaches = (of: Settled): Set<string> => new Set(pairsIn(of).map((pair) => pair.join(' ')));
  const later = reaches(after);
  const { intents } = after.network.design;
  const holds = (of: Settled): Set<string> =>
    new Set([...judged(of, intents)].flatMap(([id, { is }]) => (is === 'holds' ? [id] : [])));
  const [first, last] = [holds(before), holds(after)];
  return {
    pairs: pairsIn(before).filter((pair) => later.has(pair.join(' '))),
    musts: intents.filter(({ id, severity }) => severity === 'must' && first.has(id) && last.has(id)),
  };
}

/** Whether a pair of hosts is one of those. */
export function countedIn({ pairs }: Goal): (a: HostId, b: HostId) => boolean {
  const counted = new Set(pairs.map((pair) => pair.join(' ')));
  return (a, b) => counted.has(`${a} ${b}`);
}

function pairsIn(of: Settled): (readonly [HostId, HostId])[] {
  const { hosts } = of.network.design;
  return hosts.flatMap((host) => {
    const ways = of.ways(host.vlan, of.switchesAt(host));
    return hosts
      .filter(
        (other) => other.id !== host.id && other.vlan === host.vlan && of.switchesAt(other).some((s) => ways[s]! >= 0),
      )
      .map((other) => [host.id, other.id] as const);
  });
}

export function effectOf(from: Settled, to: Settled, { pairs, musts }: Goal): StepEffect {
  const reached = new Set(pairsIn(to).map((pair) => pair.join(' ')));
  const verdicts = judged(to, musts);
  const moved = movedEnds(from.solution, to.solution).filter(({ before: was, after: is }) => isPart(was) && isPart(is));
  const before = new Map(from.solution.trees.map((tree) => [tree.id, tree]));
  return {
    ends: moved.length,
    moves: moved.slice(0, NAMED),
    roots: to.newRoots(from).map(({ tree, root }) => ({ tree, was: from.rootIdOf(before.get(tree)!), root })),
    cutOff: [...new Set(pairs.filter((pair) => !reached.has(pair.join(' '))).map(([host]) => host))],
    broken: musts
      .filter(({ id }) => verdicts.get(id)!.is !== 'holds')
      .map((intent) => intentText(to.network.design, intent)),
  };
}

/** Ports that come, go or lose their signal are no ports that change their role. */
const isPart = (role: string | null): boolean => role !== null && role !== 'disabled';

/** Sentences on what leads from one state to the next: cables first, then settings. */
export function sentences(from: Design, to: Design): string[] {
  const fresh = new Set<string>();
  const differences = settingDifferences(withNewPorts(from, to, fresh), { ...to, links: from.links });
  return [
    ...cableSentences(from, to),
    ...[...fresh].map((end) => `${end}: new.`),
    ...differences.map(({ on, setting, before, after }) =>
      before === null
        ? `${on}: ${setting}, ${after}`
        : after === null
          ? `${on}: ${setting}`
          : `${on}: ${setting} ${before} to ${after}`,
    ),
  ];
}

function cableSentences(from: Design, to: Design): string[] {
  const [was, is] = [from, to].map((design) => new Map(design.links.map((link) => [link.id, link])));
  const named = (design: Design, { id }: Link): string => namesOf(design).link(id);
  return [...new Set([...was!.keys(), ...is!.keys()])].flatMap((id) => {
    const [a, b] = [was!.get(id), is!.get(id)];
    if (JSON.stringify(a) === JSON.stringify(b)) return [];
    if (!b?.up) return a?.up ? [`Unplug ${named(from, a)}.`] : [];
    return [a?.up ? `Plug ${named(from, a)} over to ${named(to, b)}.` : `Plug in ${named(to, b)}.`];
  });
}

/** A state with the ports that its switches get, as they come: what is set there beside is told. */
function withNewPorts(from: Design, to: Design, fresh: Set<string>): Design {
  const names = namesOf(to);
  return {
    ...from,
    switches: from.switches.map((was) => {
      const is = to.switches.find((sw) => sw.id === was.id);
      if (!is || is.ports.every((port) => was.ports.some(({ id }) => id === port.id))) return was;
      const ports = is.ports.map((port) => {
        const known = was.ports.find((each) => each.id === port.id);
        if (!known) fresh.add(names.end({ switch: was.id, port: port.id }));
        return known ?? portSchema.parse({ id: port.id, number: port.number });
      });
      const gone = was.ports.filter((port) => !is.ports.some((each) => each.id === port.id));
      return { ...was, ports: [...ports, ...gone] };
    }),
  };
}
