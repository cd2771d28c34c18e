/** Lists that are longer than they may be: nothing else of a document is looked at before. */
import { oncePer } from '../../base/cache';
import { designNode } from '../document';
import type { Node } from '../field';
import { MAX_PORTS, MAX_PROBLEMS } from '../limits';
import { jsonPath, type DesignProblem } from '../problem';

const lengthOf = (value: unknown): number => (Array.isArray(value) ? value.length : 0);

/** The lists of a group that are not as long as they like, by key. */
const limited = oncePer((group: Node): readonly (readonly [string, number, Node])[] =>
  group.kind === 'group'
    ? [...group.fields].flatMap(([key, node]) =>
        node.facts?.most === undefined ? [] : [[key, node.facts.most, node] as const],
      )
    : [],
);

/** What is too long in a value that need not be a design yet. */
export function limitProblems(input: Readonly<Record<string, unknown>>): DesignProblem[] {
  const problems: DesignProblem[] = [];
  const hold = (path: readonly PropertyKey[], length: number, most: number, beside = ''): void => {
    if (length > most && problems.length < MAX_PROBLEMS)
      problems.push({
        path: jsonPath(path),
        found: `${length} ${String(path.at(-1))}`,
        allowed: `at most ${most}${beside}`,
      });
  };
  const lists = limited(designNode);
  for (const [key, most] of lists) hold([key], lengthOf(input[key]), most);
  if (problems.length > 0) return problems;
  let ports = 0;
  for (const [key, , node] of lists) {
    const inner = node.kind === 'list' ? limited(node.item) : [];
    const items = inner.length > 0 && Array.isArray(input[key]) ? (input[key] as unknown[]) : [];
    items.forEach((item, i) => {
      for (const [own, most, { facts }] of inner) {
        const length = lengthOf((item as Record<string, unknown> | null)?.[own]);
        hold([key, i, own], length, most, facts?.beside && ` ${facts.beside}`);
        if (own === 'ports' && key === 'switches') ports += length;
      }
    });
  }
  if (ports > MAX_PORTS.design)
    problems.push({ path: 'switches', found: `${ports} ports in all`, allowed: `at most ${MAX_PORTS.design}` });
  return problems;
}
