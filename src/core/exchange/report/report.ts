/** What a report of a design is made of, whatever it is written as: chapters of words, tables and pictures. */
import type { EveryFailure } from '../../analysis/failures/everyFailure';
import type { ChangePlan } from '../../analysis/plans/changePlan';
import { namesOf } from '../../model/derive/names';
import type { Design } from '../../model/document';
import type { TreeId } from '../../model/ids';
import type { Names } from '../../model/names';
import { alikeTrees } from '../../tree/alike';
import type { SettledTree, Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';

export type Block =
  | { readonly kind: 'words'; readonly text: string }
  /** Each a thing to be seen at once. */
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'table'; readonly heads: readonly string[]; readonly rows: readonly (readonly string[])[] }
  /** The map with these trees; of the design, or of what it was before. */
  | {
      readonly kind: 'picture';
      readonly caption: string;
      readonly trees: readonly TreeId[];
      readonly of: 'now' | 'before';
    };

export interface ReportChapter {
  /** In commands and documents. */
  readonly key: string;
  readonly name: string;
  /** What it holds; none where there is nothing to say. */
  readonly write: (of: Reported) => Block[];
  /** Of a change report alone. */
  readonly ofChange?: true;
  /** Needs every failure solved. */
  readonly ofFailures?: true;
}

/** A state that a change report begins with. */
export interface Earlier {
  /** `revision 4`. */
  readonly label: string;
  readonly design: Design;
  /** The order of steps from there; a sentence where there is none. */
  readonly change: ChangePlan | string;
}

/** What is reported on. */
export interface Subject {
  readonly design: Design;
  /** Null where it is not known, as of a file. */
  readonly revision: number | null;
  /** ISO 8601. */
  readonly at: string;
  readonly before: Earlier | null;
  /** Null where nobody has asked. */
  readonly failures: EveryFailure | null;
}

/** The same with what chapters have in common, worked out once. */
export interface Reported extends Subject {
  readonly solution: Solution;
  readonly names: Names;
  /** Trees that are alike are told together. */
  readonly alike: readonly (readonly SettledTree[])[];
}

export const reported = (subject: Subject): Reported => {
  const solution = solve(subject.design);
  return { ...subject, solution, names: namesOf(subject.design), alike: alikeTrees(solution.trees) };
};

export const words = (text: string): Block => ({ kind: 'words', text });

/** Nothing where there are no rows. */
export const tableOf = (heads: readonly string[], rows: readonly (readonly string[])[]): Block[] =>
  rows.length === 0 ? [] : [{ kind: 'table', heads, rows }];

export const listOf = (items: readonly string[]): Block[] => (items.length === 0 ? [] : [{ kind: 'list', items }]);
