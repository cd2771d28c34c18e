'use client';
/** What each dialect would cost this network: trees to keep, BPDUs to send and receive. */
import { useMemo } from 'react';
import { Asking } from '../shared/Asking';
import { useFollowing } from '../../state/context';
import { askControl } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { dialectText } from '../../ui/words/choices';
import styles from '../shared/steering.module.css';

/** `1.5`, `84`. */
const rateText = (rate: number): string => String(Math.round(rate * 10) / 10);

export function ControlTable() {
  const design = useFollowing((state) => state.design);
  const { status, stop } = useAsk(useMemo(() => askControl(design), [design]));
  if (status.kind !== 'found') return <Asking status={status} stop={stop} what="Working out each mode" />;
  const costs = status.value;
  const most = Math.max(1, ...costs.map((each) => each.sent));
  const nameOf = (id: string) => design.switches.find((sw) => sw.id === id)?.name ?? id;
  return (
    <div className={styles.control} tabIndex={0} role="region" aria-label="Control plane">
      <table className={styles.costs} aria-label="What each spanning tree mode costs">
        <thead>
          <tr>
            <th scope="col">If all ran</th>
            <th scope="col">trees a switch keeps</th>
            <th scope="col" colSpan={2}>
              BPDUs a second, all switches
            </th>
            <th scope="col">busiest switch</th>
            <th scope="col">sends a second</th>
            <th scope="col">receives a second</th>
          </tr>
        </thead>
        <tbody>
          {costs.map(({ dialect, trees, sent, busiest, spoken }) => (
            <tr key={dialect}>
              <th scope="row">
                {dialectText(dialect)}
                {spoken ? ', running now' : ''}
              </th>
              <td>{trees}</td>
              <td>{rateText(sent)}</td>
              <td className={styles.barCell}>
                <span style={{ width: `${(sent / most) * 100}%` }} />
              </td>
              <td className={styles.words}>{busiest ? nameOf(busiest.switch) : '–'}</td>
              <td>{busiest ? rateText(busiest.sent) : '–'}</td>
              <td>{busiest ? rateText(busiest.received) : '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.hint}>
        Once all has settled: a designated port sends one BPDU each hello time for each tree. MSTP sends one for all
        instances; as many as there are VLAN trees set in different ways now, besides the IST. The tree of VLAN 1 sends
        a standard BPDU besides its own.
      </p>
    </div>
  );
}
