'use client';
/** The clock: the scenario in hand, its time, and a lane for everything that changes. */
import { useMemo, useState } from 'react';
import { timeText, useClock, useClockStore } from '../../state/clock';
import { useWorkbench } from '../../state/context';
import styles from '../shared/clock.module.css';
import { Lanes } from './Lanes';
import { lanesOf, type LaneFilter } from './laneRows';
import { ScenarioBar } from './ScenarioBar';
import { ShutPorts } from './ShutPorts';
import type { ScaleKind } from '../shared/time/scale';
import { Transport, type SpeedChoice } from '../shared/time/Transport';
import { Select } from '../../ui/Select';

const SPEEDS: readonly SpeedChoice[] = [
  [0.01, '×0.01', 'a hundredth as fast as life'],
  [1, '×1', 'as fast as life'],
  [10, '×10', 'ten times as fast as life'],
  ['changes', 'by change', 'twelve changes a second'],
  ['fastest', 'fastest', 'a change with every picture'],
];

export function ClockTable() {
  const player = useClock((clock) => clock.player);
  return (
    <div className={styles.clock}>
      <ScenarioBar />
      {player ? <Running /> : <Nothing />}
    </div>
  );
}

function Running() {
  const player = useClock((clock) => clock.player)!;
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const [all, setAll] = useState(false);
  const [text, setText] = useState('');
  const [kind, setKind] = useState<ScaleKind>('busy');
  const [show, setShow] = useState<LaneFilter['show']>('all');
  const lanes = useMemo(
    () => lanesOf(player, { trees: all || shownTrees.length === 0 ? null : shownTrees, text, show }),
    [player, all, shownTrees, text, show],
  );
  return (
    <>
      <div className={styles.transport}>
        <RunTransport />
        <label className={styles.tick}>
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> all trees
        </label>
        <Select
          label="Rows of"
          value={show}
          options={[
            ['all', 'all rows'],
            ['ports', 'ports'],
            ['pairs', 'pairs'],
          ]}
          choose={setShow}
        />
        <input
          className={styles.filter}
          aria-label="Filter rows"
          placeholder="switch or host"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <label
          className={styles.tick}
          title="every second as wide as any other; without it, quiet stretches are drawn shorter"
        >
          <input
            type="checkbox"
            checked={kind === 'even'}
            onChange={(event) => setKind(event.target.checked ? 'even' : 'busy')}
          />{' '}
          even time scale
        </label>
      </div>
      <ShutPorts />
      <Lanes lanes={lanes} kind={kind} />
    </>
  );
}

function RunTransport() {
  const t = useClock((clock) => clock.t);
  const playing = useClock((clock) => clock.playing);
  const until = useClock((clock) => clock.player!.trace.until);
  const { play, step, seek } = useClockStore().getState();
  return <Transport time={{ t, until, playing, play, step, seek, text: timeText }} speeds={SPEEDS} />;
}

function Nothing() {
  const status = useClock((clock) => clock.status);
  const empty = useClock((clock) => clock.scenario.actions.length === 0);
  if (status.kind === 'failed')
    return (
      <p className={styles.fault} role="alert">
        {status.why}
      </p>
    );
  if (status.kind === 'running') return <p className={styles.hint}>The protocols run.</p>;
  return empty ? (
    <p className={styles.hint}>
      Nothing happens yet. Select a link, a switch or a port on the map: on the right you say what happens to it, and
      when. Or take one of the scenarios above.
    </p>
  ) : null;
}
