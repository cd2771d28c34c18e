'use client';
/** How far a search is, why there are no ways, or the ways to choose from. */
import { TextButton } from '../../ui/TextButton';
import { Offers, type Offer } from './Offers';
import styles from './steering.module.css';
import type { OnDemand } from '../../state/ask';

export function SearchStatus<T>({
  search: { status, clear },
  offer,
}: {
  readonly search: OnDemand<T[]>;
  readonly offer: (proposal: T) => Offer;
}) {
  switch (status.kind) {
    case 'idle':
      return null;
    case 'busy':
      return (
        <p className={styles.hint} role="status">
          Trying settings in the solver, {Math.round(status.share * 100)} %…{' '}
          <TextButton does="plain" onClick={clear}>
            cancel
          </TextButton>
        </p>
      );
    case 'refused':
      return (
        <p className={styles.fault} role="alert">
          {status.why}
        </p>
      );
    case 'found':
      return <Offers offers={status.value.map(offer)} of={status.of} done={clear} />;
  }
}
