/** The present design, also while the map shows another state: what is planned for it stays. */
import { useState } from 'react';
import type { Design } from '../../../../core/model/document';
import type { Solution } from '../../../../core/tree/settled';
import { useFollowing, useWorkbenchStore } from '../../../state/context';
import { atPresent } from '../../../state/looking';

/** `solution`: null as long as there is none. */
export function usePresent(): { readonly design: Design; readonly solution: Solution | null } {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => (atPresent(state) ? state.design : null));
  const solution = useFollowing((state) => (atPresent(state) ? state.solution : null));
  const [kept, keep] = useState({ design: design ?? store.getState().newest(), solution });
  if (design && (kept.design !== design || kept.solution !== solution)) keep({ design, solution });
  return kept;
}
