/** The clock: a scenario in hand, the run that came of it, and the instant that is shown. One beside each workbench's store. */
import { actionKind } from '../../core/model/actions/actions';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import type { HostId } from '../../core/model/ids';
import type { Design, Link, Switch } from '../../core/model/document';
import type { DesignProblem } from '../../core/model/problem';
import { DEFAULT_TALK, DEFAULT_UNTIL, MAX_UNTIL, type Action, type KeptScenario } from '../../core/model/scenario';
import { SECOND, type Micros } from '../../core/modes/entity';
import { dirtyBetween } from '../../core/model/derive/dirty';
import { Player, type Instant } from '../../core/sim/trace/trace';
import { followFrame, settledPassage, type FrameWay } from '../../core/sim/traffic/passage';
import { RUN_ROLES, runRoleOf } from '../../core/sim/trace/recording';
import { scenarioProblems } from '../../core/sim/scenario/scenario';
import { CODE, type SettledTree, type Solution } from '../../core/tree/settled';
import { useWorkbench, useWorkbenchStore } from './context';
import { workerRunner, type Runner } from './runner';
import type { WorkbenchStore } from './store';
import { onScreen } from './looking';

/** A scenario that is written: kept with the design where it has an id. */
export type Draft = Omit<KeptScenario, 'id'> & { readonly id: string | null };

export type RunStatus =
  | { readonly kind: 'none' }
  | { readonly kind: 'running'; readonly share: number }
  | { readonly kind: 'failed'; readonly why: string }
  | { readonly kind: 'done' };

/** How fast the clock goes: times real time; or from change to change, so slow that each is seen, or one with every picture. */
export type Speed = number | 'changes' | 'fastest';

export interface Hold {
  readonly t: Micros;
  readonly text: string;
}

export interface ClockState {
  readonly scenario: Draft;
  /** What stands against each action in the design as it is. */
  readonly problems: readonly (readonly DesignProblem[])[];
  readonly status: RunStatus;
  readonly player: Player | null;
  readonly t: Micros;
  readonly instant: Instant | null;
  /** The instant in the form of a solution, for the map: roles, signal, who takes itself for a root. */
  readonly picture: Solution | null;
  readonly playing: Speed | null;
  /** What the scenario of the run brings along; null where nothing. */
  readonly arrivals: { readonly switches: readonly Switch[]; readonly links: readonly Link[] } | null;
  /** Where it halts while it plays, and what is to be looked at then. */
  readonly holds: readonly Hold[];
  /** When the next action by pointing happens, seconds. */
  readonly nextAt: number;
  /** Hosts whose frame is followed. */
  readonly pair: { readonly from: HostId; readonly to: HostId } | null;
  /** The way that its frames take at the instant shown, or once all has settled. */
  readonly way: FrameWay | null;
}

export interface ClockActions {
  /** Takes a scenario in hand and runs it. */
  open(draft: Draft, holds?: readonly Hold[]): void;
  /** Plays on to a moment, or to where it halts before. */
  playTo(t: Micros): void;
  /** Changes the scenario in hand and runs it again. */
  change(part: Partial<Draft>): void;
  addAction(action: Action): void;
  replaceAction(i: number, action: Action | null): void;
  setNextAt(seconds: number): void;
  run(): void;
  stop(): void;
  seek(t: Micros): void;
  /** To the next change, or the one before. */
  step(by: 1 | -1): void;
  play(speed: Speed | null): void;
  follow(pair: ClockState['pair']): void;
  readonly runner: Runner;
}

export type Clock = ClockState & ClockActions;
export type ClockStore = ReturnType<typeof createClock>;

export const EMPTY: Draft = {
  id: null,
  name: '',
  look: '',
  actions: [],
  until: DEFAULT_UNTIL,
  talk: DEFAULT_TALK,
  fromBoot: false,
};

/** Whether there is anything to run. */
export const runnable = ({ actions, fromBoot }: Draft): boolean => actions.length > 0 || fromBoot;

/** How long after an edit the scenario runs again. */
const CALM_MS = 300;

