/** Works out what every failure does once the design has been left alone for a moment: of all kinds in the Prove lens, else of those that intents name. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { watchedIn } from '../../core/analysis/failures/everyFailure';
import { FAILURE_KINDS } from '../../core/analysis/failures/failure';
import type { EveryFailure } from '../../core/analysis/failures/everyFailure';
import { useAsk, type Ask } from '../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../state/context';
import { askEveryFailure } from '../state/questions';

/** Several edits in a row are worked out once. */
const CALM_MS = 600;

export function useFailures(): void {
  const store = useWorkbenchStore();
  const present = useWorkbench((state) => state.looking.kind === 'present');
  const design = useFollowing((state) => state.design);
  const settled = useFollowing((state) => state.solution !== null);
  const proving = useWorkbench((state) => state.lens === 'Prove');
  const kinds = useMemo(() => {
    const named = watchedIn(design).flatMap(({ meant }) => meant.whatever ?? []);
    return FAILURE_KINDS.filter((kind) => proving || named.includes(kind)).join(' ');
  }, [design, proving]);
  const wanted = useMemo(
    () =>
      settled && kinds !== ''
        ? askEveryFailure(
            design,
            FAILURE_KINDS.filter((kind) => kinds.split(' ').includes(kind)),
          )
        : null,
    [design, kinds, settled],
  );
  // While another state is looked at, the answer on the present one stands.
  const [asked, setAsked] = useState<Ask<EveryFailure> | null>(null);
  const first = useRef(true);
  useEffect(() => {
    if (!present) return;
    const timer = setTimeout(() => setAsked(wanted), first.current ? 0 : CALM_MS);
    first.current = false;
    return () => clearTimeout(timer);
  }, [wanted, present]);
  const { status, stop } = useAsk(asked);
  useEffect(() => {
    if (!present) return;
    const { failures } = store.getState();
    const found = status.kind === 'found' ? { of: status.of, all: status.value } : failures.found;
    store.setState({
      failures: {
        kind: status.kind === 'idle' ? 'none' : status.kind,
        share: status.kind === 'busy' ? status.share : 0,
        why: status.kind === 'refused' ? status.why : '',
        found,
        stop,
      },
    });
  }, [store, status, stop, present]);
}
