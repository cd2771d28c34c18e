/** The map after a failure, or the failure on the timeline. */
import { actionsOf, failed, failureText, type Failure } from '../../../core/analysis/failures/failure';
import { namesOf } from '../../../core/model/derive/names';
import { movedEnds } from '../../../core/tree/moved';
import type { Action } from '../../../core/model/scenario';
import { EMPTY, type ClockStore } from '../../state/clock';
import type { WorkbenchStore } from '../../state/store';
import { movedOf } from '../../state/moved';
import { solvedOf } from '../../state/revisions';

/** Shows the network as it is once that has failed and all has settled. */
export function showFailure(store: WorkbenchStore, failure: Failure): void {
  store.getState().look(null);
  const { solution, revision, look } = store.getState();
  if (!solution) return;
  const { design } = solution.network;
  const label = `the design if ${failureText(failure, namesOf(design))}`;
  const there = solvedOf(failed(design, failure), revision, label);
  look({ ...there, kind: 'loss', moved: movedOf(label, movedEnds(solution, there.solution), 'comparison') });
}

/** Opens a scenario in which that fails after a second. */
export function playFailure(store: WorkbenchStore, clock: ClockStore, failure: Failure): void {
  store.getState().look(null);
  const { design, setLens } = store.getState();
  const actions = actionsOf(failure).map((action) => ({ ...action, at: 1 }) as Action);
  const name = `If ${failureText(failure, namesOf(design))}`.slice(0, 120);
  clock.getState().open({ ...EMPTY, name, actions, until: 60 });
  setLens('Break');
}
