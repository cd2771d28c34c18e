'use client';
/** How near a port is to flipping: the first costs below and above at which some end takes another role. */
import { useEffect, useState } from 'react';
import type { PortId, SwitchId, TreeId } from '../../core/design/ids';
import type { CostMargin, Flip } from '../../core/study/margin';
import type { Solution } from '../../core/tree/settled';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { counted, groupText } from '../words/units';
import styles from './inspector.module.css';

interface Props {
  readonly tree: TreeId;
  readonly id: SwitchId;
  readonly port: PortId;
}

/** `From 22 001 on it becomes alternate (4 ends move); no lower cost moves anything.` */
export function marginText({ role, below, above }: CostMargin): string {
  const flip = ({ cost, role: then, ends }: Flip, side: 'on' | 'down') =>
    `${groupText(cost)} ${side} ${then === role ? counted(ends.length, 'other end moves', 'other ends move') : `it becomes ${then} (${counted(ends.length, 'end moves', 'ends move')})`}`;
  if (!below && !above) return 'No cost of this port moves anything.';
  const up = above ? `From ${flip(above, 'on')}` : 'No higher cost moves anything';
  const down = below ? `from ${flip(below, 'down')}` : 'no lower cost moves anything';
  return `${up}; ${down}.`;
}

export function MarginNote({ tree, id, port }: Props) {
  const store = useWorkbenchStore();
  const solution = useWorkbench((state) => state.solution);
  const [found, setFound] = useState<{ readonly of: Solution | null; readonly margin: CostMargin | null } | null>(null);
  useEffect(() => {
    let gone = false;
    void store.getState().margin(tree, id, port).then((margin) => !gone && setFound({ of: solution, margin }));
    return () => {
      gone = true;
    };
  }, [store, solution, tree, id, port]);
  const margin = found?.of === solution ? found.margin : null;
  if (!margin || margin.role === 'disabled') return null;
  return (
    <p className={styles.margin}>
      <b>Cost {groupText(margin.cost)}.</b> {marginText(margin)}
    </p>
  );
}
