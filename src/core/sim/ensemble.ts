/**
 * All parts of a run: a share that is run here, and those that helpers run meanwhile, each in a worker of its own. All come to a
 * moment before any goes on, and what they have written down is put together as one.
 */
import type { TreeId } from '../model/ids';
import type { Micros } from '../modes/entity';
import type { Network } from '../topology/network';
import type { TreeView } from '../tree/settled';
import { unpackWritten, type Answer, type Helper, type PackedShare } from './helper';
import { MOST_FLUSHES, MOST_RESTLESS } from './recorder';
import type { PortInTree, Run, TraceEntry } from './run';
import { Share, type OfTree, type ShareOf, type Standing, type Went } from './share';
import { joinFlushes, joinReaches, joinRecordings, joinStorms, type Written } from './trace/joined';
import { byStart } from './traffic/dataPlane';

/** Steps of a run: nothing, or what is to be waited for; answered with whether it is to go on. */
export type Steps<T> = Generator<void | Promise<unknown>, T, boolean>;

/** What a run leaves behind of all parts. */
export type Records = Pick<
  Run,
  | 'recording'
  | 'sent'
  | 'flushes'
  | 'signal'
  | 'members'
  | 'negotiation'
  | 'outages'
  | 'reach'
  | 'storms'
  | 'unfollowed'
>;

export class Ensemble {
  readonly trees: readonly TreeId[];
  private readonly own: Share;
  private readonly helpers: readonly Helper[];
  /** How the helpers' shares stand. */
  private standings: readonly Answer[] = [];
  private readonly shares: readonly ShareOf[];

  /** No more helpers are used than there are parts for. */
  constructor(of: Omit<ShareOf, 'own'>, helpers: readonly Helper[]) {
    const { parts, trees } = of;
    const workers = Math.min(parts.length, helpers.length + 1);
    // In turn: what happens to a tree happens to those beside it more often than to others.
    this.shares = Array.from({ length: workers }, (_, w) => ({
      ...of,
      own: [...parts.keys()].filter((p) => p % workers === w),
    }));
    this.trees = trees;
    this.helpers = helpers.slice(0, workers - 1);
    this.own = new Share(this.shares[0]!);
    void this.asked((helper, share) => helper.start(this.shares[share]!));
  }

  /** Does the same here and at every helper, at one time. */
  private *all(own: () => Generator<void, Went, boolean>, others: (helper: Helper) => Promise<Answer>): Steps<Went> {
    const answers = this.asked(async (helper) => await others(helper));
    let went = yield* own();
    if (!answers) return went;
    let given: readonly Answer[] = [];
    if (!(yield answers.then((all) => (given = all)))) went = 'stopped';
    this.standings = given;
    return [went, ...given.map((each) => each.went)].find((each) => each !== 'there') ?? 'there';
  }

  /** What all helpers answer; null where there are none. */
  private asked<T>(question: (helper: Helper, share: number) => Promise<T>): Promise<T[]> | null {
    if (this.helpers.length === 0) return null;
    const answers = Promise.all(this.helpers.map((helper, i) => question(helper, i + 1)));
    answers.catch(() => undefined); // who waits for it hears of it
    return answers;
  }

  private *heard<T>(question: (helper: Helper) => Promise<T>): Steps<readonly T[]> {
    let heard: readonly T[] = [];
    const answers = this.asked(question);
    if (answers) yield answers.then((all) => (heard = all));
    return heard;
  }

  /** Every switch that has power is switched on; `recorded`: the run begins with it. */
  *boot(recorded: boolean): Steps<Went> {
    const { own } = this;
    return yield* this.all(
      () => atOnce(() => own.boot(recorded)),
      (helper) => helper.boot(recorded),
    );
  }

  /** Puts all parts where they come to rest; where one cannot begin so, 'spent': it is to be booted. */
  *beginAtRest(): Steps<Went> {
    const went = yield* this.all(
      () => this.own.beginAtRest(),
      (helper) => helper.beginAtRest(),
    );
    if (went !== 'there') return went;
    return yield* this.runTo(Math.max(...this.everybody.map(({ furthest }) => furthest)), Infinity);
  }

