'use client';
/** Putting something into the scenario, and when it happens. */
import { useMemo } from 'react';
import type { Design } from '../../../core/model/document';
import { MAX_UNTIL, type Action, type Undated } from '../../../core/model/scenario';
import { scenarioDesign } from '../../../core/sim/scenario/scenario';
import { useClock } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { NumberField } from '../../ui/NumberField';
import styles from '../../ui/panel.module.css';

/** Puts actions into the scenario, at the time that is chosen, and shows the timeline. */
export function useHappen(): (...all: Undated[]) => null {
  const add = useClock((clock) => clock.addAction);
  const at = useClock((clock) => clock.nextAt);
  const setNextAt = useClock((clock) => clock.setNextAt);
  const openDrawer = useWorkbench((state) => state.openDrawer);
  return (...all) => {
    for (const what of all) add({ ...what, at } as Action);
    setNextAt(Math.min(MAX_UNTIL, at + 10));
    openDrawer('clock');
    return null;
  };
}

/** The design with what the scenario has brought along so far: names and ports that are taken. */
export function useStage(): Design {
  const design = useWorkbench((state) => state.design);
  const scenario = useClock((clock) => clock.scenario);
  return useMemo(() => {
    const staged = scenarioDesign(design, scenario);
    return staged.ok ? staged.value : design;
  }, [design, scenario]);
}

/** The time that is chosen. */
export function When() {
  const at = useClock((clock) => clock.nextAt);
  const set = useClock((clock) => clock.setNextAt);
  return (
    <p className={styles.hint}>
      Happens at <NumberField label="When it happens, in seconds" value={at} least={0} most={MAX_UNTIL} commit={set} />{' '}
      s
    </p>
  );
}
