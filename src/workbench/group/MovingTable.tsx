'use client';
/** The way from the present dialects to MSTP: the order of the switches, what each step does, each step simulated before anybody touches a switch. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { Command } from '../../core/design/commands';
import { editAll } from '../../core/design/edit';
import type { Solution } from '../../core/tree/settled';
import { joining, keepingTrees, mainRegion } from '../../core/study/asDialect';
import { proposeGroupings } from '../../core/study/grouping';
import { planMoving, preparedDesign, type MovingKind, type MovingStep } from '../../core/study/movingPlan';
import { SimulatedSteps } from '../clock/SimulatedSteps';
import { EMPTY, useClockStore } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { counted } from '../words/units';
import styles from './group.module.css';

const KINDS: readonly (readonly [MovingKind, string])[] = [['tree', 'root outwards, redundant cables out meanwhile'], ['outwards', 'root outwards, every cable in'], ['inwards', 'rim inwards, every cable in']];

interface Goal {
  readonly key: string;
  readonly name: string;
  readonly commands: readonly Command[];
}

/** Where one may move: into the region that there is, to a proposed grouping, or with the trees kept. */
function goalsOf(solution: Solution): Goal[] {
  const { design } = solution.network;
  const region = mainRegion(design);
  const outside = design.switches.filter((sw) => sw.up && sw.dialect !== 'off' && (sw.dialect !== 'mstp' || sw.region !== region?.id)).map((sw) => sw.id);
  if (region) return outside.length > 0 ? [{ key: 'join', name: `everybody into ${region.name || region.id}`, commands: joining(design, region.id, outside) }] : [];
  const proposed = proposeGroupings(solution);
  const kept = keepingTrees(design);
  return [
    ...(proposed.ok ? proposed.value.slice(0, 3).map((each, i): Goal => ({ key: `proposal ${i}`, name: each.sentence, commands: each.commands })) : []),
    ...(editAll(design, kept.commands).ok ? [{ key: 'keep', name: kept.instances.length === 0 ? 'every VLAN in the IST' : 'the trees as they are', commands: kept.commands }] : []),
  ].filter((goal, i, all) => all.findIndex((other) => JSON.stringify(other.commands) === JSON.stringify(goal.commands)) === i);
}

export function MovingTable() {
  const store = useWorkbenchStore();
  const clock = useClockStore();
  const solution = useWorkbench((state) => (state.viewing === null ? state.solution : null));
  const act = useWorkbench((state) => state.act);
  const [asked, setKind] = useState<MovingKind | null>(null);
  const [key, setKey] = useState('');
  // A few that join a region that stands do not need the cables out.
  const kind = asked ?? (solution && mainRegion(solution.network.design) ? 'outwards' : 'tree');
  const goals = useMemo(() => (solution ? goalsOf(solution) : []), [solution]);
  const goal = goals.find((each) => each.key === key) ?? goals[0];
  const plan = useMemo(() => (solution && goal ? planMoving(solution, goal.commands, kind) : null), [solution, goal, kind]);
  const prepared = useMemo(() => (solution && plan?.ok ? preparedDesign(solution.network.design, plan.value) : null), [solution, plan]);
  if (!solution) return <p className={styles.empty}>A plan is made for the present state: go back to now.</p>;
  if (!goal || !plan) return <p className={styles.empty}>Every switch that runs spanning tree is in one region already: there is nobody to move.</p>;
  if (!plan.ok || !prepared) return <p className={styles.empty}>{plan.ok ? '' : plan.error}</p>;
  const { preparation, actions, until } = plan.value;
  const play = () => {
    if (preparation.length > 0 && act(...preparation) !== null) return;
    clock.getState().open({ ...EMPTY, name: 'Moving to MSTP', actions: [...actions], until });
    store.getState().setLens('Break');
  };
  return (
    <div className={styles.page}>
      <SimulatedSteps
        plan={plan.value} design={prepared} label="Moving to MSTP"
        before={
          <>
            <label>To{' '}
              <select aria-label="Where to move" value={goal.key} onChange={(event) => setKey(event.target.value)}>
                {goals.map((each) => <option key={each.key} value={each.key}>{each.name}</option>)}
              </select>
            </label>
            <label>How{' '}
              <select aria-label="Order of the switches" value={kind} onChange={(event) => setKind(event.target.value as MovingKind)}>
                {KINDS.map(([each, text]) => <option key={each} value={each}>{text}</option>)}
              </select>
            </label>
          </>
        }
        after={
          <>
            <Button size="small" variant="outlined" onClick={play}>{preparation.length > 0 ? 'Prepare, and play it on the clock' : 'Play it on the clock'}</Button>
            <Button size="small" variant="outlined" onClick={() => act(...goal.commands)}>Take over the result</Button>
          </>
        }
        columns={[['Regions then', (step: MovingStep) => step.regions], ['Ends that move', (step: MovingStep) => step.moved]]}
      />
      {preparation.length > 0 && <p className={styles.soft}>Before the first step: {counted(preparation.length, 'setting')} for region and instances, on every switch. They do nothing as long as a switch does not speak MSTP.</p>}
    </div>
  );
}
