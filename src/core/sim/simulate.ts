/** A scenario run on a design: every change of every port, who was cut off and why, and where it all comes to rest. */
import { Recorder } from './recorder';
import type { Ending, PortInTree, Run, RunOptions, TraceEntry } from './run';
import { bundlesOf } from '../topology/lag/ends';
import type { Command } from '../edit/commands';
import { editAll } from '../edit/edit';
import { problemText } from '../model/problem';
import type { Design } from '../model/document';
import { SECOND, type Micros } from '../modes/entity';
import { fail, ok, type Result } from '../base/result';
import { compileNetwork } from '../topology/network';
import { MOST_FRAMES } from './trace/sentLog';
import type { Action, Scenario } from '../model/scenario';
import { commandsOf, scenarioDesign, treesThrough } from './scenario/scenario';
import { actionKind } from '../model/actions/actions';
import type { Happening } from '../model/actions/kind';
import { alikeInRun, allApart, type Alike } from './engine/alikeTrees';
import { Simulation } from './engine/simulation';
import { viewNow } from './trace/view';

/** How long a network may take to settle before a scenario begins. */
const PATIENCE: Micros = 900 * SECOND;
const MOST_EVENTS = 50_000_000;
/** Ports x trees that are booted before a scenario: some tenths of a second. */
const MOST_BOOTED = 3000;
const STOPPED = 'Stopped before the network came to rest for the scenario to begin.';
/** How long a run is followed beyond its end to see whether it comes to rest: several times what the timers can hold up. */
const AFTERMATH: Micros = 240 * SECOND;
/** Events between two looks at whether the run is to go on. */
const STEP = 5000;

/** Runs a scenario; the error is a sentence. */
export function simulate(
  design: Design,
  scenario: Scenario,
  { progress = () => true, ...options }: RunOptions = {},
): Result<Run, string> {
  const steps = simulateInSteps(design, scenario, options);
  for (let step = steps.next(); ; step = steps.next(progress(step.value))) if (step.done) return step.value;
}

/** Runs a scenario step by step: gives how far it is, 0 to 1, and stops where it is answered with false, keeping what it has. */
export function* simulateInSteps(
  given: Design,
  scenario: Scenario,
  options: Omit<RunOptions, 'progress'> = {},
): Generator<number, Result<Run, string>, boolean> {
  const whole = scenarioDesign(given, scenario);
  if (!whole.ok) return fail(problemText(whole.error));
  const design = whole.value;
  const {
    seed = 1,
    fromBoot = scenario.fromBoot,
    mostEvents = MOST_EVENTS,
    mostFrames = MOST_FRAMES,
    apart = false,
    everyHello = false,
  } = options;
  const trees = treesThrough(design, scenario.actions);
  const recorder = new Recorder(trees, mostFrames);
  const alike = apart ? allApart(trees) : alikeInRun(design, trees, scenario);
  const { begins = bootsLong(design, alike) ? 'at-rest' : 'booted' } = options;
  const newSimulation = (): Simulation =>
    new Simulation(compileNetwork(design), trees, seed, recorder.watch(), {
      absent: comingMembers(given, design),
      alike,
      everyHello,
    });
  let sim = newSimulation();
  const rested = !fromBoot && begins === 'at-rest' ? yield* begunAtRest(sim) : false;
  if (rested === 'stopped') return fail(STOPPED);
  if (!rested) {
    sim = newSimulation();
    if (fromBoot) recorder.fromBoot(sim);
    sim.boot();
  }
  const before = fromBoot || rested ? RESTED : yield* comeToRest(sim, recorder, mostEvents);
  if (before === 'stopped') return fail(STOPPED);
  const start = fromBoot ? 0 : sim.now;
  sim.lastChange = start;
  recorder.begin(sim, start, scenario.talk);
  const most = sim.events + mostEvents;
  const played = yield* play(sim, scenario, design, start, most);
  if (!played.ok) return played;
  const stopped = played.value;
  sim.tellHellos();
  const [{ events }, reached, last] = [sim, (sim.now - start) / SECOND, sim.lastChange];
  const moving = onTheWay(sim, recorder, start);
  const { ports } = recorder;
  const plane = recorder.plane!;
  const outages = plane.end();
  const final = { trees: (options.views ?? true) ? trees.map((_, tree) => viewNow(sim, tree)) : [] };
  const ending = yield* endingOf(sim, recorder, { stopped, moving: moving.length > 0, last, start, mostEvents: most });
  const { sent, signal, members, negotiation, flushes } = recorder;
  return ok({
    design,
    trees,
    recording: ports,
    outages,
    reach: plane.reach,
    storms: plane.storms,
    settledAt: ending.kind === 'rests' ? (last - start) / SECOND : null,
    ending,
    restlessBefore: before.restless,
    moving,
    final,
    events,
    stopped,
    reached,
    sent,
    signal,
    members,
    negotiation,
    flushes,
    unfollowed: plane.unfollowed,
    // A busy run has hundreds of thousands of changes: only who asks pays for an object each.
    get trace() {
      return Array.from({ length: ports.count }, (_, i) => {
        const { t, tree, port, from, to, role } = ports.change(i);
        return recorder.entry(t, tree, port, from, to, role);
      });
    },
  });
}

/** Puts a network where it comes to rest; false where it is to boot. */
function* begunAtRest(sim: Simulation): Generator<number, boolean | 'stopped', boolean> {
  const steps = sim.beginAtRest();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (!(yield 0)) return 'stopped';
  }
}

/** Whether booting takes longer than one should wait: then the scenario begins where the solver says that booting ends. */
const bootsLong = ({ switches }: Design, alike: Alike): boolean =>
  switches.reduce((sum, { ports }) => sum + ports.length, 0) * new Set(alike).size > MOST_BOOTED;

