'use client';
/** A line above the map with the next thing to do; it goes on by itself once that is done, and can be left. */
import { useEffect, useState } from 'react';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { TextButton } from '../ui/TextButton';
import styles from './frame.module.css';
import { STEPS } from './tourSteps';

/** How often it looks whether a step is done, ms: a run begins and ends without the workbench's saying so. */
const LOOK_MS = 300;

export function Tour() {
  const store = useWorkbenchStore();
  const step = useWorkbench((state) => state.tour);
  const goOn = useWorkbench((state) => state.setTour);
  const text = useWorkbench((state) => (state.tour === null ? '' : (STEPS[state.tour]?.does(state) ?? '')));
  const [finished, setFinished] = useState(false);
  useEffect(() => {
    if (step === null) return;
    const begun = store.getState();
    const looking = setInterval(() => {
      if (!STEPS[step]?.done(store.getState(), begun)) return;
      if (step + 1 === STEPS.length) setFinished(true);
      goOn(step + 1 < STEPS.length ? step + 1 : null);
    }, LOOK_MS);
    return () => clearInterval(looking);
  }, [step, store, goOn]);
  if (step === null)
    return finished ? (
      <p className={styles.tour} role="status">
        <span>That was the tour. Find (Ctrl+K) has it again, and Keys lists every shortcut.</span>
        <TextButton does="plain" onClick={() => setFinished(false)}>
          close
        </TextButton>
      </p>
    ) : null;
  return (
    <div className={styles.tour} role="region" aria-label="Tour">
      <b>
        {step + 1} of {STEPS.length}
      </b>
      <span role="status">{text}</span>
      <TextButton does="plain" onClick={() => goOn(step + 1 < STEPS.length ? step + 1 : null)}>
        skip this
      </TextButton>
      <TextButton does="plain" onClick={() => goOn(null)} title="Find (Ctrl+K) has it again">
        leave the tour
      </TextButton>
    </div>
  );
}
