/** A scenario run on a design: every change of every port, who was cut off and why, and where it all comes to rest. */
import { fail, ok, type Result } from '../base/result';
import type { Command } from '../edit/commands';
import { editAll } from '../edit/edit';
import { actionKind } from '../model/actions/actions';
import type { Happening } from '../model/actions/kind';
import type { Design } from '../model/document';
import { problemText } from '../model/problem';
import type { Action, Scenario } from '../model/scenario';
import { SECOND, type Micros } from '../modes/entity';
import { inOnePart, onOneClock, partsOf, type Part } from './engine/parts';
import type { Simulation } from './engine/simulation';
import { Ensemble, namesIn, type Went } from './ensemble';
import type { Ending, PortInTree, Run, RunOptions } from './run';
import { commandsOf, scenarioDesign, treesThrough } from './scenario/scenario';
import { MOST_FRAMES } from './trace/sentLog';

/** How long a network may take to settle before a scenario begins. */
const PATIENCE: Micros = 900 * SECOND;
const MOST_EVENTS = 50_000_000;
/** Ports x trees that are booted before a scenario: some tenths of a second. */
const MOST_BOOTED = 3000;
/** All parts of a run come to the end of a slice before any goes on: short ones where much happens, since a stop waits for it. */
const SHORTEST: Micros = SECOND / 16;
const LONGEST: Micros = 4 * SECOND;
/** Events of a slice that are much: about a second's work. */
const BUSY = 100_000;
const STOPPED = 'Stopped before the network came to rest for the scenario to begin.';
/** How long a run is followed beyond its end to see whether it comes to rest: several times what the timers can hold up. */
const AFTERMATH: Micros = 240 * SECOND;

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
    everyHello = false,
  } = options;
  const trees = treesThrough(design, scenario.actions);
  const each = partsOf(design, trees, scenario);
  const isLarge = bootsLong(design, each);
  const { begins = isLarge ? 'at-rest' : 'booted' } = options;
  const { clocks = isLarge && !negotiatesMuch(design) ? 'each its own' : 'one of each kind' } = options;
  const parts = clocks === 'all on one' ? inOnePart(trees) : clocks === 'each its own' ? each : [onOneClock(each)];
  const { talk } = scenario;
  const ensemble = new Ensemble(design, trees, parts, { seed, mostFrames, everyHello, talk, before: given });
  const atRest = !fromBoot && begins === 'at-rest';
  const began = atRest ? yield* telling(ensemble.beginAtRest(), () => 0) : 'spent';
  if (began === 'stopped') return fail(STOPPED);
  if (began === 'spent') ensemble.boot(fromBoot);
  const before = fromBoot || began === 'there' ? RESTED : yield* comeToRest(ensemble, mostEvents);
  if (before === 'stopped') return fail(STOPPED);
  const start = fromBoot ? 0 : ensemble.now;
  const most = ensemble.events + mostEvents;
  const played = yield* play(ensemble, scenario, design, start, most);
  if (!played.ok) return played;
  const stopped = played.value;
  const [{ events }, reached, last] = [ensemble, (ensemble.now - start) / SECOND, ensemble.lastChange];
  const moving = ensemble.onTheWay(start);
  const records = ensemble.records();
  const final = { trees: (options.views ?? true) ? ensemble.views() : [] };
  const ending = yield* endingOf(ensemble, { stopped, moving: moving.length > 0, last, start, mostEvents: most });
  const settledAt = ending.kind === 'rests' ? (last - start) / SECOND : null;
  const { restless: restlessBefore } = before;
  // A busy run has hundreds of thousands of changes: only who asks pays for an object each. What ran is let go of.
  const named = namesIn(ensemble.network, trees);
  return ok({
    ...records,
    ...{ design, trees, settledAt, ending, restlessBefore, moving, final, events, stopped, reached },
    get trace() {
      return Array.from({ length: records.recording.count }, (_, i) => {
        const { t, tree, port, from, to, role } = records.recording.change(i);
        return { t: t / SECOND, ...named(tree, port), from, to, role };
      });
    },
  });
}

/** Passes on what is answered at each step, and says how far the run is. */
function* telling(steps: Generator<void, Went, boolean>, share: () => number): Generator<number, Went, boolean> {
  for (let step = steps.next(true); ; step = steps.next(yield share())) if (step.done) return step.value;
}

/** Whether booting takes longer than one should wait: then the scenario begins where the solver says that booting ends. */
const bootsLong = ({ switches }: Design, parts: readonly Part[]): boolean =>
  switches.reduce((sum, { ports }) => sum + ports.length, 0) * parts.reduce((sum, part) => sum + part.trees.length, 0) >
  MOST_BOOTED;

