/** The chapters of a change report: two revisions side by side, and the way from one to the other. */
import { isToBeHeld } from '../../analysis/plans/judge';
import { checksOf, meanwhileText, settledText, summaryText } from '../../analysis/plans/planWords';
import { compareDesigns } from '../../analysis/compare/compare';
import { counted } from '../../base/words';
import { treeName, treesName, type TreeId } from '../../model/ids';
import { namesOf } from '../../model/derive/names';
import { alikeTrees } from '../../tree/alike';
import { treeOf } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { listOf, tableOf, words, type Block, type Reported } from './report';

/** Trees whose pictures stand side by side. */
const MOST_PAIRS = 8;
/** Ends that are named. */
const MOST_ENDS = 200;

export function changesChapter({ design, solution, before, names }: Reported): Block[] {
  if (!before) return [];
  const was = solve(before.design);
  const { settings, ends, trees } = compareDesigns(before.design, design, [was, solution]);
  // Trees that were alike and are alike now are shown once.
  const both = solution.trees.filter(({ id }) => treeOf(was, id) && ends.some(({ tree }) => tree === id));
  const shown = alikeTrees(both).flatMap((group) =>
    alikeTrees(group.map(({ id }) => treeOf(was, id)!)).map((old) => old.map(({ id }) => id)),
  );
  const pair = (trees: readonly TreeId[]): Block[] => [
    { kind: 'picture', caption: `${before.label}: ${treesName(trees)}`, trees: trees.slice(0, 1), of: 'before' },
    { kind: 'picture', caption: `now: ${treesName(trees)}`, trees: trees.slice(0, 1), of: 'now' },
  ];
  const moves = new Map<string, { readonly cells: readonly string[]; readonly trees: TreeId[] }>();
  for (const end of ends) {
    const cells = [names.end(end), end.before ?? '', end.after ?? ''];
    const known = moves.get(cells.join('\n'));
    if (known) known.trees.push(end.tree);
    else moves.set(cells.join('\n'), { cells, trees: [end.tree] });
  }
  const moved = [...moves.values()];
  return [
    words(
      `From ${before.label} to now: ${counted(settings.length, 'setting')}; ${ends.length === 0 ? 'no end has another role' : `${counted(ends.length, 'end')} with another role`}.`,
    ),
    ...listOf(trees.map(({ tree, only }) => `${treeName(tree)}: ${only === 'before' ? 'gone' : 'new'}.`)),
    ...tableOf(
      ['where', 'setting', 'before', 'now'],
      settings.map(({ on, setting, before: old, after }) => [on, setting, old ?? '', after ?? '']),
    ),
    ...tableOf(
      ['end', 'trees', 'before', 'now'],
      moved
        .slice(0, MOST_ENDS)
        .map(({ cells: [end = '', old = '', now = ''], trees: own }) => [end, treesName(own), old, now]),
    ),
    ...(moved.length > MOST_ENDS ? [words(`And ${moved.length - MOST_ENDS} more.`)] : []),
    ...shown.slice(0, MOST_PAIRS).flatMap(pair),
  ];
}

export function changeChapter({ before }: Reported): Block[] {
  if (!before) return [];
  if (typeof before.change === 'string') return [words(before.change)];
  const { plan, judged } = before.change;
  const names = namesOf(before.design);
  return [
    words(`${counted(plan.steps.length, 'step')}: ${summaryText(judged)}`),
    ...tableOf(
      ['step', 'what to do', 'once settled', 'meanwhile', 'check after', 'take it back'],
      plan.steps.map(({ does }, i) => {
        const step = judged.steps[i]!;
        const hold = i < plan.steps.length - 1 && isToBeHeld(step) ? ' Hold: go on once this has been checked.' : '';
        return [
          String(i + 1),
          does.join(' '),
          settledText(step, names),
          meanwhileText(step.run, names),
          `${checksOf(step, names).after.join('; ')}${hold}`,
          step.back.join(' '),
        ];
      }),
    ),
  ];
}
