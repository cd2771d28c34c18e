'use client';
/** How far an answer is, with a way to stop it; or why there is none. */
import { TextButton } from '../../ui/TextButton';
import type { Answer } from '../../state/useAnswer';
import styles from './group.module.css';

export function Asking({
  answer,
  stop,
  what,
}: {
  readonly answer: Answer<unknown>;
  readonly stop: () => void;
  readonly what: string;
}) {
  if (answer.kind === 'found') return null;
  if (answer.kind === 'refused') return <p className={styles.empty}>{answer.why}</p>;
  return (
    <p className={styles.empty} role="status">
      {what}, {Math.round(answer.share * 100)} %… <TextButton onClick={stop}>stop</TextButton>
    </p>
  );
}
