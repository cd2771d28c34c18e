/** A run as plain data that travels from worker to page, and what is read off it at any instant. */
import type { Ending, Run } from '../run';
import { isOpen } from '../../model/document';
import { SHUT_BY } from '../../model/guard';
import type { TreeId } from '../../model/ids';
import type { Action } from '../../model/scenario';
import type { Design } from '../../model/document';
import { SECOND, type Micros, type RunRole, type RunState } from '../../modes/entity';
import { compileNetwork, type Network } from '../../topology/network';
import type { ShutPort } from '../../topology/shut';
import { spokenIn, type Spoken } from '../engine/places';
import { afterAction, turnsIn } from '../scenario/scenario';
import type { Outage, Storm } from '../traffic/dataPlane';
import { orderOf, type OrderLine } from '../report/order';
import type { Passage } from '../traffic/passage';
import { Reach, type HostPair, type OutageCause } from '../traffic/reach';
import { isHeld, runRoleOf, runStateOf } from './recording';
import { USES, type MemberMark } from './memberLog';
import { ARRIVES, CARRIES, OPERATIONAL, LIVE, SHUT_SHIFT } from '../engine/signal';
import { Timeline, type TimelineData } from './timeline';

/** Times in microseconds since the start. */
export interface Trace {
  /** The design that ran: with everything that the scenario brought along. */
  readonly design: Design;
  readonly trees: readonly TreeId[];
  /** Where it ends: earlier than the scenario's end where it was stopped. */
  readonly until: Micros;
  /** Tree x ports + port. */
  readonly states: TimelineData;
  readonly signal: TimelineData;
  /** What members of bundles are used for, and how they stand. */
  readonly uses: TimelineData;
  readonly members: readonly MemberMark[];
  readonly pairs: readonly HostPair[];
  readonly reach: TimelineData;
  /** When BPDUs went out, of which port, in which tree. */
  readonly sent: { readonly times: Float64Array; readonly ports: Uint32Array; readonly trees: Uint16Array };
  /** When addresses were forgotten, in rising order. */
  readonly flushes: Float64Array;
  readonly actions: readonly Action[];
  readonly outages: readonly Outage[];
  readonly storms: readonly Storm[];
  readonly order: readonly OrderLine[];
  /** Microseconds; null where something still moves at the end. */
  readonly settledAt: Micros | null;
  readonly ending: Ending;
  /** Ports that never came to rest before it began; null where all did. */
  readonly restlessBefore: Run['restlessBefore'];
  readonly stopped: boolean;
  readonly unfollowed: number;
  readonly unkept: number;
}

export function traceOf(run: Run, actions: readonly Action[], until: number): Trace {
  return {
    design: run.design,
    trees: run.trees,
    until: Math.round((run.stopped ? run.reached : until) * SECOND),
    states: run.recording.data(),
    signal: run.signal.data(),
    uses: run.members.uses.data(),
    members: run.members.marks,
    pairs: run.reach.pairs,
    reach: run.reach.data(),
    sent: run.sent.marks(),
    flushes: run.flushes.data().times,
    actions,
    outages: run.outages,
    storms: run.storms,
    order: orderOf(run, actions),
    settledAt: run.settledAt === null ? null : Math.round(run.settledAt * SECOND),
    ending: run.ending,
    restlessBefore: run.restlessBefore,
    stopped: run.stopped,
    unfollowed: run.unfollowed,
    unkept: run.sent.left,
  };
}

/** When a member came to stand otherwise: not every message that it heard. */
function turns(marks: readonly MemberMark[]): Micros[] {
  const before = new Map<number, string>();
  return marks.flatMap(({ t, member, state, machines }) => {
    const stands = `${state} ${machines?.rx} ${machines?.mux}`;
    if (before.get(member) === stands) return [];
    before.set(member, stands);
    return t > 0 ? [t] : [];
  });
}

/** What is shut stands in the signals. */
const NOTHING_SHUT: readonly ShutPort[] = [];

/** The network of a trace at one instant. */
export interface Instant extends Passage {
  readonly t: Micros;
  state(tree: number, port: number): RunState;
  role(tree: number, port: number): RunRole;
  /** Whether loop guard holds a port. */
  isHeld(tree: number, port: number): boolean;
  /** Whether a port is in a tree then. */
  inTree(tree: number, port: number): boolean;
  live(port: number): boolean;
  /** What shut a port (`SHUT_BY`), 0 where nothing did. */
  shut(port: number): number;
  /** Whether a aggregationPort has signal. */
  macOperational(aggregationPort: number): boolean;
  /** State and role of tree x ports + port, as coded in recordings. */
  readonly codes: Uint8Array;
  /** In the order of the trace's pairs. */
  readonly causes: readonly (OutageCause | null)[];
}

/** A stretch of time in which a place keeps its code. */
export interface Stretch {
  readonly from: Micros;
  readonly to: Micros;
  readonly state: RunState;
  readonly role: RunRole;
}

export class Player {
  readonly network: Network;
  readonly reach: Reach;
  /** When something changed: a port, a signal, a pair; in rising order, each moment once. */
  readonly moments: Float64Array;
  private readonly states: Timeline;
  private readonly signal: Timeline;
  private readonly uses: Timeline;
  /** By what members are used for, and what has been spoken by then. */
  private readonly networks = new Map<string, Spoken & { readonly network: Network }>();
  private readonly turns: readonly Action[];

  readonly trace: Trace;

