/** What happens to a network while the clock runs, held against the design. */
import { oncePer } from '../../base/cache';
import { fail, ok, type Result } from '../../base/result';
import { commandSchema, type Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { actionKind, isTurn } from '../../model/actions/actions';
import type { CommandCall } from '../../model/actions/kind';
import { namesOf } from '../../model/derive/names';
import type { Design, Link } from '../../model/document';
import { CIST, CST, treeInstance, treeVlan, vlanTree, type TreeId } from '../../model/ids';
import { foundText, problemsOf, type DesignProblem } from '../../model/problem';
import { runSchema, type Action, type Scenario } from '../../model/scenario';
import { treesOf } from '../../topology/trees';

/** Reads a scenario's JSON and holds it against the design; every problem names its place. */
export function readScenario(json: unknown, design: Design): Result<Scenario, DesignProblem[]> {
  const parsed = runSchema.safeParse(json);
  if (!parsed.success) return fail(problemsOf(runSchema, json, parsed.error));
  const problems = scenarioProblems(parsed.data, design).flat();
  return problems.length > 0 ? fail(problems) : ok(parsed.data);
}

/** What actions change, as commands. */
export const commandsOf = (changes: readonly CommandCall[] = []): Command[] =>
  changes.map((change) => commandSchema.parse(change));

/** What stands against each action of a scenario in a design; an empty list where nothing does. */
export function scenarioProblems(
  { actions, until }: Pick<Scenario, 'actions' | 'until'>,
  design: Design,
): DesignProblem[][] {
  let now = design;
  return actions.map((action, i): DesignProblem[] => {
    const path = `actions[${i}]`;
    if (action.at > until)
      return [{ path: `${path}.at`, found: foundText(action.at), allowed: `at most the scenario's end, ${until} s` }];
    const trees = (): TreeId[] => [...new Set([...treesThrough(now, actions), ...treesOf(now)])];
    const faults = actionKind(action).faults?.(action, now, trees) ?? [];
    if (faults.length > 0)
      return faults.map(({ field, found, allowed }) => ({
        path: `${path}.${field}`,
        found: foundText(found),
        allowed,
      }));
    const next = withArrivals(now, action);
    if (!next.ok) return [{ ...next.error, path }];
    now = next.value;
    return [];
  });
}

/** A design with what an action plugs in, dead as yet. */
function withArrivals(now: Design, action: Action): Result<Design, DesignProblem> {
  const arrivals = actionKind(action).arrivals?.(action, now) ?? [];
  if (arrivals.length === 0) return ok(now);
  const set = editAll(now, commandsOf(arrivals));
  return set.ok ? ok(set.value.design) : set;
}

/** The design with everything that a scenario brings along, without power and signal until its time comes; of both made once. */
export const scenarioDesign = (design: Design, { actions }: Pick<Scenario, 'actions'>): Result<Design, DesignProblem> =>
  inDesign(design)(actions);
const inDesign = oncePer((design: Design) =>
  oncePer((actions: readonly Action[]): Result<Design, DesignProblem> => {
    let now = design;
    for (const action of actions) {
      const next = withArrivals(now, action);
      if (!next.ok) return next;
      now = next.value;
    }
    return ok(now);
  }),
);

/** What an action does, in words: `The link ridge-a port 3 to dome-north port 1 is cut`. */
export const actionText = (design: Design, action: Action): string =>
  actionKind(action).text(action, namesOf(design), design);

/** The actions by which switches come to speak otherwise, in the order of time. */
export const turnsIn = (actions: readonly Action[]): Action[] => actions.filter(isTurn).sort((a, b) => a.at - b.at);

/** The design once an action's time has come. */
export function afterAction(design: Design, action: Action): Design {
  const edited = editAll(design, commandsOf(actionKind(action).happens(action).changes));
  return edited.ok ? edited.value.design : design;
}

/** Every tree that a design has at some time of a scenario, its switches powered; the common tree once, as the CIST where there is one. */
export function treesThrough(design: Design, actions: readonly Action[]): TreeId[] {
  const found = new Set<TreeId>(treesOf(design));
  let at: Design = { ...design, switches: design.switches.map((sw) => ({ ...sw, up: true })) };
  for (const tree of treesOf(at)) found.add(tree);
  for (const action of actions) {
    if (!isTurn(action)) continue;
    at = afterAction(at, action);
    for (const tree of treesOf(at)) found.add(tree);
  }
  const trees = [...found];
  const common = trees.includes(CIST) ? CIST : trees.includes(vlanTree(1)) ? vlanTree(1) : CST;
  const kind = (tree: TreeId): number => (treeVlan(tree) === null ? 0 : 1);
  const number = (tree: TreeId): number => treeVlan(tree) ?? treeInstance(tree) ?? -1;
  return trees
    .filter((tree) => tree === common || ![CST, CIST, vlanTree(1)].includes(tree))
    .sort((a, b) => kind(a) - kind(b) || number(a) - number(b));
}

/** The link that stands nearest to one that is gone: between the same two switches, else at one of them. */
export function nearestLink(
  design: Design,
  between: { readonly a: Link['a']; readonly b: Link['b'] } | undefined,
): Link | null {
  if (!between) return null;
  const ends = [between.a, between.b];
  const score = ({ a, b }: Link): number => {
    const shared = ends.filter((end) => [a, b].some((each) => each.switch === end.switch)).length;
    const same = ends.filter((end) =>
      [a, b].some((each) => each.switch === end.switch && each.port === end.port),
    ).length;
    return 10 * shared + same;
  };
  const [best] = [...design.links].sort((x, y) => score(y) - score(x));
  return best && score(best) > 0 ? best : null;
}
