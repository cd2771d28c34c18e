'use client';
/** The longest outage of each pair of hosts under any failure, as a matrix: who sends down, who receives across. */
import { useMemo } from 'react';
import { failureText, type Failure } from '../../../core/analysis/failures/failure';
import { worstByPair, type FailureRun } from '../../../core/analysis/failures/outages';
import { namesOf } from '../../../core/model/derive/names';
import type { Design } from '../../../core/model/document';
import styles from '../../ui/table.module.css';
import { durationText } from '../../../core/base/words';
import { shortened } from '../../ui/words/shortened';
import own from './prove.module.css';

/** Most hosts in a row: more are in the table by pair. */
const MOST = 40;
const NAME = 16;

export function WorstOfPairs({
  design,
  runs,
  onOpen,
}: {
  readonly design: Design;
  readonly runs: readonly FailureRun[];
  readonly onOpen: (failure: Failure) => void;
}) {
  const names = namesOf(design);
  const { hosts, cells } = useMemo(() => {
    const worst = worstByPair(runs);
    const named = new Set(worst.flatMap(({ pair }) => [pair.from, pair.to]));
    return {
      hosts: design.hosts.filter(({ id }) => named.has(id)),
      cells: new Map(worst.map((each) => [`${each.pair.from} ${each.pair.to}`, each])),
    };
  }, [design, runs]);
  if (hosts.length === 0) return <p className={styles.empty}>No failure cuts hosts off from each other.</p>;
  const drawn = hosts.slice(0, MOST);
  return (
    <div className={own.matrix}>
      <table aria-label="Longest outage of each pair">
        <thead>
          <tr>
            <th scope="col">Frames from, to</th>
            {drawn.map(({ id }) => (
              <th key={id} scope="col" title={names.host(id)}>
                {shortened(names.host(id), NAME)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {drawn.map(({ id: from }) => (
            <tr key={from}>
              <th scope="row" title={names.host(from)}>
                {shortened(names.host(from), NAME)}
              </th>
              {drawn.map(({ id: to }) => {
                const cell = cells.get(`${from} ${to}`);
                return (
                  <td key={to}>
                    {cell && (
                      <button
                        type="button"
                        onClick={() => onOpen(cell.run.failure)}
                        title={`if ${failureText(cell.run.failure, names)}`}
                      >
                        {cell.pair.lasting ? 'for good' : durationText(cell.pair.longest)}
                      </button>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {hosts.length > MOST && (
        <p className={styles.empty}>and {hosts.length - MOST} more hosts: see the table by pair.</p>
      )}
    </div>
  );
}
