/** A scenario run on a design: every change of every port, who was cut off and why, and where it all comes to rest. */
import { fail, ok, type Result } from '../base/result';
import type { Design } from '../model/document';
import { problemText } from '../model/problem';
import type { Scenario } from '../model/scenario';
import { SECOND, type Micros } from '../modes/entity';
import { inOnePart, onOneClock, partsOf, type Part } from './engine/parts';
import { Ensemble, type Steps } from './ensemble';
import type { Helper } from './helper';
import type { Ending, PortInTree, Run, RunOptions } from './run';
import { happeningIn, momentOf } from './scenario/clocked';
import { scenarioDesign, treesThrough } from './scenario/scenario';
import { namesIn } from './share';
import { MOST_FRAMES } from './trace/sentLog';

/** How long a network may take to settle before a scenario begins. */
const PATIENCE: Micros = 900 * SECOND;
const MOST_EVENTS = 50_000_000;
/** Ports x trees that are booted before a scenario, some tenths of a second; larger ones begin where the solver says that booting ends. */
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
  for (let step = steps.next(); ;) {
    if (step.done) return step.value;
    step = steps.next(typeof step.value !== 'number' || progress(step.value));
  }
}

/** Gives who may run some of a run's parts; `size`: its ports x trees. */
export type Helpers = (size: number) => readonly Helper[];

/**
 * Runs a scenario with helpers, where its parts are run apart; the error is a sentence. `progress` may take its time. Rejected
 * where a helper fails.
 */
export async function simulateShared(
  design: Design,
  scenario: Scenario,
  helpers: Helpers,
  {
    progress = () => true,
    ...options
  }: Omit<RunOptions, 'progress'> & { readonly progress?: (share: number) => boolean | Promise<boolean> } = {},
): Promise<Result<Run, string>> {
  const steps = simulateInSteps(design, scenario, options, helpers);
  let step = steps.next();
  while (!step.done) {
    if (typeof step.value === 'number') {
      const goesOn = progress(step.value);
      step = steps.next(typeof goesOn === 'boolean' ? goesOn : await goesOn);
      continue;
    }
    try {
      await step.value;
    } catch (error) {
      step = steps.throw(error);
      continue;
    }
    step = steps.next(true);
  }
  return step.value;
}

/** How far a run is, 0 to 1; or what is to be waited for before it goes on. */
export type Step = number | Promise<unknown>;

/**
 * Runs a scenario step by step, and stops where it is answered with false, keeping what it has. Where its parts are run apart
 * `helpers` are asked for, who run some of them.
 */
export function* simulateInSteps(
  given: Design,
  scenario: Scenario,
  options: Omit<RunOptions, 'progress'> = {},
  helpers: Helpers = () => [],
): Generator<Step, Result<Run, string>, boolean> {
  const whole = scenarioDesign(given, scenario);
  if (!whole.ok) return fail(problemText(whole.error));
  const design = whole.value;
  const {
    seed = 1,
    fromBoot = scenario.fromBoot,
    mostEvents = MOST_EVENTS,
    mostFrames = MOST_FRAMES,
    everyHello = false,
    only,
  } = options;
  const all = treesThrough(design, scenario.actions);
  const trees = only ? all.filter((tree) => only.has(tree)) : all;
  const each = partsOf(design, trees, scenario);
  const size = sizeOf(design, only ? partsOf(design, all, scenario) : each);
  const isLarge = size > MOST_BOOTED;
  const { begins = isLarge ? 'at-rest' : 'booted' } = options;
  const { clocks = isLarge && !negotiatesMuch(design) ? 'each its own' : 'one of each kind' } = options;
  const parts = clocks === 'all on one' ? inOnePart(trees) : clocks === 'each its own' ? each : [onOneClock(each)];
  const ensemble = new Ensemble(
    { design, before: given, scenario, trees, parts, seed, mostFrames, everyHello },
    parts.length > 1 ? helpers(size) : [],
  );
  try {
    return yield* throughIt(ensemble, scenario, design, { fromBoot, begins, mostEvents, views: options.views ?? true });
  } finally {
    ensemble.close();
  }
}

interface Through {
  readonly fromBoot: boolean;
  readonly begins: NonNullable<RunOptions['begins']>;
  readonly mostEvents: number;
  readonly views: boolean;
}

