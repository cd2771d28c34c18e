'use client';
/** Ways out of a network whose switches do not agree on trees, side by side: what each costs, what is left then, and the steps of the one that is chosen. */
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { Design } from '../../../core/model/document';
import type { WayOut } from '../../../core/analysis/dialects/waysOut';
import { useAsk } from '../../state/ask';
import { useWorkbenchStore } from '../../state/context';
import { PlanSteps } from '../shared/plan/PlanSteps';
import { useJudged } from '../shared/plan/useJudged';
import { usePresent } from '../shared/plan/usePresent';
import { askWaysOut } from '../../state/questions';
import { TextButton } from '../../ui/TextButton';
import { counted, durationText } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import styles from '../shared/group.module.css';

export function WaysOutTable() {
  const { design } = usePresent();
  const ways = useAsk(useMemo(() => askWaysOut(design), [design]));
  if (ways.status.kind !== 'found') return <Asking {...ways} what="Solving and simulating the ways out" />;
  return <Ways design={design} ways={ways.status.value} />;
}

function Ways({ design, ways }: { readonly design: Design; readonly ways: readonly WayOut[] }) {
  const [key, setKey] = useState('');
  const chosen = ways.find((way) => way.key === key) ?? ways[0]!;
  return (
    <div className={styles.page}>
      <table className={styles.ways} aria-label="Ways out, side by side">
        <thead>
          <tr>
            <th scope="col">Way</th>
            <th scope="col">To set</th>
            <th scope="col">Trees then</th>
            <th scope="col">Cables that nothing replaces</th>
            <th scope="col">Blocked by own BPDUs</th>
            <th scope="col">On the way, simulated</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr key={way.key} aria-current={way === chosen || undefined}>
              <th scope="row">
                <TextButton aria-pressed={way === chosen} onClick={() => setKey(way.key)}>
                  {way.name}
                </TextButton>
              </th>
              <td>{toSet(way)}</td>
              <td>{way.costs.trees}</td>
              <td data-bad={way.costs.alone[1] > way.costs.alone[0] ? '' : undefined}>{cables(way.costs.alone)}</td>
              <td data-bad={way.costs.open > 0 ? '' : undefined}>{blocked(way)}</td>
              <td data-bad={way.costs.simulated?.frames === 'circle' ? '' : undefined}>{simulated(way)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Chosen key={chosen.key} design={design} way={chosen} />
    </div>
  );
}

const toSet = ({ costs: { settings, switches, cables: out } }: WayOut): string =>
  [
    ...(switches > 0 ? [`${counted(settings - out, 'setting')} at ${counted(switches, 'switch', 'switches')}`] : []),
    ...(out > 0 ? [`${counted(out, 'cable')} out`] : []),
  ].join(', ');

const cables = ([now, then]: readonly [number, number]): string =>
  now === then ? `${then}, as now` : `${then}, now ${now}`;

const blocked = ({ costs: { returning, open } }: WayOut): string =>
  [
    returning === 0 ? 'none' : counted(returning, 'port'),
    ...(open > 0 ? [`${counted(open, 'loop')} that nothing blocks`] : []),
  ].join('; ');

function simulated({ costs: { simulated: of } }: WayOut): string {
  if (!of) return 'off while they are rebuilt: not simulated';
  const { outage, pairs, frames } = of;
  const cut =
    pairs === 0
      ? 'nobody cut off'
      : `cut off for ${outage === Infinity ? 'good' : durationText(outage)} at the longest`;
  return frames === 'circle' ? `frames circle; ${cut}` : frames === 'come twice' ? `frames come twice; ${cut}` : cut;
}

function Chosen({ design, way }: { readonly design: Design; readonly way: WayOut }) {
  const store = useWorkbenchStore();
  const notRun = way.isRun ? undefined : 'No run shows these steps: switches are off while they are rebuilt.';
  const { judged, button, told } = useJudged(design, way, notRun);
  const takeAll = () => {
    store.getState().look(null);
    store.getState().act(...way.preparation, ...way.steps.flatMap(({ changes }) => changes));
  };
  return (
    <section aria-label="The way chosen">
      <p className={styles.lead}>{way.says}</p>
      <PlanSteps
        plan={way}
        design={design}
        label={`Steps: ${way.name}`}
        judged={judged}
        notRun={notRun}
        before={button}
        after={
          <Button size="small" variant="outlined" onClick={takeAll}>
            Take over the result
          </Button>
        }
        takes
      />
      {told}
    </section>
  );
}
