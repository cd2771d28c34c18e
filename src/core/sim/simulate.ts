/** A scenario run on a design: every change of every port, who was cut off and why, and where it all comes to rest. */
import type { Ending, Flush, Run, RunOptions, TraceEntry } from './run';
import { bundlesOf } from '../topology/lag/ends';
import type { Command } from '../edit/commands';
import { editAll } from '../edit/edit';
import type { TreeId } from '../model/ids';
import { problemText } from '../model/problem';
import type { Design } from '../model/document';
import type { Bpdu } from '../modes/bpdu';
import { SECOND, type Micros, type RunRole, type RunState } from '../modes/entity';
import type { Vector } from '../modes/vector';
import { fail, ok, type Result } from '../base/result';
import { compileNetwork } from '../topology/network';
import { DataPlane } from './traffic/dataPlane';
import { MemberLog } from './trace/memberLog';
import { Recording } from './trace/recording';
import { MOST_FRAMES, SentLog, type SentLacpdu } from './trace/sentLog';
import { Timeline } from './trace/timeline';
import type { Action, Scenario } from '../model/scenario';
import { commandsOf, scenarioDesign, treesThrough } from './scenario/scenario';
import { actionKind } from '../model/actions/actions';
import type { Happening } from '../model/actions/kind';
import { ARRIVES, CARRIES, OPERATIONAL, LIVE } from './engine/signal';
import { Simulation } from './engine/simulation';
import { viewNow } from './trace/view';

const MOST_FLUSHES = 200_000;

