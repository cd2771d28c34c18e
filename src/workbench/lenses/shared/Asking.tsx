'use client';
/** How far an answer is, with a way to stop it; or why there is none. */
import { TextButton } from '../../ui/TextButton';
import type { Stage } from '../../state/ask';
import styles from './group.module.css';

export function Asking({
  stage,
  stop,
  what,
}: {
  readonly stage: Stage<unknown>;
  readonly stop: () => void;
  readonly what: string;
}) {
  if (stage.kind === 'found' || stage.kind === 'idle') return null;
  if (stage.kind === 'refused') return <p className={styles.empty}>{stage.why}</p>;
  return (
    <p className={styles.empty} role="status">
      {what}, {Math.round(stage.share * 100)} %… <TextButton onClick={stop}>stop</TextButton>
    </p>
  );
}
