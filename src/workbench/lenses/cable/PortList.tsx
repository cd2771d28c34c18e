'use client';
/** The ports of a switch and what is plugged into each, as a way to get to them. */
import type { Switch } from '../../../core/model/document';
import { TextButton } from '../../ui/TextButton';
import { useWorkbench } from '../../state/context';
import { useFarEnds } from '../../state/farEnds';
import { speedText } from '../../ui/words/units';
import styles from '../../ui/panel.module.css';

export function PortList({ sw }: { readonly sw: Switch }) {
  const select = useWorkbench((state) => state.select);
  const farEnd = useFarEnds();
  return (
    <section className={styles.section}>
      <h3>Ports</h3>
      {sw.ports.length === 0 && (
        <p className={styles.hint}>No ports yet. “Cable to” in the Cable view adds them as they are needed.</p>
      )}
      <table className={styles.ranking} aria-label={`ports of ${sw.name ?? sw.id}`}>
        <tbody>
          {sw.ports.map((port) => (
            <tr key={port.id}>
              <td>
                <TextButton
                  onClick={() => select({ kind: 'port', switch: sw.id, port: port.id })}
                  aria-label={`port ${port.id}`}
                >
                  {port.id}
                </TextButton>
              </td>
              <td>{farEnd(sw.id, port.id)?.text ?? 'nothing'}</td>
              <td>{port.up ? speedText(port.speed) : 'down'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