  /** Runs every part up to a moment. */
  *runTo(until: Micros, mostEvents: number): Steps<Went> {
    const { events } = this;
    const rest = (own: number): number => mostEvents - (events - own);
    const before = this.standings;
    return yield* this.all(
      () => this.own.runTo(until, rest(this.own.events)),
      (helper) => helper.runTo(until, rest(before[this.helpers.indexOf(helper)]?.events ?? 0)),
    );
  }

  private get everybody(): readonly Standing[] {
    return [this.own.standing, ...this.standings];
  }
  /** How far it is: those that are ahead count for what they are. */
  get now(): Micros {
    const all = this.everybody;
    return all.reduce((sum, { now }) => sum + now, 0) / all.length;
  }
  get events(): number {
    return this.standings.reduce((sum, { events }) => sum + events, this.own.events);
  }
  /** When a port of a tree changed last. */
  get lastChange(): Micros {
    return Math.max(...this.everybody.map(({ lastChange }) => lastChange));
  }
  /** Why an action could not be done; null where all could. */
  get refused(): string | null {
    return this.own.refused;
  }
  /** As it is now. */
  get network(): Network {
    return this.own.network;
  }

  /** The scenario begins: its actions are on the clock of each part. */
  *begin(start: Micros): Steps<Went> {
    const { own } = this;
    return yield* this.all(
      () => atOnce(() => own.begin(start)),
      (helper) => helper.begin(start),
    );
  }

  *rests(): Steps<boolean> {
    return this.own.rests && (yield* this.heard((helper) => helper.rests())).every((rests) => rests);
  }

  /** From now on nothing is written down but which ports change. */
  watchRestless(): void {
    void this.asked((helper) => helper.watchRestless());
    this.own.watchRestless();
  }

  /** Ports that have changed since then. */
  *restlessPorts(): Steps<PortInTree[]> {
    const others = yield* this.heard((helper) => helper.restlessPorts());
    return [...this.own.restlessPorts(), ...others.flat()].slice(0, MOST_RESTLESS);
  }

  /** What has been written down, which ports are on their way, and, where they are wanted, how the trees stand. */
  *told(
    views: boolean,
  ): Steps<{ readonly records: Records; readonly moving: TraceEntry[]; readonly views: TreeView[] }> {
    const answers = this.asked((helper) => helper.written(views));
    const { own } = this;
    const [moving, seen] = [own.onTheWay(), views ? own.views() : []];
    let others: readonly PackedShare[] = [];
    if (answers) yield answers.then((all) => (others = all));
    return {
      records: this.joined(own.written(), others),
      moving: inOrderOf(moving, ...others.map((each) => each.moving)).flat(),
      views: inOrderOf(seen, ...others.map((each) => each.views)),
    };
  }

  /** `first`: of the part that writes down what all share. */
  private joined(own: readonly Written[], others: readonly PackedShare[]): Records {
    const { sent, first } = this.own;
    const { parts } = this.own.of;
    const { signal, members, negotiation, plane } = first;
    for (const [i, other] of others.entries()) sent.take(other.sent, () => this.helpers[i]!.words());
    const shared = { signal, members, negotiation, sent, unfollowed: plane!.unfollowed };
    if (parts.length === 1 && parts[0]!.alike.size === 0) return { ...shared, ...own[0]! };
    const written = [own, ...others.map((each) => unpackWritten(each, plane!.reach.pairs))];
    const all = inOrderOf(...written.map((each, w) => each.map((part, i) => [this.shares[w]!.own[i]!, part] as const)));
    const of = <K extends keyof Written>(key: K): Written[K][] => all.map((each) => each[key]);
    return {
      ...shared,
      outages: of('outages').flat().sort(byStart),
      reach: joinReaches(of('reach')),
      storms: joinStorms(of('storms')),
      recording: joinRecordings(parts, of('recording'), this.trees.length),
      flushes: joinFlushes(parts, of('flushes'), MOST_FLUSHES),
    };
  }

  /** Helpers let go of what they have. */
  close(): void {
    void this.asked((helper) => helper.end());
  }
}

/** Something of each tree or part, in their order. */
const inOrderOf = <T>(...lists: readonly (readonly OfTree<T>[])[]): T[] =>
  lists
    .flat()
    .sort(([a], [b]) => a - b)
    .map(([, it]) => it);

// eslint-disable-next-line require-yield
function* atOnce(done: () => void): Generator<void, Went, boolean> {
  done();
  return 'there';
}
