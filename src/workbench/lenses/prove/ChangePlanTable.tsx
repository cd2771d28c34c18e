'use client';
/** The order of steps from an earlier revision to the present design, or from that to a proposal that is looked at. */
import Button from '@mui/material/Button';
import { useCallback, useState } from 'react';
import type { ChangePlan } from '../../../core/analysis/plans/changePlan';
import type { Grain } from '../../../core/analysis/plans/mix';
import type { Design } from '../../../core/model/document';
import { useAsk, type Ask } from '../../state/ask';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { lookingText } from '../../state/looking';
import { askChange } from '../../state/questions';
import { revisionAt, revisionName } from '../../state/revisions';
import { Select } from '../../ui/Select';
import styles from '../../ui/table.module.css';
import { counted } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import { PlanSteps } from '../shared/plan/PlanSteps';
import { summaryText } from '../../../core/analysis/plans/planWords';
import { usePresent } from '../shared/plan/usePresent';
import { fromThere, useEarlier } from '../shared/useEarlier';
import own from './prove.module.css';

/** The design that is looked at, as what a plan leads to. */
const SHOWN = 'shown';

const GRAINS: readonly (readonly [Grain, string])[] = [
  ['visits', 'a visit to each switch'],
  ['settings', 'setting by setting'],
];

interface Wanted {
  readonly before: Design;
  readonly after: Design;
  readonly grain: Grain;
  /** `from revision 4 to now`. */
  readonly way: string;
  /** Whether it begins with the present design, so that its steps can be taken one by one. */
  readonly takes: boolean;
  readonly ask: Ask<ChangePlan>;
}

export function ChangePlanTable() {
  const id = useWorkbench((state) => state.id);
  const { design } = usePresent();
  const looking = useWorkbench((state) => state.looking);
  const earlier = useEarlier();
  const [chosen, choose] = useState<string | null>(null);
  const [grain, setGrain] = useState<Grain>('visits');
  const [wanted, want] = useState<Wanted | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { status, stop } = useAsk(wanted?.ask ?? null);
  const offered = earlier ?? [];
  const shown =
    looking.kind === 'proposal' || looking.kind === 'comparison' || looking.kind === 'revision' ? looking : null;
  const options = [
    ...(shown ? [[SHOWN, `from now to ${lookingText(shown)}`] as const] : []),
    ...offered.map(fromThere),
  ];
  const ends = options.find(([value]) => value === chosen)?.[0] ?? options[0]?.[0];
  const find = async () => {
    setTrouble(null);
    const begin = (before: Design, after: Design, way: string, takes: boolean) =>
      want({ before, after, grain, way, takes, ask: askChange(before, after, { grain }) });
    if (ends === SHOWN && shown) return begin(design, shown.design, `from now to ${lookingText(shown)}`, true);
    const from = offered.find(({ number }) => String(number) === ends);
    if (!from) return;
    const name = revisionName(from.number, from.baseline);
    const there = await revisionAt(id, from.number, name);
    if (there.ok) begin(there.value.design, design, `from ${name} to now`, false);
    else setTrouble(there.error);
  };
  const reorder = useCallback(
    (order: readonly string[]) =>
      want((now) => now && { ...now, ask: askChange(now.before, now.after, { grain: now.grain, order }) }),
    [],
  );
  if (earlier !== null && options.length === 0 && !wanted)
    return (
      <p className={styles.empty}>
        Once something has been changed, this finds the order of steps from an earlier revision to the present design;
        while a proposal is on the map, from the present design to that.
      </p>
    );
  return (
    <>
      <div className={styles.filter}>
        {ends !== undefined && <Select label="Plan" value={ends} options={options} choose={choose} />}
        <label>
          by <Select label="Steps" value={grain} options={GRAINS} choose={setGrain} />
        </label>
        <Button
          size="small"
          variant="outlined"
          disabled={ends === undefined || status.kind === 'busy'}
          onClick={() => void find()}
        >
          Find an order
        </Button>
        {trouble && <span role="alert">{trouble}</span>}
      </div>
      <Asking status={status} stop={stop} what="Finding an order, and running its steps" />
      {wanted && status.kind === 'found' && (
        <Found change={status.value} wanted={wanted} present={design} reorder={reorder} />
      )}
    </>
  );
}

function Found({
  change: { plan, judged },
  wanted: { before, after, way, takes },
  present,
  reorder,
}: {
  readonly change: ChangePlan;
  readonly wanted: Wanted;
  readonly present: Design;
  readonly reorder: (order: readonly string[]) => void;
}) {
  const store = useWorkbenchStore();
  const stale = (takes ? before : after) !== present;
  const takeAll = () => {
    store.getState().look(null);
    store.getState().act(...plan.preparation, ...plan.steps.flatMap(({ changes }) => changes));
  };
  return (
    <div className={own.plan}>
      <p className={styles.summary}>
        {counted(plan.steps.length, 'step')} {way}: {summaryText(judged)}
        {stale && ' The design has changed since: find it again.'}
      </p>
      <PlanSteps
        design={before}
        plan={plan}
        label={`Steps ${way}`}
        judged={judged}
        reorder={reorder}
        takes={takes && !stale}
        after={
          takes &&
          !stale && (
            <Button size="small" variant="outlined" onClick={takeAll}>
              Take over the result
            </Button>
          )
        }
      />
    </div>
  );
}
