'use client';
/** What BPDUs come to ports, from whom, and what becomes of them: in the lens of roots alone. */
import { heardAt, heardText } from '../../../core/analysis/dialects/heard';
import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { bridgePortOf } from '../../../core/topology/network';
import { label } from '../../../core/tree/explain/phrases';
import { useFollowing, useWorkbench } from '../../state/context';
import styles from '../../ui/panel.module.css';

interface End {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
}

export function Heard({ ends }: { readonly ends: readonly End[] }) {
  const solution = useFollowing((state) => state.solution);
  const lens = useWorkbench((state) => state.lens);
  if (!solution || lens !== 'Root') return null;
  const { network } = solution;
  const places = ends.flatMap((end) => {
    const p = network.portIndexOf(end.switch, end.port);
    return p < 0 ? [] : [bridgePortOf(network, p)];
  });
  return (
    <section className={styles.section} aria-label="BPDUs that come in">
      <h3>BPDUs that come in</h3>
      {places.map((p) => {
        const heard = heardAt(solution, p);
        return (
          <div key={p}>
            {places.length > 1 && <p className={styles.hint}>at {label(network, p)}</p>}
            {heard.length === 0 ? (
              <p className={styles.hint}>None: no bridge speaks toward this port.</p>
            ) : (
              <ul className={styles.list}>
                {heard.map((each) => {
                  const text = heardText(solution, p, each);
                  return <li key={text}>{text}</li>;
                })}
              </ul>
            )}
          </div>
        );
      })}
    </section>
  );
}
