'use client';
/** The quick-cabling line: text that adds and joins. */
import { useCallback } from 'react';
import { completionsAt } from '../../../core/cabling/complete';
import { planLines, type Plan } from '../../../core/cabling/plan';
import { withPlaces } from '../../map/places';
import { CABLING_FIELD } from '../../state/cablingField';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import styles from '../shared/lines/line.module.css';
import { LineEditor, type Understood } from '../shared/lines/LineEditor';
import { PlanPreview } from './PlanPreview';

interface Read extends Understood {
  readonly plan: Plan;
}

export function CablingLine() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const read = useCallback(
    (text: string, now = false): Read => {
      const plan = planLines(now ? store.getState().newest() : design, text);
      return { plan, lines: plan.lines, does: plan.commands.length > 0 };
    },
    [store, design],
  );
  return (
    <LineEditor
      id={CABLING_FIELD}
      name="Quick cabling"
      label="Quick-cabling line"
      placeholder="Cable in words, such as  ridge-a 1-2 = ridge-b 1-2 10G"
      keys="/"
      verb="Do"
      complete={useCallback((line: string, at: number) => completionsAt(design, line, at), [design])}
      read={read}
      act={({ plan }) => {
        const { newest, act } = store.getState();
        return act(...withPlaces(newest(), plan.commands));
      }}
      preview={({ plan }) => <PlanPreview design={design} plan={plan} />}
      hint={
        <p className={styles.soft}>
          <code>a 1-2 = b 1-2 10G</code> joins ports one to one; <code>hut-[1-4] * ridge-[a,b]</code> each with each;
          without ports, free ones are taken. <code>host desk = a 9 vlan 45</code> hangs a host. Several lines can be
          pasted. Tab takes a word, Enter does it.
        </p>
      }
    />
  );
}
