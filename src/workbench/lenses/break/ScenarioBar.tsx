'use client';
/** The scenario in hand: which one it is, what happens when, keeping it with the design. */
import { useState } from 'react';
import { MAX_UNTIL, type Action } from '../../../core/model/scenario';
import { actionText, nearestLink, scenarioDesign } from '../../../core/sim/scenario/scenario';
import { TextButton } from '../../ui/TextButton';
import { EMPTY, useClock } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import { counted } from '../../../core/base/words';
import { NumberField } from '../../ui/NumberField';
import kit from '../../ui/kit.module.css';
import styles from '../shared/clock.module.css';
import { mayEdit } from '../../state/looking';
import { Select } from '../../ui/Select';

export function ScenarioBar() {
  const kept = useWorkbench((state) => state.design.scenarios);
  const draft = useClock((clock) => clock.scenario);
  const open = useClock((clock) => clock.open);
  const status = useClock((clock) => clock.status);
  const stop = useClock((clock) => clock.stop);
  return (
    <div className={styles.scenario}>
      <div className={styles.scenarioLine}>
        <label>
          Scenario{' '}
          <Select<string>
            value={draft.id ?? ''}
            options={[
              ['', draft.id === null && draft.actions.length > 0 ? 'not kept' : 'none'],
              ...kept.map((each) => [each.id, each.name] as const),
            ]}
            choose={(id) => open(kept.find((each) => each.id === id) ?? EMPTY)}
          />
        </label>
        {(draft.actions.length > 0 || draft.fromBoot) && (
          <TextButton does="plain" onClick={() => open(EMPTY)}>
            clear
          </TextButton>
        )}
        <Keep />
        <Span />
        {status.kind === 'running' && (
          <span className={styles.busy} role="status">
            <progress max={1} value={status.share} aria-label="The protocols run" />{' '}
            {status.share === 0 ? 'coming to rest first' : `${Math.round(status.share * 100)} %`}
            <TextButton does="plain" onClick={stop}>
              stop, keep what there is
            </TextButton>
          </span>
        )}
        <Outcome />
      </div>
      {draft.look !== '' && <p className={styles.look}>{draft.look}</p>}
      <Held />
      <Actions />
    </div>
  );
}

/** What is to be looked at where a plan is held. */
function Held() {
  const text = useClock(({ holds, t, playing }) =>
    playing === null ? (holds.find((hold) => hold.t === t)?.text ?? null) : null,
  );
  return (
    text !== null && (
      <p className={styles.look} role="status">
        {text}
      </p>
    )
  );
}

/** Where the run ended. */
function Outcome() {
  const trace = useClock((clock) => clock.player?.trace);
  const done = useClock((clock) => clock.status.kind === 'done');
  if (!trace || !done) return null;
  const parts = [
    trace.stopped
      ? `stopped at ${(trace.until / 1e6).toFixed(3)} s`
      : trace.ending.kind === 'moves'
        ? `still moving at the end: at rest from ${trace.ending.at.toFixed(3)} s on`
        : trace.ending.kind === 'restless' || trace.settledAt === null
          ? `never comes to rest${trace.ending.kind === 'restless' && trace.ending.ports.length > 0 ? `: ${counted(trace.ending.ports.length, 'port')} or more keep changing` : ''}`
          : trace.settledAt === 0
            ? 'nothing moved'
            : `settled at ${(trace.settledAt / 1e6).toFixed(3)} s`,
    ...(trace.restlessBefore ? ['had not come to rest before it began'] : []),
    ...(trace.unfollowed > 0 ? [`${trace.unfollowed} pairs of hosts not followed`] : []),
    ...(trace.unkept > 0 ? [`${trace.unkept} frames not kept`] : []),
  ];
  return <span className={styles.outcome}>{parts.join(', ')}</span>;
}

