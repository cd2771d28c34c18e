/** Plans in words. */
import type { JudgedPlan, JudgedStep, StepEffect } from './judge';
import type { Plan } from './plan';
import { treesName, type SwitchId, type TreeId } from '../../model/ids';
import type { Names } from '../../model/names';
import { counted, durationText } from '../../base/words';

/** What a step does once all has settled, in a sentence or some. */
export function settledText({ ends, roots, cutOff, broken }: StepEffect, names: Names): string {
  return [
    ends === 0
      ? 'No port changes its role.'
      : `${counted(ends, 'port')} ${ends === 1 ? 'changes its' : 'change their'} role.`,
    ...byRoot(roots, ({ root }) => root, names).map((text) => `New ${text}.`),
    ...(cutOff.length > 0
      ? [`Until a later step, cut off: ${cutOff.map((host) => names.host(host)).join(', ')}.`]
      : []),
    ...broken.map((text) => `Breaks until a later step: ${text}.`),
  ].join(' ');
}

/** `root of VLANs 15, 25: ridge-a`, for each root. */
function byRoot(
  roots: StepEffect['roots'],
  of: (each: StepEffect['roots'][number]) => SwitchId | null,
  names: Names,
): string[] {
  const found = new Map<string, TreeId[]>();
  for (const each of roots) {
    const root = of(each);
    const name = root === null ? 'nobody' : names.switch(root);
    found.set(name, [...(found.get(name) ?? []), each.tree]);
  }
  return [...found].map(([name, trees]) => `root of ${treesName(trees)}: ${name}`);
}

/** What can be looked at at the switches before and after a step. */
export function checksOf(
  { roots, moves }: StepEffect,
  names: Names,
): { readonly before: readonly string[]; readonly after: readonly string[] } {
  const roles = (side: 'before' | 'after'): string[] =>
    moves.map((end) => `${names.end(end)} is ${end[side]} port in ${treesName([end.tree])}`);
  return {
    before: [...byRoot(roots, ({ was }) => was, names), ...roles('before')],
    after: [...byRoot(roots, ({ root }) => root, names), ...roles('after')],
  };
}

/** What happens until all has settled. */
export function meanwhileText(run: JudgedStep['run'], names: Names): string {
  if (!run.ok) return run.error;
  const { worst, pairs, frames } = run.value;
  const said = {
    circle: 'Frames circle. ',
    'come twice': 'Frames come back or come twice. ',
  };
  const first = frames === null ? '' : said[frames];
  if (!worst) return `${first}Nobody is cut off.`;
  const time = worst.lasting ? 'to the end' : `for ${durationText(worst.longest)}`;
  return `${first}${names.host(worst.from)} does not reach ${names.host(worst.to)} ${time}${pairs > 1 ? `, and ${counted(pairs - 1, 'more pair')} for less` : ''}.`;
}

/** A plan and what it does on the way, in a sentence. */
export function summaryText({ steps, watched }: JudgedPlan): string {
  const times = steps.flatMap(({ run }) => (run.ok && run.value.worst ? [run.value.worst.longest] : []));
  const broken = steps.filter(({ broken: all }) => all.length > 0).length;
  const notRun = steps.filter(({ run }) => !run.ok).length;
  return [
    times.length === 0
      ? 'nobody is cut off on the way'
      : `the longest outage lasts ${durationText(Math.max(...times))}`,
    ...(notRun > 0 ? [`${counted(notRun, 'step')} not run`] : []),
    broken > 0
      ? `${counted(broken, 'step')} with an intent broken`
      : watched > 0
        ? 'every must about the network as it is that holds at both ends does all the way'
        : '',
  ]
    .filter((part) => part !== '')
    .join('; ')
    .concat('.');
}

/** All of it as plain text, to be taken along. */
export function stepsText(
  label: string,
  { steps }: Plan,
  judged: JudgedPlan | null,
  holds: readonly boolean[],
  names: Names,
): string {
  const lines = steps.flatMap(({ does, why }, i) => {
    const step = judged?.steps[i];
    const checks = step && checksOf(step, names);
    const line = (what: string, all: readonly string[] | undefined): string[] =>
      all && all.length > 0 ? [`   ${what}: ${all.join('; ')}`] : [];
    return [
      `${i + 1}. ${does.join('\n   ')}`,
      ...(why === null ? [] : [`   Why: ${why}`]),
      ...line('Check before', checks?.before),
      ...line('Check after', checks?.after),
      ...(step ? [`   Meanwhile: ${meanwhileText(step.run, names)}`] : []),
      ...line('Take it back', step?.back),
      ...(holds[i] ? ['   HOLD: go on once this has been checked.'] : []),
    ];
  });
  return `${[label, '', ...lines].join('\n')}\n`;
}
