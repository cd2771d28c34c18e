/** The order of steps that takes a running network from one state to another: each judged once it has settled, the least harmful next. */
import { settingDifferences } from '../../model/derive/compare';
import { namesOf } from '../../model/derive/names';
import { portSchema, type Design } from '../../model/document';
import type { HostId, PortId, SwitchId, TreeId } from '../../model/ids';
import { fail, ok, type Result } from '../../base/result';
import { movedEnds } from '../../tree/moved';
import { solve } from '../../tree/solve';
import { intentText, judged } from '../intents/intents';
import { Settled } from '../intents/settled';
import { mixed, stepKey, stepsBetween, type Step } from './mix';
import { runStep, type StepRun } from './stepRun';

/** What a step does, once all has settled. */
export interface PlannedStep {
  readonly step: Step;
  /** What is to be done, a sentence for each setting. */
  readonly does: readonly string[];
  /** And what takes it back. */
  readonly back: readonly string[];
  /** Ports whose role changes. */
  readonly ends: number;
  /** Trees with another root than before the step. */
  readonly roots: readonly { readonly tree: TreeId; readonly root: SwitchId | null }[];
  /** Hosts cut off from some that they reach both before and after the whole change. */
  readonly cutOff: readonly HostId[];
  /** Intents on the network as it is that must hold, do before and after the whole change, and do not now: in words. */
  readonly broken: readonly string[];
  /** What happens meanwhile; or why that was not run. */
  readonly run: Result<StepRun, string>;
}

/** A step before it is run. */
type JudgedStep = Omit<PlannedStep, 'run'>;

export interface ChangePlan {
  /** How many intents are watched on the way. */
  readonly watched: number;
  readonly steps: readonly PlannedStep[];
}

/** Candidates that are tried for each place in the order: those after them wait. */
const MOST_TRIED = 16;
const MOST_STEPS = 200;
/** The share of the work that is the search; the rest runs the steps. */
const SEARCHING = 0.6;

interface State {
  readonly design: Design;
  readonly of: Settled;
}

/** Finds an order, or judges the one that is `given` by the keys of its steps; the error is a sentence. `progress` is told how far it is, 0 to 1. */
export function planChange(
  before: Design,
  after: Design,
  given: readonly string[] | null = null,
  progress: (share: number) => void = () => undefined,
): Result<ChangePlan, string> {
  const steps = stepsBetween(before, after);
  if (steps.length === 0) return fail('Nothing that is set at a switch or plugged in differs.');
  if (steps.length > MOST_STEPS) return fail(`${steps.length} steps are more than ${MOST_STEPS}: plan it in parts.`);
  const goal = watching(before, after);
  const done = new Set<string>();
  const planned: { readonly told: JudgedStep; readonly from: Design; readonly to: Design }[] = [];
  const start = mixed(before, after, done);
  if (!start) return fail('The two states do not fit together.');
  let at: State = { design: start, of: new Settled(solve(start)) };
  const left = [...steps];
  while (left.length > 0) {
    progress((planned.length / steps.length) * SEARCHING);
    let best: { readonly step: Step; readonly state: State; readonly told: JudgedStep } | null = null;
    let tried = 0;
    const next = given?.[planned.length];
    for (const step of next === undefined ? left : left.filter((each) => stepKey(each) === next)) {
      if (tried >= MOST_TRIED) break;
      const design = mixed(before, after, new Set([...done, stepKey(step)]));
      if (!design) continue;
      tried += 1;
      const state = { design, of: new Settled(solve(design)) };
      const told = judgeStep(step, at, state, goal);
      if (!best || harm(told).some((n, i) => n < harm(best!.told)[i]! && sameBefore(harm(told), harm(best!.told), i)))
        best = { step, state, told };
    }
    if (!best)
      return fail(
        given
          ? `Step ${planned.length + 1} cannot be done there: a cable needs ports that are there and free.`
          : 'No order works: a cable needs a port that is taken until another one is moved. Unplug one of them first.',
      );
    done.add(stepKey(best.step));
    left.splice(left.indexOf(best.step), 1);
    planned.push({ told: best.told, from: at.design, to: best.state.design });
    at = best.state;
  }
  const counted = new Set(goal.pairs.map((pair) => pair.join(' ')));
  return ok({
    watched: goal.musts.length,
    steps: planned.map(({ told, from, to }, i) => {
      progress(SEARCHING + (1 - SEARCHING) * (i / planned.length));
      return { ...told, run: runStep(from, to, (a, b) => counted.has(`${a} ${b}`)) };
    }),
  });
}

