'use client';
/** What stands where there is no run to tell of. */
import { useClock } from '../../state/clock';
import styles from '../shared/clock.module.css';

export function NoRun() {
  const status = useClock((clock) => clock.status);
  if (status.kind === 'failed')
    return (
      <p className={styles.fault} role="alert">
        {status.why}
      </p>
    );
  return (
    <p className={styles.hint}>
      {status.kind === 'running'
        ? 'The protocols run.'
        : 'Nothing has run yet: choose a scenario on the timeline, or select something on the map and say what happens to it.'}
    </p>
  );
}
