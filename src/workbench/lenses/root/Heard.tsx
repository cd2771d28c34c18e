'use client';
/** What BPDUs come to ports, from whom, and what becomes of them: in the lens of roots alone. */
import { heardAt, heardText } from '../../../core/analysis/dialects/heard';
import type { BridgePortId, SwitchId } from '../../../core/model/ids';
import { bridgePortOf } from '../../../core/topology/network';
import { label } from '../../../core/tree/explain/phrases';
import type { Solution } from '../../../core/tree/settled';
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
      {places.map((p) => (
        <HeardAt key={p} solution={solution} port={p} named={places.length > 1} />
      ))}
    </section>
  );
}

/** Ports of a switch that are shown at once. */
const SHOWN = 12;

/** What comes to the ports of a switch that are plugged in. */
export function HeardBy({ id }: { readonly id: SwitchId }) {
  const solution = useFollowing((state) => state.solution);
  const s = solution?.network.switchIndex.get(id);
  if (!solution || s === undefined) return null;
  const { network } = solution;
  const { firstPort, far, live } = network;
  const own = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i);
  const places = [...new Set(own.map((p) => bridgePortOf(network, p)))].filter((p) => far[p]! >= 0 && live[p]);
  const shown = places.slice(0, SHOWN);
  const speaking = shown.filter((p) => heardAt(solution, p).length > 0);
  const silent = shown.filter((p) => !speaking.includes(p));
  return (
    <section className={styles.section} aria-label="BPDUs that come in">
      <h3>BPDUs that come in</h3>
      {places.length === 0 && <p className={styles.hint}>None: no port leads to a switch.</p>}
      {speaking.map((p) => (
        <HeardAt key={p} solution={solution} port={p} named />
      ))}
      {silent.length > 0 && (
        <p className={styles.hint}>Nothing toward {silent.map((p) => label(network, p)).join(', ')}.</p>
      )}
      {places.length > SHOWN && (
        <p className={styles.hint}>
          and at {places.length - SHOWN} more ports: select one, or see the table Conversations.
        </p>
      )}
    </section>
  );
}

function HeardAt({
  solution,
  port,
  named,
}: {
  readonly solution: Solution;
  readonly port: number;
  readonly named: boolean;
}) {
  const heard = heardAt(solution, port);
  return (
    <div>
      {named && <p className={styles.hint}>at {label(solution.network, port)}</p>}
      {heard.length === 0 ? (
        <p className={styles.hint}>None: no bridge speaks toward this port.</p>
      ) : (
        <ul className={styles.list}>
          {heard.map((each) => {
            const text = heardText(solution, port, each);
            return <li key={text}>{text}</li>;
          })}
        </ul>
      )}
    </div>
  );
}