function* throughIt(
  ensemble: Ensemble,
  scenario: Scenario,
  design: Design,
  { fromBoot, begins, mostEvents, views: wanted }: Through,
): Generator<Step, Result<Run, string>, boolean> {
  const { trees } = ensemble;
  const atRest = !fromBoot && begins === 'at-rest';
  const began = atRest ? yield* telling(ensemble.beginAtRest(), () => 0) : 'spent';
  if (began === 'stopped') return fail(STOPPED);
  if (began === 'spent') yield* telling(ensemble.boot(fromBoot), () => 0);
  const before = fromBoot || began === 'there' ? RESTED : yield* comeToRest(ensemble, mostEvents);
  if (before === 'stopped') return fail(STOPPED);
  const start = fromBoot ? 0 : ensemble.now;
  const most = ensemble.events + mostEvents;
  const played = yield* play(ensemble, scenario, start, most);
  if (!played.ok) return played;
  const stopped = played.value;
  const [{ events }, reached, last] = [ensemble, (ensemble.now - start) / SECOND, ensemble.lastChange];
  const { records, moving, views } = yield* telling(ensemble.told(wanted), () => 1);
  const final = { trees: views };
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
function* telling<T>(steps: Steps<T>, share: () => number): Generator<Step, T, boolean> {
  for (let step = steps.next(true); ; step = steps.next(yield step.value ?? share())) if (step.done) return step.value;
}

/** Ports x trees that are run of a design in a scenario. */
export const sizeOfRun = (design: Design, scenario: Scenario): number =>
  sizeOf(design, partsOf(design, treesThrough(design, scenario.actions), scenario));

/** Ports x trees of parts. */
const sizeOf = ({ switches }: Design, parts: readonly Part[]): number =>
  switches.reduce((sum, { ports }) => sum + ports.length, 0) * parts.reduce((sum, part) => sum + part.trees.length, 0);

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
function* comeToRest(ensemble: Ensemble, mostEvents: number): Generator<Step, Beginning | 'stopped', boolean> {
  let watched = false;
  // Looked at once a second: when it begins does not hang on how many events that takes.
  for (let second = ensemble.now; !(yield* rests(ensemble));) {
    if (second >= PATIENCE) return { restless: yield* restlessNow(ensemble) };
    if (second >= PATIENCE / 2 && !watched) {
      ensemble.watchRestless();
      watched = true;
    }
    second += SECOND;
    const went = yield* telling(ensemble.runTo(second, mostEvents), () => 0);
    if (went === 'spent') return { restless: yield* restlessNow(ensemble) };
    if (went === 'stopped' || !(yield 0)) return 'stopped';
  }
  return RESTED;
}

const rests = (ensemble: Ensemble): Generator<Step, boolean, boolean> => telling(ensemble.rests(), () => 0);
const restlessNow = (ensemble: Ensemble): Generator<Step, PortInTree[], boolean> =>
  telling(ensemble.restlessPorts(), () => 0);

/** Runs the actions to the scenario's end; gives whether it was stopped before. */
function* play(
  ensemble: Ensemble,
  scenario: Scenario,
  start: Micros,
  mostEvents: number,
): Generator<Step, Result<boolean, string>, boolean> {
  const until = start + Math.round(scenario.until * SECOND);
  const begins = happeningIn(scenario).map((action) => momentOf(action, start));
  const share = (): number => (ensemble.now - start) / (until - start);
  yield* telling(ensemble.begin(start), () => 0);
  let slice = SHORTEST;
  for (let target = start; ensemble.refused === null;) {
    const before = ensemble.events;
    const went = yield* telling(ensemble.runTo(target, mostEvents), share);
    if (went !== 'there') return ok(true);
    if (target === until) break;
    if (!(yield share()) || ensemble.events > mostEvents) return ok(true);
    const took = ensemble.events - before;
    if (took > BUSY) slice = Math.max(SHORTEST, slice / 2);
    else if (took < BUSY / 4) slice = Math.min(LONGEST, slice * 2);
    if (begins.includes(target)) slice = SHORTEST;
    target = Math.min(until, target + slice, ...begins.filter((t) => t > target));
  }
  return ensemble.refused === null ? ok(false) : fail(ensemble.refused);
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
): Generator<Step, Ending, boolean> {
  ensemble.watchRestless();
  const limit = ensemble.now + AFTERMATH;
  while (!stopped && !(yield* rests(ensemble)) && ensemble.now < limit && ensemble.events <= mostEvents) {
    const went = yield* telling(ensemble.runTo(ensemble.now + SECOND, mostEvents), () => 1);
    if (went !== 'there' || !(yield 1)) break;
  }
  if (stopped) return { kind: 'stopped' };
  if (!(yield* rests(ensemble))) return { kind: 'restless', ports: yield* restlessNow(ensemble) };
  return ensemble.lastChange > last || moving
    ? { kind: 'moves', at: (ensemble.lastChange - start) / SECOND }
    : { kind: 'rests' };
}
