'use client';
/** The order of steps that bundles parallel links while the network runs, each step simulated before anybody touches a cable. */
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { LinkId } from '../../core/design/ids';
import { DEFAULT_TALK } from '../../core/design/scenario';
import { outcomesOf, planBundle, type Plan, type PlanKind, type StepOutcome } from '../../core/study/bundlePlan';
import { bundleAt, parallelsOf } from '../../core/study/bundling';
import { TextButton } from '../frame/TextButton';
import { EMPTY, useClockStore } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Runner } from '../state/runner';
import { itemsOf } from '../state/selection';
import { durationText } from '../clock/words';
import { counted } from '../words/units';
import own from './bundle.module.css';

const KINDS: readonly (readonly [PlanKind, string])[] = [['lacp', 'LACP'], ['static', 'Static, with care'], ['static-both-ends', 'Static, both cables in: the wrong order']];

export function PlanTable() {
  const design = useWorkbench((state) => state.design);
  const solution = useWorkbench((state) => state.solution);
  const selection = useWorkbench((state) => state.selection);
  const act = useWorkbench((state) => state.act);
  const store = useWorkbenchStore();
  const clock = useClockStore();
  const [kind, setKind] = useState<PlanKind>('lacp');
  const [pairKey, setPairKey] = useState('');
  const [ran, setRan] = useState<{ readonly of: Plan; readonly outcomes: readonly StepOutcome[] | string } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const runner = useRef<Runner | null>(null);
  useEffect(() => () => runner.current?.close(), []);
  const choices = useMemo(() => parallelsOf(design).flatMap(({ a, b, links }) => {
    const free = links.filter((link) => [link.a, link.b].every((end) => !bundleAt(design, end.switch, end.port)));
    const nameOf = (id: string): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
    return free.length > 1 ? [{ key: free.map((link) => link.id).join('\n'), name: `${nameOf(a)} to ${nameOf(b)}, ${free.length} links`, links: free.map((link) => link.id) }] : [];
  }), [design]);
  const selected = new Set(itemsOf(selection).flatMap((item) => (item.kind === 'link' ? [item.link] : [])));
  const chosen = choices.find((each) => each.key === pairKey) ?? choices.find((each) => each.links.some((link) => selected.has(link))) ?? choices[0];
  const plan = useMemo(() => (chosen ? planBundle(design, solution, chosen.links as LinkId[], kind) : null), [design, solution, chosen, kind]);
  if (!chosen || !plan) return <p className={own.hint}>No links run side by side unbundled: plug a second cable between two switches, and its plan stands here.</p>;
  if (!plan.ok) return <p className={own.hint}>{plan.error}</p>;
  const { steps, actions, until, commands } = plan.value;
  const shown = ran?.of === plan.value ? ran.outcomes : null;
  const simulate = async () => {
    setShare(0);
    const done = await (runner.current ??= clock.getState().runner.another()).run(design, { actions: [...actions], until, talk: DEFAULT_TALK, fromBoot: false }, setShare);
    setShare(null);
    setRan({ of: plan.value, outcomes: done.ok ? outcomesOf(plan.value, done.value) : done.error });
  };
  const play = () => {
    clock.getState().open({ ...EMPTY, name: `Bundling ${chosen.name}`, actions: [...actions], until });
    store.getState().setLens('Break');
  };
  const outcomes = Array.isArray(shown) ? (shown as readonly StepOutcome[]) : null;
  return (
    <div className={own.page}>
      <div className={own.line}>
        <label>Links{' '}
          <select aria-label="Links to bundle" value={chosen.key} onChange={(event) => setPairKey(event.target.value)}>
            {choices.map((each) => <option key={each.key} value={each.key}>{each.name}</option>)}
          </select>
        </label>
        <label>How{' '}
          <select aria-label="How to bundle" value={kind} onChange={(event) => setKind(event.target.value as PlanKind)}>
            {KINDS.map(([each, text]) => <option key={each} value={each}>{text}</option>)}
          </select>
        </label>
        <Button size="small" variant="outlined" disabled={share !== null} onClick={() => void simulate()}>Simulate each step</Button>
        <Button size="small" variant="outlined" onClick={play}>Play it on the clock</Button>
        {kind !== 'static-both-ends' && <Button size="small" variant="outlined" onClick={() => act(...commands)}>Take over the result</Button>}
        {share !== null && <span role="status">running <progress max={1} value={share} aria-label="Simulating the plan" /> <TextButton onClick={() => runner.current?.stop()}>stop</TextButton></span>}
      </div>
      <table className={own.plan} aria-label="Plan of action">
        <thead><tr><th scope="col">Step</th><th scope="col">What to do</th><th scope="col">Why</th><th scope="col">Simulated</th></tr></thead>
        <tbody>
          {steps.map((step, i) => (
            <tr key={step.at}>
              <th scope="row">{i + 1}</th><td>{step.text}</td><td>{step.why}</td>
              <td data-bad={outcomes && (outcomes[i]!.frames !== null || outcomes[i]!.outage > 1) ? '' : undefined}>{outcomes ? outcomeText(outcomes[i]!) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {typeof shown === 'string' && <p className={own.fault} role="alert">{shown}</p>}
      {!outcomes && <p className={own.hint}>Simulate, to see of each step whom it cuts off, for how long, and whether frames circle.</p>}
    </div>
  );
}

function outcomeText({ outage, pairs, frames }: StepOutcome): string {
  const cut = pairs === 0 ? 'nobody is cut off' : `${counted(pairs, 'pair')} cut off, the longest for ${outage === Infinity ? 'good' : durationText(outage)}`;
  return frames === 'circle' ? `frames circle; ${cut}` : frames === 'come twice' ? `frames come back or come twice; ${cut}` : cut;
}
