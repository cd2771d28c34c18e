'use client';
/** What a port is at the instant that the clock shows, in each shown tree, and what made it so. */
import { useEffect, useState } from 'react';
import { treeName, type BridgePortId, type SwitchId, type TreeId } from '../../../core/model/ids';
import { bridgePortOf } from '../../../core/topology/network';
import { TextButton } from '../../ui/TextButton';
import { strandStyle } from '../../ui/strandStyle';
import { timeText, useClock, useInstant } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import styles from '../../ui/panel.module.css';

export function WhyInstant({ id, port }: { readonly id: SwitchId; readonly port: BridgePortId }) {
  const shown = useWorkbench((state) => state.shownTrees);
  const t = useInstant((clock) => clock.t);
  if (t === null) return null;
  return (
    <section className={styles.section} aria-label="At this instant">
      <h3>At {timeText(t)}</h3>
      {shown.map((tree) => (
        <InTree key={tree} tree={tree} id={id} port={port} />
      ))}
    </section>
  );
}

function InTree({ tree, id, port }: { readonly tree: TreeId; readonly id: SwitchId; readonly port: BridgePortId }) {
  const index = useClock((clock) => clock.player?.trace.trees.indexOf(tree) ?? -1);
  const what = useInstant(({ player, instant }) => {
    const p = player ? bridgePortOf(instant.network, player.network.portIndexOf(id, port)) : -1;
    return p < 0 || index < 0 ? 'not in this tree' : `${instant.role(index, p)}, ${instant.state(index, p)}`;
  });
  return (
    <div className={styles.why}>
      <div className={styles.whyTree} style={{ color: strandStyle(index).colour }}>
        {treeName(tree)} <small>{what}</small>
      </div>
      {index >= 0 && <Cause key={`${tree} ${what}`} tree={tree} id={id} port={port} />}
    </div>
  );
}

/** Asked of the simulator once the port has become another: the same cause holds until then. */
function Cause({ tree, id, port }: { readonly tree: TreeId; readonly id: SwitchId; readonly port: BridgePortId }) {
  const runner = useClock((clock) => clock.runner);
  const player = useClock((clock) => clock.player);
  const seek = useClock((clock) => clock.seek);
  const t = useClock((clock) => clock.t);
  const playing = useClock((clock) => clock.playing !== null);
  const [cause, setCause] = useState<{ readonly t: number; readonly text: string } | null | undefined>(undefined);
  useEffect(() => {
    if (playing) return;
    let wanted = true;
    void runner.why(tree, id, port, t).then((found) => wanted && setCause(found));
    return () => {
      wanted = false;
    };
  }, [runner, player, tree, id, port, t, playing]);
  if (cause === undefined) return null;
  if (cause === null) return <p>It has been so from the start.</p>;
  return (
    <p>
      Since <TextButton onClick={() => seek(cause.t)}>{timeText(cause.t)}</TextButton>: {cause.text}.
    </p>
  );
}
