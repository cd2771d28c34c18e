/** Earlier revisions of the open design: fetched, read by the core, solved, compared. */
import { readDesign } from '../../core/model/read';
import { problemText } from '../../core/model/problem';
import type { Design } from '../../core/model/document';
import { fail, ok, type Result } from '../../core/base/result';
import { compareDesigns, type Comparison } from '../../core/analysis/compare/compare';
import { solve } from '../../core/tree/solve';
import type { Solution } from '../../core/tree/settled';
import { api } from './api';
import { movedOf } from './moved';
import type { View } from './looking';

/** A revision by its number; `now` is what is being edited. */
export type RevisionChoice = number | 'now';

/** A design with its solution, where it has one. */
export interface Solved {
  readonly label: string;
  readonly revision: number;
  readonly design: Design;
  readonly solution: Solution;
}

/** What people call a revision. */
export const revisionName = (revision: number, baseline: string | null): string =>
  baseline === null ? `revision ${revision}` : `revision ${revision}, ${baseline}`;

/** Fetches and solves a revision; the error is a sentence. */
export async function revisionAt(id: string, revision: number, label: string): Promise<Result<Solved, string>> {
  const answer = await api.documentAt(id, revision);
  if (!answer.ok) return fail(answer.error.message);
  const design = readDesign(answer.value.document);
  if (!design.ok) return fail(design.error.map(problemText).join('; '));
  return ok(solvedOf(design.value, revision, label));
}

/** Solves a design that is at hand. */
export function solvedOf(design: Design, revision: number, label: string): Solved {
  return { label, revision, design, solution: solve(design) };
}

/** Two states side by side. */
export interface SideBySide {
  readonly before: Solved;
  readonly after: Solved;
  readonly comparison: Comparison;
}

export const sideBySide = (before: Solved, after: Solved): SideBySide => ({
  before,
  after,
  comparison: compareDesigns(before.design, after.design, [before.solution, after.solution]),
});

/** What the map shows of a comparison: the later state, with the ends marked that had another role in the earlier one. */
export const viewOf = ({ before, after, comparison }: SideBySide): View => ({
  ...after,
  kind: 'comparison',
  moved: movedOf(`${before.label} against ${after.label}`, comparison.ends, 'comparison'),
});
