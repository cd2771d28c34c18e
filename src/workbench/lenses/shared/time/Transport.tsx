'use client';
/** The instant shown, steps from change to change, and how fast time is played. */
import Button from '@mui/material/Button';
import type { Speed } from '../../../state/clock';
import { TextButton } from '../../../ui/TextButton';
import styles from '../clock.module.css';
import type { Played } from './played';

export type SpeedChoice = readonly [speed: Speed, label: string, title: string];

export function Transport({ time, speeds }: { readonly time: Played; readonly speeds: readonly SpeedChoice[] }) {
  const { t, playing, play, step, seek, text } = time;
  return (
    <>
      <output className={styles.time} aria-label="Instant">
        {text(t)}
      </output>
      <span className={styles.steps}>
        <TextButton does="plain" onClick={() => seek(0)} aria-label="To the start">
          start
        </TextButton>
        <Button size="small" variant="outlined" onClick={() => step(-1)} aria-label="Back to the previous change">
          Back
        </Button>
        <Button size="small" variant="outlined" onClick={() => step(1)} aria-label="Next change">
          Next change
        </Button>
      </span>
      <span className={styles.speeds} role="group" aria-label="Play">
        Play
        {speeds.map(([speed, label, title]) => (
          <TextButton
            key={String(speed)}
            title={title}
            aria-pressed={playing === speed}
            onClick={() => play(playing === speed ? null : speed)}
          >
            {label}
          </TextButton>
        ))}
        {playing !== null && (
          <TextButton does="plain" onClick={() => play(null)}>
            Pause
          </TextButton>
        )}
      </span>
    </>
  );
}
