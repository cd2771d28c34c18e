'use client';
/** How far a search is, why there are no ways, or the ways to choose from. */
import { TextButton } from '../../ui/TextButton';
import { Offers, type Offer } from './Offers';
import styles from './steering.module.css';
import type { OnDemand } from '../../state/ask';

export function SearchStage<T>({
  search: { stage, clear },
  offer,
}: {
  readonly search: OnDemand<T[]>;
  readonly offer: (proposal: T) => Offer;
}) {
  switch (stage.kind) {
    case 'idle':
      return null;
    case 'busy':
      return (
        <p className={styles.hint} role="status">
          Trying settings in the solver, {Math.round(stage.share * 100)} %…{' '}
          <TextButton onClick={clear}>cancel</TextButton>
        </p>
      );
    case 'refused':
      return (
        <p className={styles.fault} role="alert">
          {stage.why}
        </p>
      );
    case 'found':
      return <Offers offers={stage.value.map(offer)} of={stage.of} done={clear} />;
  }
}