export function createClock(workbench: WorkbenchStore, runner: Runner, calm = CALM_MS) {
  /** The design that the last run was asked for. */
  let ranOn: Design | null = null;
  const store = createStore<Clock>()((set, get) => {
    let ticket = 0;
    /** Shows no run, and why. */
    const clear = (status: RunStatus): void => {
      set({ status, player: null, instant: null, picture: null, arrivals: null, playing: null });
      get().follow(get().pair);
    };
    const put = (scenario: Draft): void => {
      set({ scenario, problems: scenarioProblems(scenario, workbench.getState().design) });
      get().run();
    };
    return {
      scenario: EMPTY,
      problems: [],
      status: { kind: 'none' },
      player: null,
      t: 0,
      instant: null,
      picture: null,
      playing: null,
      arrivals: null,
      holds: [],
      nextAt: 1,
      pair: null,
      way: null,
      runner,
      open(draft, holds = []) {
        set({
          t: 0,
          playing: null,
          holds,
          nextAt: Math.ceil(Math.max(0, ...draft.actions.map((action) => action.at)) + 1),
        });
        put(draft);
      },
      change: (part) => put({ ...get().scenario, ...part }),
      addAction(action) {
        const { scenario } = get();
        const actions = [...scenario.actions, action].sort((a, b) => a.at - b.at);
        const until = Math.max(scenario.until, Math.min(MAX_UNTIL, action.at + 1));
        put({ ...scenario, actions, until });
      },
      replaceAction(i, action) {
        const { scenario } = get();
        put({
          ...scenario,
          actions: scenario.actions
            .flatMap((each, j) => (j === i ? (action ? [action] : []) : [each]))
            .sort((a, b) => a.at - b.at),
        });
      },
      setNextAt: (nextAt) => set({ nextAt }),
      run() {
        const { scenario, problems } = get();
        const mine = (ticket += 1);
        const { design } = workbench.getState();
        ranOn = design;
        runner.stop();
        if (!runnable(scenario)) return clear({ kind: 'none' });
        const [first] = problems.flat();
        if (first)
          return clear({ kind: 'failed', why: `${first.path}: found ${first.found}; allowed: ${first.allowed}.` });
        set({ status: { kind: 'running', share: 0 } });
        const { name, actions, until, talk, fromBoot } = scenario;
        void runner
          .run(
            design,
            { name, actions, until, talk, fromBoot },
            (share) => mine === ticket && set({ status: { kind: 'running', share } }),
          )
          .then((done) => {
            if (mine !== ticket) return;
            if (!done.ok) return clear({ kind: 'failed', why: done.error });
            const player = new Player(done.value);
            const t = Math.min(get().t, player.trace.until);
            set({
              status: { kind: 'done' },
              player,
              arrivals: arrivalsOf(player.trace.design, actions),
              ...shown(player, t, get().pair),
            });
          });
      },
      stop: () => runner.stop(),
      seek(t) {
        const { player } = get();
        if (!player) return;
        const at = Math.max(0, Math.min(player.trace.until, Math.round(t)));
        set(shown(player, at, get().pair));
      },
      playTo(to) {
        const { t, holds, seek, play } = get();
        const hold = holds.find((each) => each.t > t && each.t <= to);
        seek(hold?.t ?? to);
        if (hold) play(null);
      },
      step(by) {
        const { player, t, seek } = get();
        const to = by > 0 ? player?.next(t) : player?.previous(t);
        set({ playing: null });
        if (to !== null && to !== undefined) seek(to);
      },
      play(speed) {
        const { player, t, seek } = get();
        if (speed !== null && player && t >= player.trace.until) seek(0);
        set({ playing: player ? speed : null });
      },
      follow(pair) {
        const { instant } = get();
        const { solution } = workbench.getState();
        const passage = instant ?? (solution && settledPassage(solution));
        set({ pair, way: pair && passage ? followFrame(passage, pair.from, pair.to) : null });
      },
    };
  });

  // A clock is made while something is drawn: the workbench is told after that.
  queueMicrotask(() =>
    workbench.setState(({ clocks }) => ({
      clocks: new Map(clocks).set('Break', {
        ready: () => store.getState().player !== null,
        step: (by) => store.getState().step(by),
        playOrHalt: () => store.getState().play(store.getState().playing === null ? 0.01 : null),
        toStart: () => store.getState().seek(0),
      }),
    })),
  );

  // A scenario runs again once an edit has settled, as long as the clock is on screen.
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const warm = () => runnable(store.getState().scenario) || runner.warm(workbench.getState().design);
  if (workbench.getState().lens === 'Break') warm();
  workbench.subscribe((now, before) => {
    const { pair, instant, follow } = store.getState();
    if (now.solution !== before.solution && pair && !instant) follow(pair);
    if (now.design === before.design && now.lens === before.lens) return;
    if (now.lens !== 'Break') return store.getState().play(null);
    if (before.lens !== 'Break') warm();
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      const { scenario } = store.getState();
      const { design } = workbench.getState();
      if (!runnable(scenario) || (ranOn && !dirtyBetween(ranOn, design).run)) return;
      store.setState({ problems: scenarioProblems(scenario, design) });
      store.getState().run();
    }, calm);
  });
  return store;
}