/** How long a network may take to settle before a scenario begins. */
const PATIENCE: Micros = 900 * SECOND;
const MOST_EVENTS = 50_000_000;
/** How long a run is followed beyond its end to see whether it comes to rest: several times what the timers can hold up. */
const AFTERMATH: Micros = 240 * SECOND;
/** Ports that are named of those that never rest. */
const MOST_RESTLESS = 20;
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
  before: Design,
  scenario: Scenario,
  options: Omit<RunOptions, 'progress'> = {},
): Generator<number, Result<Run, string>, boolean> {
  const staged = scenarioDesign(before, scenario);
  if (!staged.ok) return fail(problemText(staged.error));
  const design = staged.value;
  const {
    seed = 1,
    fromBoot = scenario.fromBoot,
    mostEvents = MOST_EVENTS,
    mostFrames = MOST_FRAMES,
    views = true,
  } = options;
  const trees = treesThrough(design, scenario.actions);
  let start: Micros = fromBoot ? 0 : Infinity;
  /** Set where nothing is recorded: before a scenario can begin, and after it has ended. */
  let restless: Restless | null = null;
  let plane: DataPlane | null = null;
  let recording: Recording | null = null;
  const sent = new SentLog(mostFrames);
  const flushes: Flush[] = [];
  const members = new MemberLog();
  const negotiation: SentLacpdu[] = [];
  const entry = (t: Micros, tree: number, p: number, from: RunState, to: RunState, role: RunRole): TraceEntry => {
    const { ports, switches, owner } = sim.network;
    return { t: t / SECOND, switch: switches[owner[p]!]!.id, port: ports[p]!.id, tree: trees[tree]!, from, to, role };
  };
  const sim: Simulation = new Simulation(
    compileNetwork(design),
    trees,
    seed,
    {
      changed: (change) => {
        const { t, tree, port, to } = change;
        if (restless) return restless.note(t, tree, port);
        if (to === 'disabled' || to === 'blocking' || to === 'discarding') plane?.flush(port, tree);
        if (t >= start) recording?.add({ ...change, t: t - start });
      },
      flushed: (t, tree, port) => {
        if (restless) return;
        plane?.flush(port, tree);
        if (t >= start && flushes.length < MOST_FLUSHES) flushes.push({ t: t - start, tree, port });
      },
      ageing: (s) => restless ?? plane?.forgetAged(s),
      member: (t, member, stands) => t >= start && !restless && members.mark(t, member, stands, start),
      used: (t, uses) => t >= start && !restless && members.use(t - start, uses),
      negotiated: (t, member, lacpdu) =>
        t >= start &&
        !restless &&
        negotiation.length < mostFrames &&
        negotiation.push({ t: t - start, member, lacpdu }),
      moment: (t) => restless ?? plane?.look(t),
      ...(mostFrames > 0
        ? {
            sent: (t: Micros, tree: number, port: number, bpdu: Bpdu, origin: number, held: Vector | null) =>
              t >= start && !restless && sent.add(t - start, tree, port, bpdu, origin, held),
          }
        : {}),
      signalled: (t) => restless ?? noteSignal(t - start),
    },
    comingMembers(before, design),
  );
  const signalOf = (port: number): number =>
    (sim.network.live[port] ? LIVE : 0) |
    (sim.carries(port) ? CARRIES : 0) |
    (sim.arrives(port) ? ARRIVES : 0) |
    (sim.network.macOperational[port] ? OPERATIONAL : 0);
  let signal = new Timeline(new Uint8Array());
  let codes = new Uint8Array();
  const beginSignal = (): void => {
    codes = Uint8Array.from(sim.network.ports, (_, port) => signalOf(port));
    signal = new Timeline(codes.slice());
  };
  const noteSignal = (t: Micros): void =>
    codes.forEach((before, port) => {
      const code = signalOf(port);
      if (code === before) return;
      codes[port] = code;
      signal.add(t, port, code);
    });
  const record = (): Recording =>
    new Recording(trees.length, sim.network.ports.length, (tree, port) => [
      sim.state(tree, port),
      sim.role(tree, port),
    ]);
  if (fromBoot) recording = record();
  sim.boot();
  if (!fromBoot) {
    while (!sim.rests) {
      if (sim.now >= PATIENCE || sim.events > mostEvents) {
        const told = namesOf(sim, trees, restless ?? new Restless())
          .slice(0, 3)
          .map(({ switch: sw, port, tree }) => `${sw} port ${port} in ${tree}`)
          .join(', ');
        return fail(
          `The network never comes to rest, so there is no state for the scenario to begin with${told === '' ? '' : `: ${told} and others go on changing`}. Run it from boot to watch.`,
        );
      }
      if (sim.now >= PATIENCE / 2) restless ??= new Restless();
      sim.runTo(sim.now + SECOND, STEP);
      if (!(yield 0)) return fail('Stopped before the network came to rest for the scenario to begin.');
    }
    restless = null;
    start = sim.now;
    recording = record();
  }
  sim.lastChange = start;
  members.begin(sim.network.use);
  if (!fromBoot)
    sim.network.bundles.members.forEach((_, m) => members.mark(start, m, sim.aggregation.memberNow(m), start));
  beginSignal();
  plane = new DataPlane(sim, Math.round(scenario.talk * SECOND));
  plane.begin(start);

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
  if (refused !== null) return fail(refused);
  const moving = trees.flatMap((_, tree) =>
    sim.network.ports.flatMap((__, p) =>
      ['listening', 'learning'].includes(sim.state(tree, p))
        ? [entry(sim.now - start, tree, p, sim.state(tree, p), sim.state(tree, p), sim.role(tree, p))]
        : [],
    ),
  );
  const kept = recording ?? record();
  const outages = plane.end();
  const final = { trees: views ? trees.map((_, tree) => viewNow(sim, tree)) : [] };
  const [events, reached] = [sim.events, (sim.now - start) / SECOND];
  const last = sim.lastChange;
  // Beyond the end nothing is recorded: only whether it comes to rest is looked at.
  restless = new Restless();
  const limit = sim.now + AFTERMATH;
  while (!stopped && !sim.rests && sim.now < limit && sim.events <= mostEvents) {
    sim.runTo(sim.now + SECOND, STEP);
    if (!(yield 1)) break;
  }
  const ending = ((): Ending => {
    if (stopped) return { kind: 'stopped' };
    if (!sim.rests) return { kind: 'restless', ports: namesOf(sim, trees, restless) };
    return sim.lastChange > last || moving.length > 0
      ? { kind: 'moves', at: (sim.lastChange - start) / SECOND }
      : { kind: 'rests' };
  })();
  return ok({
    design,
    trees,
    recording: kept,
    outages,
    reach: plane.reach,
    storms: plane.storms,
    settledAt: ending.kind === 'rests' ? (last - start) / SECOND : null,
    ending,
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
      return Array.from({ length: kept.count }, (_, i) => {
        const { t, tree, port, from, to, role } = kept.change(i);
        return entry(t, tree, port, from, to, role);
      });
    },
  });
}

/** Ports that change while nothing is recorded. */
class Restless {
  private readonly ports = new Map<string, readonly [tree: number, port: number]>();
  note(_: Micros, tree: number, port: number): void {
    if (this.ports.size < MOST_RESTLESS) this.ports.set(`${tree} ${port}`, [tree, port]);
  }
  list(): (readonly [tree: number, port: number])[] {
    return [...this.ports.values()];
  }
}

const namesOf = ({ network: { switches, owner, ports } }: Simulation, trees: readonly TreeId[], restless: Restless) =>
  restless.list().map(([tree, p]) => ({ switch: switches[owner[p]!]!.id, port: ports[p]!.id, tree: trees[tree]! }));

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
  const { after = 0, changes, mute, members } = actionKind(action).happens(action);
  const commands = commandsOf(changes);
  sim.at(start + Math.round(action.at * SECOND) + Math.round(after * SECOND), () => {
    if (mute) for (const port of mutedPorts(sim, mute)) sim.setMute(port, mute.on);
    if (members) sim.setBundle(members.bundle, members.ports);
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
