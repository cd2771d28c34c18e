/** What the commands read, and what makes it unusable (exit code 2, one line on standard error). */
import { readFileSync } from 'node:fs';
import type { Result } from '../core/base/result';
import { parseJson } from '../core/base/json';
import { readObservation, type Observation } from '../core/exchange/observation/observation';
import type { Scenario } from '../core/model/scenario';
import { readScenario } from '../core/sim/scenario/scenario';
import type { DesignProblem } from '../core/model/problem';
import { problemText } from '../core/model/problem';
import { readDesignText } from '../core/model/read';
import type { Design } from '../core/model/document';
import type { SettledTree, Solution } from '../core/tree/settled';
import { solve } from '../core/tree/solve';

/** Input that cannot be used; its message is one line. */
export class Unusable extends Error {}

/** The text of a file, or of standard input for `-`. */
export function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new Unusable(`${file}: cannot be read (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
  }
}

/** Reads and checks the design in a file, or on standard input for `-`. */
export function loadDesign(file: string): Design {
  const design = readDesignText(readText(file));
  if (!design.ok) throw new Unusable(`${file}: ${firstOf(design.error)}`);
  return design.value;
}

/** Reads a scenario and holds it against the design. */
export function loadScenario(file: string, design: Design): Scenario {
  const json = parseJson(readText(file));
  if (!json.ok) throw new Unusable(`${file}: found ${json.error}; allowed: a JSON document`);
  const scenario = readScenario(json.value, design);
  if (!scenario.ok)
    throw new Unusable(
      `${file}: ${problemText(scenario.error[0]!)}${scenario.error.length > 1 ? ` (and ${scenario.error.length - 1} more)` : ''}`,
    );
  return scenario.value;
}

/** Reads what a network told. */
export function loadObservation(file: string): Observation {
  const read = readObservation(readText(file));
  if (!read.ok) throw new Unusable(`${file}: ${read.error}`);
  return read.value;
}

/** Loads and solves. */
export function loadSolution(file: string): { design: Design; solution: Solution } {
  const design = loadDesign(file);
  const solution = solve(design);
  return { design, solution: solution };
}

/** What an option gives; what is wrong with it names the option. */
export function valueOf<T>(option: string, read: Result<T, string>): T {
  if (!read.ok) throw new Unusable(`${option}: ${read.error}`);
  return read.value;
}

/** A whole number that an option gives. */
export function wholeOf(option: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new Unusable(`${option}: found "${text}"; allowed: a whole number, ${least} to ${most}`);
  return value;
}

/** The tree that was asked for. */
export function treeCalled(solution: Solution, id: string): SettledTree {
  const tree = solution.trees.find((t) => t.id === id);
  if (!tree)
    throw new Unusable(
      `--tree: found "${id}"; allowed: ${solution.trees.map((t) => t.id).join(', ') || 'none, since no switch runs spanning tree'}`,
    );
  return tree;
}

const firstOf = (problems: readonly DesignProblem[]): string =>
  problems.slice(0, 1).map(problemText).join('') + (problems.length > 1 ? ` (and ${problems.length - 1} more)` : '');
