'use client';
/** The ports that guards have shut at the instant shown, with the countdown of those that open by themselves. */
import { SECOND } from '../../../core/modes/entity';
import { label } from '../../../core/tree/explain/phrases';
import { shutText } from '../../../core/model/guard';
import { useClock } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { TextButton } from '../../ui/TextButton';
import styles from '../shared/clock.module.css';

/** So many are named. */
const FEW = 4;

export function ShutPorts() {
  const player = useClock((clock) => clock.player);
  const t = useClock((clock) => clock.t);
  const goTo = useWorkbench((state) => state.goTo);
  const shut = player?.shutAt(t) ?? [];
  if (!player || shut.length === 0) return null;
  const { network } = player;
  const instant = player.at(t);
  return (
    <p className={styles.shut} aria-label="Shut ports">
      Now{' '}
      {shut.slice(0, FEW).map(({ port, opens }, i) => (
        <span key={port}>
          {i > 0 && '; '}
          <TextButton
            onClick={() =>
              goTo({ kind: 'port', switch: network.switches[network.owner[port]!]!.id, port: network.ports[port]!.id })
            }
          >
            {label(network, port)}
          </TextButton>{' '}
          {shutText(instant.shut(port))}
          {opens === null ? '' : `, opens in ${((opens - t) / SECOND).toFixed(1)} s`}
        </span>
      ))}
      {shut.length > FEW && `; ${shut.length - FEW} more`}
    </p>
  );
}