/** The switches and links of a run's design that actions have put there. */
function arrivalsOf(design: Design, actions: readonly Action[]): ClockState['arrivals'] {
  const brought = actions.flatMap((action) => actionKind(action).brings?.(action, design) ?? []);
  const added = brought.flatMap(({ links }) => links);
  const switches = brought.flatMap((each) => each.switches);
  return switches.length + added.length === 0
    ? null
    : { switches, links: design.links.filter((link) => added.includes(link.id)) };
}

function shown(
  player: Player,
  t: Micros,
  pair: ClockState['pair'],
): Pick<ClockState, 't' | 'instant' | 'picture' | 'way'> {
  const instant = player.at(t);
  return { t, instant, picture: pictureOf(player, instant), way: pair && followFrame(instant, pair.from, pair.to) };
}

/** An instant as the map draws solutions; costs are not known of it, so only roots have a figure. */
function pictureOf({ trace }: Player, instant: Instant): Solution {
  const { network } = instant;
  const { switches, ports, firstPort } = network;
  const live = Uint8Array.from(ports, (_, p) => (instant.live(p) ? 1 : 0));
  const macOperational = Uint8Array.from(ports, (_, p) => (instant.macOperational(p) ? 1 : 0));
  const shut = Uint8Array.from(ports, (_, p) => instant.shut(p));
  const unknown = new Int32Array(Math.max(switches.length, ports.length)).fill(-1);
  const free = new Float64Array(switches.length);
  const nowhere = new Uint8Array(ports.length);
  const trees = trace.trees.map((id, t): SettledTree => {
    const role = new Uint8Array(ports.length);
    const designated = new Int32Array(ports.length);
    const root = new Int32Array(switches.length);
    for (let s = 0; s < switches.length; s += 1) {
      let [speaks, leads] = [false, false];
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
        const code = (role[p] = instant.inTree(t, p) ? ROLE_OF[instant.codes[t * ports.length + p]!]! : CODE.absent);
        designated[p] = code === 0 ? -1 : p;
        if (code === CODE.designated) speaks = true;
        if (code === CODE.root || code === CODE.master) leads = true;
      }
      root[s] = speaks && !leads ? s : -1;
    }
    return {
      id,
      role,
      root,
      rootPathCost: free,
      rootPort: unknown,
      rank: unknown,
      cost: unknown,
      designated,
      disputed: nowhere,
    };
  });
  return { network: { ...network, live, macOperational, shut }, trees };
}

/** A recording's code to a role of the settled kind. */
const ROLE_OF = Uint8Array.from({ length: 256 }, (_, code) => (RUN_ROLES[code & 7] ? CODE[runRoleOf(code)] : 0));

const clocks = new WeakMap<WorkbenchStore, ClockStore>();

/** The clock of a workbench; `runner` and `calm` are there for tests. */
export function clockOf(workbench: WorkbenchStore, runner: () => Runner = workerRunner, calm = CALM_MS): ClockStore {
  const clock = clocks.get(workbench) ?? createClock(workbench, runner(), calm);
  clocks.set(workbench, clock);
  return clock;
}

/** The clock's store, for event handlers. */
export const useClockStore = (): ClockStore => clockOf(useWorkbenchStore());

/** A part of the clock's state, or an action. */
export const useClock = <T>(select: (clock: Clock) => T): T => useStore(useClockStore(), select);

/** Something of the instant that the map shows; null where no lens shows one. */
export function useInstant<T>(
  select: (clock: Clock & { readonly instant: Instant; readonly picture: Solution }) => T,
): T | null {
  const breaking = useWorkbench((state) => onScreen(state, true) === 'instant');
  return useClock((clock) =>
    breaking && clock.instant && clock.picture
      ? select({ ...clock, instant: clock.instant, picture: clock.picture })
      : null,
  );
}

/** `1.001 005 s`. */
export function timeText(t: Micros): string {
  const [whole, part = ''] = (t / SECOND).toFixed(6).split('.');
  return `${whole}.${part.slice(0, 3)}${part.slice(3) === '000' ? '' : `\u202f${part.slice(3)}`} s`;
}
