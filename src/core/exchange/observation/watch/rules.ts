/** Rules of a watch: sentences of which each says when people are to be told. */
import { fail, ok, type Result } from '../../../base/result';
import { counted } from '../../../base/words';
import { treeName, type TreeId } from '../../../model/ids';
import type { Observation } from '../observation';
import { rootsOf } from './events';

export type Rule =
  | { readonly kind: 'root'; readonly tree: string; readonly is: string }
  | { readonly kind: 'changes'; readonly most: number; readonly seconds: number }
  | { readonly kind: 'silent' }
  | { readonly kind: 'differs' }
  | { readonly kind: 'intents' };

/** What rules may say, as examples. */
export const RULE_EXAMPLES = [
  'root of VLAN 15 is not ridge-a',
  'more than 3 topology changes in an hour',
  'a switch does not answer',
  'something is not as designed',
  'an intent no longer holds',
] as const;

const SPANS: readonly (readonly [word: RegExp, seconds: number])[] = [
  [/^(a|1) minute$/, 60],
  [/^(\d+) minutes$/, 60],
  [/^(an|1) hour$/, 3600],
  [/^(\d+) hours$/, 3600],
  [/^(a|1) day$/, 86_400],
];

/** The error says what may be said. */
export function readRule(text: string): Result<Rule, string> {
  const line = text.trim().replace(/\.$/, '');
  const root = /^(?:the )?root of (.+?) is not (.+)$/i.exec(line);
  const tree = root && treeCalled(root[1]!);
  if (tree) return ok({ kind: 'root', tree, is: root[2]! });
  const changes = /^more than (\d{1,6}) topology changes in (.+)$/i.exec(line);
  const seconds = changes && secondsOf(changes[2]!.toLowerCase());
  if (seconds) return ok({ kind: 'changes', most: Number(changes[1]), seconds });
  const [, , silent, differs, intents] = RULE_EXAMPLES;
  if (line.toLowerCase() === silent) return ok({ kind: 'silent' });
  if (line.toLowerCase() === differs) return ok({ kind: 'differs' });
  if (line.toLowerCase() === intents) return ok({ kind: 'intents' });
  return fail(
    `found "${line.slice(0, 80)}"; allowed: rules such as ${RULE_EXAMPLES.map((each) => `"${each}"`).join(', ')}`,
  );
}

function treeCalled(text: string): string | null {
  const [, vid] = /^VLAN (\d{1,4})$/i.exec(text) ?? [];
  if (vid !== undefined) return `vlan:${Number(vid)}`;
  const [, mstid] = /^instance (\d{1,4})$/i.exec(text) ?? [];
  if (mstid !== undefined) return `mst:${Number(mstid)}`;
  return /^(the common tree|CST|CIST)$/i.test(text) ? 'cst' : null;
}

function secondsOf(text: string): number | null {
  for (const [word, seconds] of SPANS) {
    const [, count] = word.exec(text) ?? [];
    if (count !== undefined) return (Number(count) || 1) * seconds;
  }
  return null;
}

/** What rules are held against. */
export interface Situation {
  readonly observation: Observation;
  /** Of the switches that have answered before: those that do not now. */
  readonly silent: readonly string[];
  /** Topology changes counted in so many seconds up to now: the most that one switch counts in one tree. */
  readonly changesIn: (seconds: number) => number;
  /** Where the network is not as designed, and intents that do not hold, in words. */
  readonly differences: () => readonly string[];
  readonly broken: () => readonly string[];
}

/** Why a rule speaks up now; null where it does not. */
export function brokenBy(rule: Rule, situation: Situation): string | null {
  switch (rule.kind) {
    case 'root': {
      const { switches } = situation.observation;
      const mac = rootsOf(situation.observation).get(rule.tree);
      if (mac === undefined) return null;
      const name = switches.find((sw) => sw.mac === mac)?.name || mac;
      return name.toLowerCase() === rule.is.toLowerCase() || mac === rule.is
        ? null
        : `The root of ${treeName(rule.tree as TreeId)} is ${name}, not ${rule.is}.`;
    }
    case 'changes': {
      const count = situation.changesIn(rule.seconds);
      return count > rule.most ? `${counted(count, 'topology change')} in ${spanText(rule.seconds)}.` : null;
    }
    case 'silent':
      return situation.silent.length > 0 ? `${listed(situation.silent)} does not answer.` : null;
    case 'differs': {
      const [first, ...more] = situation.differences();
      return first === undefined ? null : `Not as designed: ${first}${andMore(more)}`;
    }
    case 'intents': {
      const [first, ...more] = situation.broken();
      return first === undefined ? null : `It no longer holds: ${first}${andMore(more)}`;
    }
  }
}

const spanText = (seconds: number): string =>
  seconds % 86_400 === 0
    ? counted(seconds / 86_400, 'day')
    : seconds % 3600 === 0
      ? counted(seconds / 3600, 'hour')
      : counted(seconds / 60, 'minute');
const listed = (names: readonly string[]): string =>
  names.length > 4 ? counted(names.length, 'switch', 'switches') : names.join(', ');
const andMore = (more: readonly unknown[]): string => (more.length === 0 ? '' : `, and ${more.length} more`);