/** How a network came to the beginning of a scenario: at rest, or with ports that go on changing. */
interface Beginning {
  readonly restless: readonly PortInTree[] | null;
}
const RESTED: Beginning = { restless: null };

/** Lets the network come to rest before a scenario begins. One that never does begins as it is then, which is what one wants to watch. */
function* comeToRest(
  sim: Simulation,
  recorder: Recorder,
  mostEvents: number,
): Generator<number, Beginning | 'stopped', boolean> {
  let watched = false;
  // Looked at once a second: when it begins does not hang on how many events that takes.
  for (let [second, there] = [sim.now, true]; !(there && sim.rests);) {
    if (sim.now >= PATIENCE || sim.events > mostEvents) return { restless: recorder.restlessPorts(sim) };
    if (sim.now >= PATIENCE / 2 && !watched) {
      recorder.watchRestless();
      watched = true;
    }
    if (there) second += SECOND;
    there = sim.runTo(second, STEP);
    if (!(yield 0)) return 'stopped';
  }
  return RESTED;
}

/** Runs the actions to the scenario's end; gives whether it was stopped before. */
function* play(
  sim: Simulation,
  scenario: Scenario,
  design: Design,
  start: Micros,
  mostEvents: number,
): Generator<number, Result<boolean, string>, boolean> {
  let now = design;
  let refused = null as string | null;
  const take = (commands: readonly Command[]): void => {
    const edited = editAll(now, commands);
    if (!edited.ok) {
      refused = problemText(edited.error);
      return;
    }
    now = edited.value.design;
    sim.follow(now);
  };
  for (const action of scenario.actions) if (action.at <= scenario.until) schedule(sim, action, start, take);
  const until = start + Math.round(scenario.until * SECOND);
  let stopped = false;
  for (let target = start; refused === null;) {
    if (sim.runTo(target, STEP)) {
      if (target === until) break;
      target = Math.min(until, target + SECOND);
    }
    if (!(yield (sim.now - start) / (until - start)) || sim.events > mostEvents) {
      stopped = true;
      break;
    }
  }
  return refused === null ? ok(stopped) : fail(refused);
}

/** Ports that listen or learn now. */
const onTheWay = (sim: Simulation, recorder: Recorder, start: Micros): TraceEntry[] =>
  sim.trees.flatMap((_, tree) =>
    sim.network.ports.flatMap((__, p) => {
      const state = sim.state(tree, p);
      return state === 'listening' || state === 'learning'
        ? [recorder.entry(sim.now - start, tree, p, state, state, sim.role(tree, p))]
        : [];
    }),
  );

interface Ended {
  readonly stopped: boolean;
  /** Ports were on their way when the scenario ended. */
  readonly moving: boolean;
  /** The last change within the scenario. */
  readonly last: Micros;
  readonly start: Micros;
  readonly mostEvents: number;
}

/** Whether the network comes to rest beyond the scenario's end, where nothing is recorded. */
function* endingOf(
  sim: Simulation,
  recorder: Recorder,
  { stopped, moving, last, start, mostEvents }: Ended,
): Generator<number, Ending, boolean> {
  recorder.watchRestless();
  const limit = sim.now + AFTERMATH;
  while (!stopped && !sim.rests && sim.now < limit && sim.events <= mostEvents) {
    sim.runTo(sim.now + SECOND, STEP);
    if (!(yield 1)) break;
  }
  if (stopped) return { kind: 'stopped' };
  if (!sim.rests) return { kind: 'restless', ports: recorder.restlessPorts(sim) };
  return sim.lastChange > last || moving ? { kind: 'moves', at: (sim.lastChange - start) / SECOND } : { kind: 'rests' };
}

/** Members that a scenario brings into bundles: of those that it adds, and of those that get other ports. */
function comingMembers(before: Design, design: Design): number[] {
  const { ends, members } = bundlesOf(design);
  return members.flatMap(({ at, index, end }) =>
    ends[end]!.owner.kind === 'switch' &&
    !before.bundles.some((bundle) => bundle.switch === at.switch && bundle.ports.includes(at.port))
      ? [index]
      : [],
  );
}

/** Puts an action on the clock. */
function schedule(sim: Simulation, action: Action, start: Micros, take: (commands: readonly Command[]) => void): void {
  const { after = 0, changes, mute, members, open } = actionKind(action).happens(action);
  const commands = commandsOf(changes);
  sim.at(start + Math.round(action.at * SECOND) + Math.round(after * SECOND), () => {
    if (mute) {
      const { on, bpdus = false, lasts } = mute;
      for (const port of mutedPorts(sim, mute)) {
        sim.setMute(port, on, bpdus);
        if (lasts !== undefined) sim.at(sim.now + Math.round(lasts * SECOND), () => sim.setMute(port, !on, bpdus));
      }
    }
    if (members) sim.setBundle(members.bundle, members.ports);
    if (open) sim.guards.open(sim.network.portIndexOf(open.switch, open.port));
    if (commands.length > 0) take(commands);
  });
}

/** The aggregationPorts of a link by which nothing is to get through any more, or again. */
function mutedPorts({ network }: Simulation, { link: id, from }: NonNullable<Happening['mute']>): number[] {
  const { design, portIndexOf, switches, owner } = network;
  const link = design.links.find((each) => each.id === id);
  if (!link) return [];
  const [a, b] = [portIndexOf(link.a.switch, link.a.port), portIndexOf(link.b.switch, link.b.port)];
  if (from === null) return [a, b];
  return [from !== undefined && switches[owner[a]!]?.id !== from ? b : a];
}