const sameBefore = (a: readonly number[], b: readonly number[], to: number): boolean =>
  a.slice(0, to).every((n, i) => n === b[i]);
/** The most important first. */
const harm = ({ broken, cutOff, roots, ends }: JudgedStep): number[] => [
  broken.length,
  cutOff.length,
  roots.length,
  ends,
];

/** What is to be kept on the way: pairs of hosts that reach each other at both ends, musts that hold at both. */
interface Goal {
  readonly pairs: readonly (readonly [HostId, HostId])[];
  readonly musts: Design['intents'];
}

function watching(before: Design, after: Design): Goal {
  const [a, b] = [before, after].map((design) => new Settled(solve(design))) as [Settled, Settled];
  const reaches = (of: Settled): Set<string> => new Set(pairsIn(of).map((pair) => pair.join(' ')));
  const later = reaches(b);
  const holds = (of: Settled): Set<string> =>
    new Set([...judged(of, after.intents)].flatMap(([id, { is }]) => (is === 'holds' ? [id] : [])));
  const [first, last] = [holds(a), holds(b)];
  return {
    pairs: pairsIn(a).filter((pair) => later.has(pair.join(' '))),
    musts: after.intents.filter(({ id, severity }) => severity === 'must' && first.has(id) && last.has(id)),
  };
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

function judgeStep(step: Step, from: State, to: State, { pairs, musts }: Goal): JudgedStep {
  const reached = new Set(pairsIn(to.of).map((pair) => pair.join(' ')));
  const verdicts = judged(to.of, musts);
  return {
    step,
    does: doing(step, from.design, to.design),
    back: doing(step, to.design, from.design),
    ends: movedEnds(from.of.solution, to.of.solution).filter(({ before: was, after: is }) => isPart(was) && isPart(is))
      .length,
    roots: to.of.newRoots(from.of),
    cutOff: [...new Set(pairs.filter((pair) => !reached.has(pair.join(' '))).map(([host]) => host))],
    broken: musts.filter(({ id }) => verdicts.get(id)!.is !== 'holds').map((intent) => intentText(to.design, intent)),
  };
}

/** Ports that come, go or lose their signal are no ports that change their role. */
const isPart = (role: string | null): boolean => role !== null && role !== 'disabled';

/** Sentences on what leads from one state to the next. */
function doing(step: Step, from: Design, to: Design): string[] {
  if (step.kind === 'cable') {
    const [was, is] = [from, to].map((design) => design.links.find(({ id }) => id === step.link));
    const named = (design: Design): string => namesOf(design).link(step.link);
    if (!is?.up) return was ? [`Unplug ${named(from)}.`] : [];
    return [was?.up ? `Plug ${named(from)} over to ${named(to)}.` : `Plug in ${named(to)}.`];
  }
  const fresh = new Set<string>();
  const base = withNewPorts(from, to, step.switch, fresh);
  return [
    ...[...fresh].map((port) => `${namesOf(to).end({ switch: step.switch, port: port as PortId })}: new.`),
    ...settingDifferences(base, to).map(({ on, setting, before, after }) =>
      before === null
        ? `${on}: ${setting}, ${after}`
        : after === null
          ? `${on}: ${setting}`
          : `${on}: ${setting} ${before} to ${after}`,
    ),
  ];
}

/** A state with the ports that a switch gets, as they come: what is set there beside is told. */
function withNewPorts(from: Design, to: Design, id: SwitchId, fresh: Set<string>): Design {
  const is = to.switches.find((sw) => sw.id === id);
  const was = from.switches.find((sw) => sw.id === id);
  if (!is || !was) return from;
  const ports = is.ports.map((port) => {
    const known = was.ports.find((each) => each.id === port.id);
    if (!known) fresh.add(port.id);
    return known ?? portSchema.parse({ id: port.id, number: port.number });
  });
  const gone = was.ports.filter((port) => !is.ports.some((each) => each.id === port.id));
  return { ...from, switches: from.switches.map((sw) => (sw === was ? { ...was, ports: [...ports, ...gone] } : sw)) };
}
