/** A plan on the map, a step at a time, or on the timeline. */
import { statesOf, type Plan } from '../../../../core/analysis/plans/plan';
import { playOf } from '../../../../core/analysis/plans/played';
import type { Design } from '../../../../core/model/document';
import { MAX_UNTIL } from '../../../../core/model/scenario';
import { SECOND } from '../../../../core/modes/entity';
import { movedEnds } from '../../../../core/tree/moved';
import { EMPTY, type ClockStore } from '../../../state/clock';
import { movedOf } from '../../../state/moved';
import { solvedOf } from '../../../state/revisions';
import type { WorkbenchStore } from '../../../state/store';

/** Shows the network once a step is done and all has settled; gives why it cannot be shown. */
export function showStep(store: WorkbenchStore, design: Design, plan: Plan, i: number): string | null {
  const states = statesOf(design, plan);
  if (!states.ok) return states.error;
  const { look, revision } = store.getState();
  look(null);
  const label = `the network after step ${i + 1}`;
  const [was, there] = [states.value[i]!, states.value[i + 1]!].map((each) => solvedOf(each, revision, label));
  const ends = movedEnds(was!.solution, there!.solution);
  look({ ...there!, kind: 'loss', moved: movedOf(label, ends, 'comparison') });
  return null;
}

interface Played {
  readonly design: Design;
  readonly plan: Plan;
  readonly name: string;
  /** Steps after which it halts, and what is to be looked at then. */
  readonly holds: readonly (readonly [step: number, ...checks: string[]])[];
}

/** Just before a step is done, seconds. */
const BEFORE = 0.001;

/** Opens a plan on the timeline, on the network that it begins with; gives why it cannot be played. */
export function playPlan(
  store: WorkbenchStore,
  clock: ClockStore,
  { design, plan, name, holds }: Played,
): string | null {
  const play = playOf(design, plan);
  if (!play.ok) return play.error;
  const { design: start, actions, times, until } = play.value;
  if (until > MAX_UNTIL) return `It takes longer than ${MAX_UNTIL} s: play it in parts.`;
  const { look, newest, revision, setLens } = store.getState();
  look(null);
  if (start !== newest())
    look({ ...solvedOf(start, revision, 'the network before the plan'), kind: 'loss', moved: null });
  setLens('Break');
  clock.getState().open(
    { ...EMPTY, name: name.slice(0, 120), actions: [...actions], until },
    holds.map(([step, ...checks]) => ({
      t: Math.round((times[step + 1]! - BEFORE) * SECOND),
      text: `Held after step ${step + 1}${checks.length > 0 ? `: check ${checks.join('; ')}` : ''}. Play on when that is so.`,
    })),
  );
  return null;
}
