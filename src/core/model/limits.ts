/**
 * How large a design may be: far above the networks that Knot Path is for, and low enough that every answer comes in
 * reasonable time. Stated in docs/design-file.md, held wherever a document or an edit comes in.
 */
import { jsonPath, type DesignProblem } from './problem';

/** Most items of each list of the document. */
export const LIMITS = {
  vlans: 4094,
  regions: 200,
  switches: 2000,
  links: 20_000,
  bundles: 10_000,
  hosts: 20_000,
  observed: 50_000,
  worksheets: 100,
  scenarios: 100,
} as const;
/** Most ports on one switch (each has a number of twelve bits), and in a design. */
export const MAX_PORTS = { switch: 4095, design: 50_000 } as const;
/** Most cards of a host, and most members of a bundle. */
export const MAX_ENDS = 64;
/** Most instances of a region beside the IST (802.1Q-2018 13.5). */
export const MAX_INSTANCES = 64;
/** Most changes in one step. */
export const MAX_COMMANDS = 10_000;
/** Most problems that are told of one document: who mends these sees the others then. */
export const MAX_PROBLEMS = 100;

const lengthOf = (value: unknown): number => (Array.isArray(value) ? value.length : 0);

/** Lists that are longer than they may be, of a value that need not be a design yet: nothing else is looked at before. */
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
  for (const [key, most] of Object.entries(LIMITS)) hold([key], lengthOf(input[key]), most);
  if (problems.length > 0) return problems;
  const inEach = (key: string, inner: string, most: number, beside?: string): number =>
    (Array.isArray(input[key]) ? (input[key] as unknown[]) : []).reduce<number>((sum, item, i) => {
      const length = lengthOf((item as Record<string, unknown> | null)?.[inner]);
      hold([key, i, inner], length, most, beside);
      return sum + length;
    }, 0);
  inEach('regions', 'instances', MAX_INSTANCES, ' beside the IST');
  inEach('bundles', 'ports', MAX_ENDS);
  inEach('hosts', 'attach', MAX_ENDS);
  const ports = inEach('switches', 'ports', MAX_PORTS.switch);
  if (ports > MAX_PORTS.design)
    problems.push({ path: 'switches', found: `${ports} ports in all`, allowed: `at most ${MAX_PORTS.design}` });
  return problems;
}
