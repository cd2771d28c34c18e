/** The map after a failure, or the failure on the timeline. */
import { failed, failureText, type Failure } from '../../../core/analysis/failures/failure';
import { namesOf } from '../../../core/model/derive/names';
import type { Undated } from '../../../core/model/scenario';
import { movedEnds } from '../../../core/tree/moved';
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

/** What a scenario does where that fails; none for a host's card, which no action takes away. */
export function actionsOf(failure: Failure): Undated[] {
  switch (failure.kind) {
    case 'link':
    case 'member':
      return [{ do: 'link-down', link: failure.link, light: true }];
    case 'switch':
      return [{ do: 'switch-down', switch: failure.switch }];
    case 'group':
      return failure.switches.map((id) => ({ do: 'switch-down', switch: id }));
    case 'card':
      return [];
  }
}
