/** What the screen looks at, in one union, and what it shows of that. */
import type { Answers, Design } from '../../core/model/document';
import { treeName, type TreeId } from '../../core/model/ids';
import type { Solution } from '../../core/tree/settled';
import type { Present } from './document';
import type { Moved } from './moved';
import type { Lens } from './lens';

/** Another state of the design, shown in place of the present one. */
export interface View {
  readonly kind: 'revision' | 'comparison' | 'proposal' | 'loss' | 'observed';
  /** What it is, as people say it: `revision 12`. */
  readonly label: string;
  readonly revision: number;
  readonly design: Design;
  readonly solution: Solution;
  readonly moved: Moved | null;
}

/** A worksheet that is filled in: everything computed is hidden. */
export interface OpenWorksheet {
  readonly kind: 'worksheet';
  readonly tree: TreeId;
  readonly answers: Answers;
}

/** What is looked at; only the present can be changed. */
export type Looking = { readonly kind: 'present' } | View | OpenWorksheet;

export const PRESENT: Looking = { kind: 'present' };

/** Whether the present is looked at. */
export const atPresent = ({ looking }: { readonly looking: Looking }): boolean => looking.kind === 'present';

/** Whether what is looked at can be changed. */
export const mayEdit = (state: { readonly looking: Looking; readonly readOnly: boolean }): boolean =>
  !state.readOnly && atPresent(state);

/** Whether everything computed is hidden. */
export const isHidden = ({ looking }: { readonly looking: Looking }): boolean => looking.kind === 'worksheet';

/** What people call what is looked at. */
export function lookingText(looking: Looking): string {
  switch (looking.kind) {
    case 'present':
      return 'now';
    case 'worksheet':
      return `a worksheet for ${treeName(looking.tree)}`;
    case 'revision':
    case 'comparison':
    case 'proposal':
    case 'loss':
    case 'observed':
      return looking.label;
  }
}

/**
 * What the screen shows, the first of these: a worksheet that is filled in, an instant of a run (in the Break view), another
 * state of the design, the present.
 */
export function onScreen(
  { looking, lens }: { readonly looking: Looking; readonly lens: Lens },
  run: boolean,
): Looking['kind'] | 'instant' {
  return run && lens === 'Break' && looking.kind !== 'worksheet' ? 'instant' : looking.kind;
}

/** A design and what was computed of it, as the screen shows them. */
export type Shown = Pick<Present, 'design' | 'revision' | 'solution' | 'partly' | 'problem' | 'moved'>;

/** What is shown where this is looked at. */
export function shownOf({ design, revision, solution, partly, problem, moved }: Present, looking: Looking): Shown {
  switch (looking.kind) {
    case 'present':
      return { design, revision, solution, partly, problem, moved };
    case 'worksheet':
      return { design, revision, solution: null, partly: false, problem: null, moved: null };
    case 'revision':
    case 'comparison':
    case 'proposal':
    case 'loss':
    case 'observed':
      return { ...pick(looking), partly: false, problem: null };
  }
}

const pick = ({ design, revision, solution, moved }: View) => ({ design, revision, solution, moved });
