'use client';
/** What the settings that were read come to by the standards, beside what the switches say. */
import { useMemo } from 'react';
import { counted } from '../../../core/base/words';
import { predict } from '../../../core/exchange/observation/predict';
import { useObservation } from '../../state/observation';
import styles from '../../ui/table.module.css';
import { Differences } from './Differences';
import room from './observe.module.css';

export function PredictedTable() {
  const { observation } = useObservation();
  const made = useMemo(() => (observation ? predict(observation) : null), [observation]);
  if (!made) return <p className={styles.empty}>Nothing was read yet: Held against says how a network is read.</p>;
  if (!made.ok)
    return (
      <p className={styles.fault} role="alert">
        {made.error}
      </p>
    );
  const { design, differences, compared, doubts, asks } = made.value;
  const open = [...asks, ...doubts.map((doubt) => `In doubt: ${doubt}`)];
  return (
    <>
      <p className={room.sum}>
        {differences.length === 0
          ? `What the settings come to is what the switches say: ${counted(compared, 'thing')} held side by side.`
          : `${counted(differences.length, 'thing')} told otherwise than the settings come to: ${
              open.length > 0
                ? 'what is below was not read, and may be why; else somebody does not do what the standard says.'
                : 'all was read, so somebody does not do what the standard says.'
            }`}
      </p>
      {open.length > 0 && (
        <ul className={room.asks} aria-label="To ask for">
          {open.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {differences.length > 0 && (
        <Differences
          label="Told otherwise"
          design={design}
          rows={differences}
          expected="Predicted"
          place={(_, text) => text}
          does={null}
        />
      )}
    </>
  );
}
