'use client';
/** Who was read, taken for whom, and what nobody told. */
import { useComparison, useObservation } from '../../state/observation';
import { useWorkbench } from '../../state/context';
import { nameOf } from '../../../core/model/names';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import room from './observe.module.css';

export function ReadTable() {
  const { observation } = useObservation();
  const comparison = useComparison();
  const select = useWorkbench((state) => state.select);
  if (!observation)
    return <p className={styles.empty}>Nothing was read yet: Held against says how a network is read.</p>;
  const match = new Map(comparison?.matches.pairs.map((pair) => [pair.observed, pair]));
  return (
    <div className={room.scroll}>
      <table className={room.differences} aria-label="Who was read">
        <thead>
          <tr>
            <th scope="col">Read at</th>
            <th scope="col">Calls itself</th>
            <th scope="col">In the design</th>
            <th scope="col">Known by</th>
            <th scope="col">Ports</th>
            <th scope="col">Trees</th>
            <th scope="col">What it did not tell</th>
          </tr>
        </thead>
        <tbody>
          {observation.switches.map((sw, i) => {
            const pair = match.get(sw);
            return (
              <tr key={i}>
                <th scope="row">{sw.source}</th>
                <td>{sw.name}</td>
                <td>
                  {pair ? (
                    <TextButton onClick={() => select({ kind: 'switch', switch: pair.designed.id })}>
                      {nameOf(pair.designed)}
                    </TextButton>
                  ) : (
                    'nobody'
                  )}
                </td>
                <td>{pair?.by ?? ''}</td>
                <td>{sw.ports.length}</td>
                <td>{sw.trees.length}</td>
                <td>{sw.missing.join(' ')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {observation.leftOut.length > 0 && (
        <ul aria-label="Left out">
          {observation.leftOut.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