/** Keeps the scenario with the design under a name. */
function Keep() {
  const draft = useClock((clock) => clock.scenario);
  const kept = useWorkbench((state) => state.design.scenarios);
  const viewing = !useWorkbench(mayEdit);
  const act = useWorkbench((state) => state.act);
  const open = useClock((clock) => clock.open);
  const [name, setName] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const same = kept.find((each) => each.id === draft.id);
  const changed = !same || JSON.stringify({ ...same, id: null }) !== JSON.stringify({ ...draft, id: null });
  if (viewing || (draft.actions.length === 0 && !draft.fromBoot)) return null;
  const keep = (as: string, id: string | null) => {
    const free = (n: number): string => (kept.some((each) => each.id === `s${n}`) ? free(n + 1) : `s${n}`);
    const scenario = { ...draft, name: as.trim(), actions: [...draft.actions], id: id ?? free(kept.length + 1) };
    const refused = as.trim() === '' ? 'A scenario needs a name.' : act({ do: 'keep-scenario', scenario });
    setFault(refused);
    if (refused !== null) return;
    setName(null);
    open(scenario);
  };
  if (name !== null) {
    return (
      <form
        className={styles.keep}
        onSubmit={(event) => {
          event.preventDefault();
          keep(name, null);
        }}
      >
        <input
          autoFocus
          className={kit.input}
          aria-label="Name of the scenario"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && setName(null)}
          placeholder="its name"
        />
        <TextButton does="edit" type="submit">
          keep it
        </TextButton>
        {fault && (
          <span className={styles.fault} role="alert">
            {fault}
          </span>
        )}
      </form>
    );
  }
  return (
    <>
      {same && changed && (
        <TextButton does="edit" onClick={() => keep(same.name, same.id)}>
          keep the change
        </TextButton>
      )}
      {changed && (
        <TextButton does="edit" onClick={() => setName(same ? `${same.name}, changed` : '')}>
          {same ? 'keep as another' : 'keep with the design'}
        </TextButton>
      )}
      {same && (
        <TextButton
          does="remove"
          onClick={() => {
            act({ do: 'forget-scenario', scenario: same.id });
            open({ ...draft, id: null });
          }}
        >
          forget
        </TextButton>
      )}
    </>
  );
}

/** How long it runs, and from where. */
function Span() {
  const { until, talk, fromBoot } = useClock((clock) => clock.scenario);
  const change = useClock((clock) => clock.change);
  return (
    <>
      <label>
        for{' '}
        <NumberField
          label="Length of the run in seconds"
          value={until}
          least={0.1}
          most={MAX_UNTIL}
          commit={(seconds) => change({ until: seconds })}
        />{' '}
        s
      </label>
      <label title="A wrongly learnt address lasts until its host sends again, or is flushed or ages out">
        each host sends every{' '}
        <NumberField
          label="How often hosts send, in seconds"
          value={talk}
          least={0.001}
          most={MAX_UNTIL}
          commit={(seconds) => change({ talk: seconds })}
        />{' '}
        s
      </label>
      <label className={styles.tick}>
        <input type="checkbox" checked={fromBoot} onChange={(event) => change({ fromBoot: event.target.checked })} />{' '}
        all powered on at 0
      </label>
    </>
  );
}

/** What happens, in order, each with its time; what no longer fits the design says so and offers what does. */
function Actions() {
  const scenario = useClock((clock) => clock.scenario);
  const problems = useClock((clock) => clock.problems);
  const replace = useClock((clock) => clock.replaceAction);
  const design = useWorkbench((state) => state.design);
  if (scenario.actions.length === 0) return null;
  const staged = scenarioDesign(design, scenario);
  const shown = staged.ok ? staged.value : design;
  return (
    <ol className={styles.actions} aria-label="What happens">
      {scenario.actions.map((action, i) => {
        const fault = problems[i]?.[0];
        return (
          <li key={i} data-fault={fault ? '' : undefined}>
            <NumberField
              label={`Time of action ${i + 1} in seconds`}
              value={action.at}
              least={0}
              most={scenario.until}
              commit={(at) => replace(i, { ...action, at })}
            />{' '}
            s {actionText(shown, action)}
            {fault && <Mend action={action} i={i} />}
            <TextButton does="remove" onClick={() => replace(i, null)} aria-label={`take out action ${i + 1}`}>
              take out
            </TextButton>
          </li>
        );
      })}
    </ol>
  );
}

function Mend({ action, i }: { readonly action: Action; readonly i: number }) {
  const problem = useClock((clock) => clock.problems[i]![0]!);
  const replace = useClock((clock) => clock.replaceAction);
  const design = useWorkbench((state) => state.design);
  const gone = 'between' in action && !design.links.some((link) => link.id === action.link);
  const near = gone ? nearestLink(design, action.between) : null;
  return (
    <span className={styles.fault} role="alert">
      {' '}
      {gone ? `There is no link ${action.link} any more.` : `Found ${problem.found}; allowed: ${problem.allowed}.`}{' '}
      {near && gone && (
        <TextButton
          does="edit"
          onClick={() => replace(i, { ...action, link: near.id, between: { a: near.a, b: near.b } })}
        >{`take ${near.a.switch} port ${near.a.port} to ${near.b.switch} port ${near.b.port} instead`}</TextButton>
      )}
    </span>
  );
}
