/** A share of a run in a worker of its own: what it is told to do, and what it has written down as data that travels. */
import type { Micros } from '../modes/entity';
import type { TreeView } from '../tree/settled';
import type { PortInTree, TraceEntry } from './run';
import { Share, type OfTree, type ShareOf, type Standing, type Went } from './share';
import { FlushLog, type FlushData } from './trace/flushLog';
import type { Written } from './trace/joined';
import { packRecording, unpackRecording, type PackedRecording } from './trace/packed';
import type { SentLog, SentRows, SentWords } from './trace/sentLog';
import type { TimelineData } from './trace/timeline';
import { Reach, type HostPair } from './traffic/reach';

/** Where it got to with what it was told, and how it stands. */
export interface Answer extends Standing {
  readonly went: Went;
}

/** What one part has written down. */
interface PackedWritten extends Pick<Written, 'outages' | 'storms'> {
  readonly recording: PackedRecording;
  readonly flushes: FlushData;
  readonly reach: TimelineData;
}

/** All that a share has written down, and how it stands at the end. */
export interface PackedShare {
  readonly sent: SentRows;
  readonly written: readonly PackedWritten[];
  readonly moving: readonly OfTree<readonly TraceEntry[]>[];
  readonly views: readonly OfTree<TreeView>[];
}

/** The worker's side. Each thing is done to its end: nobody can say stop meanwhile. */
export function createHelping() {
  let share: Share | null = null;
  let log: SentLog | null = null;
  const own = (): Share => {
    if (!share) throw new Error('nothing has been started');
    return share;
  };
  const answer = (went: Went): Answer => ({ went, ...own().standing });
  const through = (steps: Generator<void, Went, boolean>): Answer => {
    for (let step = steps.next(true); ; step = steps.next(true)) if (step.done) return answer(step.value);
  };
  return {
    start(of: ShareOf): void {
      log = null;
      share = new Share(of);
    },
    beginAtRest: (): Answer => through(own().beginAtRest()),
    boot(recorded: boolean): Answer {
      own().boot(recorded);
      return answer('there');
    },
    runTo: (until: Micros, mostEvents: number): Answer => through(own().runTo(until, mostEvents)),
    begin(start: Micros): Answer {
      own().begin(start);
      return answer('there');
    },
    rests: (): boolean => own().rests,
    watchRestless: (): void => own().watchRestless(),
    restlessPorts: (): PortInTree[] => own().restlessPorts(),
    written(views: boolean): PackedShare {
      const written = own()
        .written()
        .map(({ recording, flushes, reach, ...others }): PackedWritten => ({
          ...others,
          recording: packRecording(recording),
          flushes: flushes.data(),
          reach: reach.data(),
        }));
      log = own().sent;
      const sent = log.data();
      return { sent, written, moving: own().onTheWay(), views: views ? own().views() : [] };
    },
    /** What was sent in the run that was told of last. */
    words(): SentWords {
      if (!log) throw new Error('that run is forgotten');
      return log.words();
    },
    /** Lets go of what has run; what was sent can still be asked for. */
    end(): void {
      share = null;
    },
  };
}

type Helping = ReturnType<typeof createHelping>;

/** The other side of it. */
export type Helper = {
  readonly [K in keyof Helping]: (...args: Parameters<Helping[K]>) => Promise<ReturnType<Helping[K]>>;
};

/** `pairs`: of hosts, the same ones in all parts. */
export const unpackWritten = ({ written }: PackedShare, pairs: readonly HostPair[]): Written[] =>
  written.map(({ recording, flushes, reach, outages, storms }) => ({
    recording: unpackRecording(recording),
    flushes: FlushLog.from(flushes),
    reach: new Reach(pairs, reach),
    outages,
    storms,
  }));

/** The buffers in what a helper answers, which may be handed over instead of copied. */
export function buffersOf(answer: unknown): ArrayBuffer[] {
  if (ArrayBuffer.isView(answer)) return [answer.buffer as ArrayBuffer];
  if (typeof answer !== 'object' || answer === null) return [];
  return Object.values(answer).flatMap(buffersOf);
}
