'use client';
/** How near a port is to flipping: the first costs below and above at which some end takes another role. */
import { useEffect, useState } from 'react';
import type { BridgePortId, SwitchId, TreeId } from '../../../core/model/ids';
import type { CostMargin, Flip, PortMargins } from '../../../core/analysis/steering/margin';
import type { Solution } from '../../../core/tree/settled';
import { TextButton } from '../../ui/TextButton';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { groupText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import styles from '../../ui/panel.module.css';

interface Props {
  readonly tree: TreeId;
  readonly id: SwitchId;
  readonly port: BridgePortId;
}

/** `From 22 001 on it becomes alternate (4 ports change); no lower cost changes anything.` */
export function marginText({ role, below, above }: CostMargin, who = 'it'): string {
  const flip = ({ cost, role: then, ends }: Flip, side: 'on' | 'down') =>
    `${groupText(cost)} ${side} ${then === role ? counted(ends.length, 'other port changes', 'other ports change') : `${who} becomes ${then} (${counted(ends.length, 'port changes', 'ports change')})`}`;
  if (!below && !above) return 'No other cost changes anything.';
  const up = above ? `From ${flip(above, 'on')}` : 'No higher cost changes anything';
  const down = below ? `from ${flip(below, 'down')}` : 'no lower cost changes anything';
  return `${up}; ${down}.`;
}

export function MarginNote({ tree, id, port }: Props) {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const select = useWorkbench((state) => state.select);
  const switches = useWorkbench((state) => state.design.switches);
  const nameOf = (sw: SwitchId) => switches.find((each) => each.id === sw)?.name ?? sw;
  const [found, setFound] = useState<{ readonly of: Solution | null; readonly margin: PortMargins | null } | null>(
    null,
  );
  useEffect(() => {
    let gone = false;
    void store
      .getState()
      .margin(tree, id, port)
      .then((margin) => !gone && setFound({ of: solution, margin }));
    return () => {
      gone = true;
    };
  }, [store, solution, tree, id, port]);
  const margin = found?.of === solution ? found.margin : null;
  if (!margin || margin.own.role === 'disabled') return null;
  const { own, rival } = margin;
  return (
    <>
      <p className={styles.margin}>
        <b>Cost {groupText(own.cost)}.</b> {marginText(own)}
      </p>
      {rival && (
        <p className={styles.margin}>
          <b>
            The next best,{' '}
            <TextButton onClick={() => select({ kind: 'port', switch: rival.switch, port: rival.port })}>
              {nameOf(rival.switch)} port {rival.port}
            </TextButton>
            , costs {groupText(rival.cost)}.
          </b>{' '}
          {marginText(rival, 'this one')}
        </p>
      )}
    </>
  );
}
