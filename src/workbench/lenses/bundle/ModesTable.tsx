'use client';
/** Which pairs of modes come up; the pair of the bundle that is selected is marked. */
import { modePair, type EndMode } from '../../../core/topology/lag/modes';
import { oppositesOf } from '../../../core/analysis/lag/bundleEnds';
import { pairCommands } from '../../../core/analysis/lag/setModes';
import { useWorkbench } from '../../state/context';
import own from './bundle.module.css';
import { useChosenEnd } from './useChosenEnd';
import { MODE_NAMES, OUTCOMES } from './words';

const MODES: readonly EndMode[] = ['active', 'passive', 'static', 'initiate', 'answer', 'none'];

export function ModesTable() {
  const { end, bundles, choice } = useChosenEnd();
  const far = end && (oppositesOf(bundles, end)[0] ?? null);
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const pair: readonly [EndMode, EndMode] | null = end && far ? [end.mode, far.end?.mode ?? 'none'] : null;
  return (
    <div className={own.page}>
      {choice}
      {end && far && pair && (
        <p
          className={own.lead}
        >{`${end.ownerName} is ${MODE_NAMES[pair[0]].toLowerCase()}, ${far.name} ${pair[1] === 'none' ? 'has no bundle there' : `is ${MODE_NAMES[pair[1]].toLowerCase()}`}: ${modePair(...pair).why}`}</p>
      )}
      <table className={own.matrix} aria-label="Which modes come up">
        <thead>
          <tr>
            <th scope="col">
              {end
                ? `rows: ${end.ownerName}; columns: ${far?.name ?? 'the other end'}`
                : 'rows: one end; columns: the other'}
            </th>
            {MODES.map((mode) => (
              <th key={mode} scope="col" data-now={pair?.[1] === mode || undefined}>
                {MODE_NAMES[mode]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {MODES.map((a) => (
            <tr key={a}>
              <th scope="row" data-now={pair?.[0] === a || undefined}>
                {MODE_NAMES[a]}
              </th>
              {MODES.map((b) => {
                const { outcome, why } = modePair(a, b);
                const now = pair?.[0] === a && pair[1] === b;
                const commands = end && far ? pairCommands(design, [end, far.end], [a, b]) : null;
                return (
                  <td key={b} title={why} data-outcome={outcome} aria-current={now ? 'true' : undefined}>
                    {commands && !now ? (
                      <button
                        type="button"
                        aria-label={`${OUTCOMES[outcome]}: set ${end!.ownerName} ${MODE_NAMES[a].toLowerCase()}, ${far!.name} ${MODE_NAMES[b].toLowerCase()}`}
                        onClick={() => act(...commands)}
                      >
                        {OUTCOMES[outcome]}
                      </button>
                    ) : (
                      OUTCOMES[outcome]
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className={own.hint}>
        {end && far && 'A click on a cell sets both ends so. '}
        Single ports: each link stands by itself, and spanning tree blocks all but one. One-sided: the static end
        bundles unasked, which spanning tree cannot see.
      </p>
    </div>
  );
}
