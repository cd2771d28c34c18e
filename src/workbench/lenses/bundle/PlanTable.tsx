'use client';
/** The order of steps that bundles parallel links while the network runs, each step simulated before anybody touches a cable. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { LinkId } from '../../../core/model/ids';
import { planBundle, type PlanKind } from '../../../core/analysis/lag/bundlePlan';
import { bundleAt, parallelsOf } from '../../../core/analysis/lag/bundling';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf } from '../../state/selection';
import { PlanSteps } from '../shared/plan/PlanSteps';
import { useJudged } from '../shared/plan/useJudged';
import { usePresent } from '../shared/plan/usePresent';
import own from './bundle.module.css';
import { Select } from '../../ui/Select';

const KINDS: readonly (readonly [PlanKind, string])[] = [
  ['lacp', 'LACP'],
  ['static', 'Static, with care'],
  ['static-both-ends', 'Static, both cables in: the wrong order'],
];

export function PlanTable() {
  const { design, solution } = usePresent();
  const selection = useWorkbench((state) => state.selection);
  const store = useWorkbenchStore();
  const [kind, setKind] = useState<PlanKind>('lacp');
  const [pairKey, setPairKey] = useState('');
  const choices = useMemo(
    () =>
      parallelsOf(design).flatMap(({ a, b, links }) => {
        const free = links.filter((link) => [link.a, link.b].every((end) => !bundleAt(design, end.switch, end.port)));
        const nameOf = (id: string): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
        return free.length > 1
          ? [
              {
                key: free.map((link) => link.id).join('\n'),
                name: `${nameOf(a)} to ${nameOf(b)}, ${free.length} links`,
                links: free.map((link) => link.id),
              },
            ]
          : [];
      }),
    [design],
  );
  const selected = new Set(itemsOf(selection).flatMap((item) => (item.kind === 'link' ? [item.link] : [])));
  const chosen =
    choices.find((each) => each.key === pairKey) ??
    choices.find((each) => each.links.some((link) => selected.has(link))) ??
    choices[0];
  const plan = useMemo(
    () => (chosen ? planBundle(design, solution, chosen.links as LinkId[], kind) : null),
    [design, solution, chosen, kind],
  );
  const { judged, button, told } = useJudged(design, plan?.ok ? plan.value : null);
  if (!chosen || !plan)
    return (
      <p className={own.hint}>
        No links run side by side unbundled: plug a second cable between two switches, and its plan stands here.
      </p>
    );
  if (!plan.ok) return <p className={own.hint}>{plan.error}</p>;
  const takeAll = () => {
    store.getState().look(null);
    store.getState().act(...plan.value.commands);
  };
  return (
    <div className={own.page}>
      <PlanSteps
        design={design}
        plan={plan.value}
        label="Plan of action"
        judged={judged}
        before={
          <>
            <label>
              Links{' '}
              <Select
                label="Links to bundle"
                value={chosen.key}
                options={choices.map((each) => [each.key, each.name])}
                choose={setPairKey}
              />
            </label>
            <label>
              How <Select label="How to bundle" value={kind} options={KINDS} choose={setKind} />
            </label>
            {button}
          </>
        }
        after={
          kind !== 'static-both-ends' && (
            <Button size="small" variant="outlined" onClick={takeAll}>
              Take over the result
            </Button>
          )
        }
      />
      {told}
    </div>
  );
}
