/**
 * Works out what failures do once the design has been left alone for a moment: settled, of all kinds in the Prove lens, else of
 * those that intents name; run by the protocols, where an intent asks for times or people do.
 */
import { useEffect, useMemo, useRef, useState } from 'react';
import { joined, watchedIn } from '../../core/analysis/failures/everyFailure';
import {
  FAILURE_KINDS,
  failuresOf,
  inTwos,
  type Failure,
  type FailureKind,
} from '../../core/analysis/failures/failure';
import { dirtyBetween } from '../../core/model/derive/dirty';
import type { Design } from '../../core/model/document';
import type { Solution } from '../../core/tree/settled';
import { useAsk, type Ask, type AskStatus } from '../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../state/context';
import type { Background, FailedRuns } from '../state/failures';
import { askEveryFailure, askRuns, type Pieces } from '../state/questions';

/** Several edits in a row are worked out once. */
const CALM_MS = 600;

export function useFailures(): void {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const design = useFollowing((state) => state.design);
  const proving = useWorkbench((state) => state.lens === 'Prove');
  const running = useWorkbench((state) => state.runsWanted);
  const twos = useWorkbench((state) => state.pairsWanted);
  const named = useMemo(() => {
    const watched = watchedIn(design);
    const kindsOf = (all: typeof watched): string =>
      kindsText((kind) => all.some(({ meant }) => meant.whatever!.includes(kind)));
    return { settled: kindsOf(watched), run: kindsOf(watched.filter(({ meant }) => meant.claim.judgeRun)) };
  }, [design]);
  const every = kindsText(() => true);
  useBackground(
    useWanted(solution, design, proving ? every + (twos ? ` ${TWOS}` : '') : named.settled, askEveryFailure),
    (pieces) => joined(pieces),
    (change) => store.setState({ failures: change(store.getState().failures) }),
  );
  useBackground(
    useWanted(solution, design, running ? every : named.run, askRuns),
    (pieces): FailedRuns => ({
      runs: pieces.flat().flatMap((each) => (each.ok ? [each.value] : [])),
      refused: [...new Set(pieces.flat().flatMap((each) => (each.ok ? [] : [each.error])))],
    }),
    (change) => store.setState({ runs: change(store.getState().runs) }),
  );
}

/** Beside the kinds: two at a time as well. */
const TWOS = 'two';

const kindsText = (counts: (kind: FailureKind) => boolean): string => FAILURE_KINDS.filter(counts).join(' ');

/** The question about failures of some kinds; the same one while nothing that a run reads has changed, nor an intent. */
function useWanted<T>(
  solution: Solution | null,
  design: Design,
  kinds: string,
  ask: (design: Design, failures: readonly Failure[]) => Ask<T>,
): { readonly ask: Ask<T> | null; readonly of: Design } {
  const [kept, keep] = useState<{ readonly ask: Ask<T>; readonly kinds: string } | null>(null);
  const asked = useMemo(() => {
    if (!solution || kinds === '') return null;
    if (kept?.kinds === kinds && saysTheSame(kept.ask.of, design)) return kept;
    const words = kinds.split(' ');
    const failures: readonly Failure[] = failuresOf(
      solution,
      FAILURE_KINDS.filter((kind) => words.includes(kind)),
    );
    const all = words.includes(TWOS) ? [...failures, ...inTwos(failures)] : failures;
    return { ask: ask(design, all), kinds };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `ask` is made anew each time and says the same
  }, [solution, design, kinds, kept]);
  if (asked !== kept && asked) keep(asked);
  return { ask: asked?.ask ?? null, of: design };
}

const saysTheSame = (before: Design, now: Design): boolean =>
  before === now || (!dirtyBetween(before, now).run && lines(before) === lines(now));
const lines = ({ intents }: Design): string => intents.map(({ id, line }) => `${id} ${line}`).join('\n');

/** Asks, and tells a part of the store how it stands. */
function useBackground<P, T>(
  { ask: wanted, of }: { readonly ask: Ask<Pieces<P>> | null; readonly of: Design },
  join: (pieces: readonly P[]) => T,
  tell: (change: (before: Background<T>) => Background<T>) => void,
): void {
  const present = useWorkbench((state) => state.looking.kind === 'present');
  // While another state is looked at, the answer on the present one stands.
  const [asked, setAsked] = useState<Ask<Pieces<P>> | null>(null);
  const first = useRef(true);
  useEffect(() => {
    if (!present) return;
    const timer = setTimeout(() => setAsked(wanted), first.current ? 0 : CALM_MS);
    first.current = false;
    return () => clearTimeout(timer);
  }, [wanted, present]);
  const { status, stop } = useAsk(asked);
  const answer = useMemo(
    () => (status.kind === 'found' ? join(status.value.pieces) : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `join` is made anew each time and says the same
    [status],
  );
  useEffect(() => {
    if (!present) return;
    // What was found is about what was asked, until that is another thing.
    const current = asked === wanted;
    tell((before) => ({
      ...standOf(current ? status : wanted ? { kind: 'busy', share: 0 } : { kind: 'idle' }),
      found:
        current && wanted && status.kind === 'found' && answer
          ? { of, all: answer, whole: status.value.answered === status.value.asked }
          : before.found,
      stop,
    }));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `tell` is made anew each time and does the same
  }, [status, answer, stop, present, of, asked, wanted]);
}

const standOf = (status: AskStatus<unknown>): Pick<Background<unknown>, 'kind' | 'share' | 'why'> => ({
  kind: status.kind === 'idle' ? 'none' : status.kind,
  share: status.kind === 'busy' ? status.share : 0,
  why: status.kind === 'refused' ? status.why : '',
});
