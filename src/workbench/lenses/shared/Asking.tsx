'use client';
/** How far an answer is, with a way to stop it; or why there is none. */
import { TextButton } from '../../ui/TextButton';
import type { AskStatus } from '../../state/ask';
import styles from './group.module.css';

export function Asking({
  status,
  stop,
  what,
}: {
  readonly status: AskStatus<unknown>;
  readonly stop: () => void;
  readonly what: string;
}) {
  if (status.kind === 'found' || status.kind === 'idle') return null;
  if (status.kind === 'refused') return <p className={styles.empty}>{status.why}</p>;
  return (
    <p className={styles.empty} role="status">
      {what}, {Math.round(status.share * 100)} %…{' '}
      <TextButton does="plain" onClick={stop}>
        stop
      </TextButton>
    </p>
  );
}