/** Whether bundles negotiate that much that each part's doing it again costs more than parts save: a tenth of the ports are members. */
const negotiatesMuch = ({ switches, bundles }: Design): boolean =>
  10 * bundles.reduce((sum, { mode, ports }) => sum + (mode === 'static' ? 0 : ports.length), 0) >
  switches.reduce((sum, { ports }) => sum + ports.length, 0);

/** How a network came to the beginning of a scenario: at rest, or with ports that go on changing. */
interface Beginning {
  readonly restless: readonly PortInTree[] | null;
}
const RESTED: Beginning = { restless: null };

/** Lets the network come to rest before a scenario begins. One that never does begins as it is then, which is what one wants to watch. */
function* comeToRest(ensemble: Ensemble, mostEvents: number): Generator<number, Beginning | 'stopped', boolean> {
  let watched = false;
  // Looked at once a second: when it begins does not hang on how many events that takes.
  for (let second = ensemble.now; !ensemble.rests;) {
    if (second >= PATIENCE) return { restless: ensemble.restlessPorts() };
    if (second >= PATIENCE / 2 && !watched) {
      ensemble.watchRestless();
      watched = true;
    }
    second += SECOND;
    const went = yield* telling(ensemble.runTo(second, mostEvents), () => 0);
    if (went === 'spent') return { restless: ensemble.restlessPorts() };
    if (went === 'stopped' || !(yield 0)) return 'stopped';
  }
  return RESTED;
}

/** Runs the actions to the scenario's end; gives whether it was stopped before. */
function* play(
  ensemble: Ensemble,
  { actions, until: seconds }: Scenario,
  design: Design,
  start: Micros,
  mostEvents: number,
): Generator<number, Result<boolean, string>, boolean> {
  let refused = null as string | null;
  // All parts go through the same states of the design, each in its own time.
  const states: Design[] = [design];
  const takesFor = (sim: Simulation): Take => {
    let state = 0;
    return (commands) => {
      if (states[state + 1] === undefined) {
        const edited = editAll(states[state]!, commands);
        if (!edited.ok) {
          refused = problemText(edited.error);
          return;
        }
        states.push(edited.value.design);
      }
      state += 1;
      sim.follow(states[state]!);
    };
  };
  const happening = actions.filter((action) => action.at <= seconds);
  ensemble.begin(start, (sim) => {
    const take = takesFor(sim);
    for (const action of happening) schedule(sim, action, start, take);
  });
  const until = start + Math.round(seconds * SECOND);
  const share = (): number => (ensemble.now - start) / (until - start);
  let slice = SHORTEST;
  for (let target = start; refused === null;) {
    const before = ensemble.events;
    const went = yield* telling(ensemble.runTo(target, mostEvents), share);
    if (went !== 'there') return ok(true);
    if (target === until) break;
    if (!(yield share()) || ensemble.events > mostEvents) return ok(true);
    const took = ensemble.events - before;
    if (took > BUSY) slice = Math.max(SHORTEST, slice / 2);
    else if (took < BUSY / 4) slice = Math.min(LONGEST, slice * 2);
    const begins = happening.map(({ at }) => start + Math.round(at * SECOND));
    if (begins.includes(target)) slice = SHORTEST;
    target = Math.min(until, target + slice, ...begins.filter((t) => t > target));
  }
  return refused === null ? ok(false) : fail(refused);
}

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
  ensemble: Ensemble,
  { stopped, moving, last, start, mostEvents }: Ended,
): Generator<number, Ending, boolean> {
  ensemble.watchRestless();
  const limit = ensemble.now + AFTERMATH;
  while (!stopped && !ensemble.rests && ensemble.now < limit && ensemble.events <= mostEvents) {
    const went = yield* telling(ensemble.runTo(ensemble.now + SECOND, mostEvents), () => 1);
    if (went !== 'there' || !(yield 1)) break;
  }
  if (stopped) return { kind: 'stopped' };
  if (!ensemble.rests) return { kind: 'restless', ports: ensemble.restlessPorts() };
  return ensemble.lastChange > last || moving
    ? { kind: 'moves', at: (ensemble.lastChange - start) / SECOND }
    : { kind: 'rests' };
}

/** Takes over what an action changes. */
type Take = (commands: readonly Command[]) => void;

/** Puts an action on the clock. */
function schedule(sim: Simulation, action: Action, start: Micros, take: Take): void {
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