  constructor(trace: Trace) {
    this.trace = trace;

    this.states = Timeline.from(trace.states);
    this.signal = Timeline.from(trace.signal);
    this.uses = Timeline.from(trace.uses);
    this.turns = this.trace.design.switches.some(({ pair }) => pair)
      ? trace.actions.toSorted((a, b) => a.at - b.at) // cables and power make pairs one, or two
      : turnsIn(trace.actions);
    this.network = this.networkAt(0).network;
    this.reach = new Reach(trace.pairs, trace.reach);
    this.moments = Float64Array.from(
      new Set([
        ...trace.states.times,
        ...trace.signal.times,
        ...trace.reach.times,
        ...trace.uses.times,
        ...turns(trace.members),
        ...trace.actions.map((action) => Math.round(action.at * SECOND)),
      ]),
    ).sort();
  }

  /** How a bundle's member stands at an instant; null where nothing is known. */
  memberAt(member: number, t: Micros): MemberMark | null {
    return this.trace.members.findLast((mark) => mark.member === member && mark.t <= t) ?? null;
  }

  /** The network with the members in use at an instant, and what its switches speak. */
  private networkAt(t: Micros): Spoken & { readonly network: Network } {
    const picture = this.uses.pictureAt(t);
    const turned = this.turns.filter(({ at }) => at * SECOND <= t);
    const key = `${turned.length} ${picture.join('')}`;
    const known = this.networks.get(key);
    if (known) return known;
    const design = turned.reduce(afterAction, this.trace.design);
    const uses = picture.length === 0 ? null : Array.from(picture, (code) => USES[code]!);
    const network = compileNetwork(design, uses, NOTHING_SHUT);
    const found = { network, ...spokenIn(network, this.trace.trees) };
    this.networks.set(key, found);
    return found;
  }

  at(t: Micros): Instant {
    const { network, treeFor, places } = this.networkAt(t);
    const ports = network.ports.length;
    const states = this.states.pictureAt(t);
    const signal = this.signal.pictureAt(t);
    const state = (tree: number, port: number): RunState => runStateOf(states[tree * ports + port]!);
    const { reach } = this;
    let causes: readonly (OutageCause | null)[] | null = null;
    return {
      t,
      network,
      codes: states,
      state,
      inTree: (tree, port) => places[tree]![port]! >= 0,
      role: (tree, port) => runRoleOf(states[tree * ports + port]!),
      isHeld: (tree, port) => isHeld(states[tree * ports + port]!),
      shut: (port) => signal[port]! >> SHUT_SHIFT,
      live: (port) => (signal[port]! & LIVE) !== 0,
      macOperational: (aggregationPort) => (signal[aggregationPort]! & OPERATIONAL) !== 0,
      carries: (port) => (signal[port]! & CARRIES) !== 0,
      arrives: (aggregationPort) => (signal[aggregationPort]! & ARRIVES) !== 0,
      passes: (vid, port) => {
        const s = network.owner[port]!;
        if (!(signal[port]! & LIVE) || !network.carried[port]!.has(vid)) return false;
        if (isOpen(network.switches[s]!, network.ports[port]!)) return true;
        const tree = treeFor(port, vid);
        return tree >= 0 && state(tree, port) === 'forwarding';
      },
      get causes() {
        return (causes ??= reach.causesAt(t));
      },
    };
  }

  /** The ports that are shut at an instant, since when, and when each opens by itself; null where that is not known, or never. */
  shutAt(t: Micros): { readonly port: number; readonly since: Micros | null; readonly opens: Micros | null }[] {
    const { signal } = this;
    const { switches, owner } = this.network;
    const shut = (code: number): boolean => code >> SHUT_SHIFT !== 0;
    return [...signal.pictureAt(t).entries()].flatMap(([port, code]) => {
      if (!shut(code)) return [];
      let since: Micros | null = null;
      for (let i = signal.until(t) - 1; i >= 0; i -= 1) {
        if (signal.placeOf(i) !== port) continue;
        if (!shut(signal.after(i))) break;
        since = signal.timeOf(i);
      }
      const { recovery, pair } = switches[owner[port]!]!;
      const after = code >> SHUT_SHIFT === SHUT_BY.pairWaits ? pair?.delay : recovery;
      return [{ port, since, opens: since === null || after === undefined ? null : since + after * SECOND }];
    });
  }

  /** The next moment after an instant at which something changes; null where none does. */
  next(t: Micros): Micros | null {
    return this.moments.find((moment) => moment > t) ?? null;
  }
  previous(t: Micros): Micros | null {
    return this.moments.findLast((moment) => moment < t) ?? null;
  }

  /** Every port of every tree that changed, with its stretches of time. */
  lanes(): { readonly tree: number; readonly port: number; readonly stretches: readonly Stretch[] }[] {
    const {
      trace: {
        states: { times, places, codes, start },
        until,
      },
      network,
    } = this;
    const changes = new Map<number, number[]>();
    places.forEach((place, i) => changes.set(place, [...(changes.get(place) ?? []), i]));
    return [...changes]
      .sort(([a], [b]) => a - b)
      .map(([place, all]) => {
        const marks = [{ t: 0, code: start[place]! }, ...all.map((i) => ({ t: times[i]!, code: codes[i]! }))];
        const stretches = marks.flatMap(({ t, code }, i): Stretch[] => {
          const to = marks[i + 1]?.t ?? until;
          return to > t ? [{ from: t, to, state: runStateOf(code), role: runRoleOf(code) }] : [];
        });
        return { tree: Math.floor(place / network.ports.length), port: place % network.ports.length, stretches };
      });
  }
}
