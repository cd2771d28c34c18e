'use client';
/** The order of steps that bundles parallel links while the network runs, each step simulated before anybody touches a cable. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { LinkId } from '../../../core/model/ids';
import { planBundle, type PlanKind } from '../../../core/analysis/lag/bundlePlan';
import { bundleAt, parallelsOf } from '../../../core/analysis/lag/bundling';
import { EMPTY, useClockStore } from '../../state/clock';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf } from '../../state/selection';
import { SimulatedSteps } from '../shared/SimulatedSteps';
import own from './bundle.module.css';
import { Select } from '../../ui/Select';

const KINDS: readonly (readonly [PlanKind, string])[] = [
  ['lacp', 'LACP'],
  ['static', 'Static, with care'],
  ['static-both-ends', 'Static, both cables in: the wrong order'],
];

export function PlanTable() {
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const selection = useWorkbench((state) => state.selection);
  const act = useWorkbench((state) => state.act);
  const store = useWorkbenchStore();
  const clock = useClockStore();
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
  if (!chosen || !plan)
    return (
      <p className={own.hint}>
        No links run side by side unbundled: plug a second cable between two switches, and its plan stands here.
      </p>
    );
  if (!plan.ok) return <p className={own.hint}>{plan.error}</p>;
  const { actions, until, commands } = plan.value;
  const play = () => {
    clock.getState().open({ ...EMPTY, name: `Bundling ${chosen.name}`, actions: [...actions], until });
    store.getState().setLens('Break');
  };
  return (
    <div className={own.page}>
      <SimulatedSteps
        plan={plan.value}
        design={design}
        label="Plan of action"
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
          </>
        }
        after={
          <>
            <Button size="small" variant="outlined" onClick={play}>
              Play it on the timeline
            </Button>
            {kind !== 'static-both-ends' && (
              <Button size="small" variant="outlined" onClick={() => act(...commands)}>
                Take over the result
              </Button>
            )}
          </>
        }
      />
    </div>
  );
}
