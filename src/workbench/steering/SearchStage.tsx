'use client';
/** How far a search for ways to steer is, why there are none, or the ways to choose from. */
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import { Offers, offerOf } from './Offers';
import styles from './steering.module.css';
import type { SteerSearch } from './useSearch';

export function SearchStage({ search: { stage, clear } }: { readonly search: SteerSearch }) {
  const design = useWorkbench((state) => state.design);
  switch (stage.is) {
    case 'idle':
      return null;
    case 'busy':
      return (
        <p className={styles.hint} role="status">
          Trying settings in the solver, {Math.round(stage.share * 100)} %… <TextButton onClick={clear}>cancel</TextButton>
        </p>
      );
    case 'refused':
      return <p className={styles.fault} role="alert">{stage.why}</p>;
    case 'found':
      return <Offers offers={stage.proposals.map(offerOf(design))} of={stage.of} done={clear} />;
  }
}
