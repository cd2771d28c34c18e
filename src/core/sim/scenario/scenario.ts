/** What happens to a network while the clock runs, held against the design. */
import { editAll } from '../../edit/edit';
import { MAX_COST } from '../../model/legal';
import { methodOf } from '../../model/costMethod';
import { CIST, CST, treeInstance, treeVlan, vlanTree, type PortId, type TreeId } from '../../model/ids';
import { pluggedIn } from '../../model/plugs';
import { foundText, problemsOf, type DesignProblem } from '../../model/problem';
import { runSchema, type Action, type Scenario } from '../../model/scenario';
import type { Command } from '../../edit/commands';
import type { Design, Link } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';
import { treesOf } from '../../topology/trees';

/** Reads a scenario's JSON and holds it against the design; every problem names its place. */
export function readScenario(json: unknown, design: Design): Result<Scenario, DesignProblem[]> {
  const parsed = runSchema.safeParse(json);
  if (!parsed.success) return fail(problemsOf(runSchema, json, parsed.error));
  const problems = scenarioProblems(parsed.data, design).flat();
  return problems.length > 0 ? fail(problems) : ok(parsed.data);
}

/** What stands against each action of a scenario in a design; an empty list where nothing does. */
export function scenarioProblems(
  { actions, until }: Pick<Scenario, 'actions' | 'until'>,
  design: Design,
): DesignProblem[][] {
  let stage = design;
  return actions.map((action, i) => {
    const problems = actionProblems(action, i, stage, until, actions);
    if (problems.length > 0) return problems;
    const set = editAll(stage, arrivals(action, stage));
    if (!set.ok) return [{ ...set.error, path: `actions[${i}]` }];
    stage = set.value.design;
    return [];
  });
}

/** A bundle with every port that it will have. */
function widened(design: Design, id: string, ports: readonly PortId[]): Command[] {
  const bundle = design.bundles.find((each) => each.id === id);
  return bundle ? [{ do: 'set-bundle', bundle: bundle.id, ports: [...new Set([...bundle.ports, ...ports])] }] : [];
}

/** The design with everything that a scenario brings along, without power and signal until its time comes. */
export function stageOf(design: Design, { actions }: Pick<Scenario, 'actions'>): Result<Design, DesignProblem> {
  let stage = design;
  for (const action of actions) {
    const set = editAll(stage, arrivals(action, stage));
    if (!set.ok) return set;
    stage = set.value.design;
  }
  return ok(stage);
}

/** What an action plugs in, dead as yet. */
function arrivals(action: Action, stage: Design): Command[] {
  const dead = (link: Omit<Link, 'up'>): Command => ({ do: 'add-link', link: { ...link, up: false } });
  if (action.do === 'add-link') return [dead(action.link)];
  if (action.do === 'bundle-ports') return widened(stage, action.bundle, action.ports);
  if (action.do === 'add-bundle') return [{ do: 'add-bundle', bundle: action.bundle }];
  if (action.do === 'add-switch')
    return [{ do: 'add-switch', switch: { ...action.switch, up: false } }, ...action.links.map(dead)];
  return [];
}

/** What a switch is told by an action to speak. */
export const speakCommand = ({ switch: sw, dialect, region }: Extract<Action, { do: 'speak' }>): Command => ({
  do: 'set-switch',
  switch: sw,
  dialect,
  region: region ?? null,
});

/** Every tree that a design has at some time of a scenario, its switches powered; the common tree once, as the CIST where there is one. */
export function treesThrough(design: Design, actions: readonly Action[]): TreeId[] {
  const found = new Set<TreeId>();
  let at: Design = { ...design, switches: design.switches.map((sw) => ({ ...sw, up: true })) };
  for (const tree of treesOf(at)) found.add(tree);
  for (const action of actions) {
    if (action.do !== 'speak') continue;
    const edited = editAll(at, [speakCommand(action)]);
    if (!edited.ok) continue;
    at = edited.value.design;
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

function actionProblems(
  action: Action,
  i: number,
  design: Design,
  until: number,
  actions: readonly Action[],
): DesignProblem[] {
  const at = `actions[${i}]`;
  const problem = (field: string, found: unknown, allowed: string): DesignProblem[] => [
    { path: `${at}.${field}`, found: foundText(found), allowed },
  ];
  const some = (ids: readonly string[]): string =>
    ids.length === 0
      ? 'there is none'
      : ids.length > 12
        ? `one of ${ids.slice(0, 12).join(', ')} and ${ids.length - 12} more`
        : `one of ${ids.join(', ')}`;
  if (action.at > until) return problem('at', action.at, `at most the scenario's end, ${until} s`);
  const links: readonly string[] = design.links.map((each) => each.id);
  switch (action.do) {
    case 'link-down':
    case 'link-up':
    case 'one-way': {
      if (!links.includes(action.link)) return problem('link', action.link, `a link: ${some(links)}`);
      const ends = design.links.find((each) => each.id === action.link);
      if (
        action.do === 'one-way' &&
        action.from !== undefined &&
        ends &&
        ![ends.a.switch, ends.b.switch].includes(action.from)
      )
        return problem('from', action.from, `an end of the link: ${ends.a.switch} or ${ends.b.switch}`);
      return [];
    }
    case 'add-switch':
      return design.switches.some((each) => each.id === action.switch.id)
        ? problem('switch.id', action.switch.id, 'an id that no other switch has')
        : [];
    case 'add-bundle':
      return design.bundles.some((each) => each.id === action.bundle.id)
        ? problem('bundle.id', action.bundle.id, 'an id that no other bundle has')
        : [];
    case 'bundle-ports':
    case 'remove-bundle':
    case 'bundle-mode':
      return design.bundles.some((each) => each.id === action.bundle)
        ? []
        : problem('bundle', action.bundle, `a bundle: ${some(design.bundles.map((each) => each.id))}`);
    case 'add-link': {
      if (links.includes(action.link.id)) return problem('link.id', action.link.id, 'an id that no other link has');
      const taken = pluggedIn(design);
      return (['a', 'b'] as const).flatMap((side) => {
        const end = action.link[side];
        const owner = design.switches.find((each) => each.id === end.switch);
        if (!owner)
          return problem(
            `link.${side}.switch`,
            end.switch,
            `a switch: ${some(design.switches.map((each) => each.id))}`,
          );
        if (!owner.ports.some((each) => each.id === end.port))
          return problem(
            `link.${side}.port`,
            end.port,
            `a port of ${end.switch}: ${some(owner.ports.map((each) => each.id))}`,
          );
        return taken(end.switch, end.port)
          ? problem(`link.${side}.port`, end.port, 'a port that nothing is plugged into')
          : [];
      });
    }
    default: {
      const owner = design.switches.find((each) => each.id === action.switch);
      if (!owner) return problem('switch', action.switch, `a switch: ${some(design.switches.map((each) => each.id))}`);
      if (action.do === 'switch-up' || action.do === 'switch-down') return [];
      if (action.do === 'speak')
        return action.region === undefined || design.regions.some((each) => each.id === action.region)
          ? []
          : problem('region', action.region, `a region: ${some(design.regions.map((each) => each.id))}`);
      const trees = treesThrough(design, actions);
      if (action.tree !== undefined && ![...trees, ...treesOf(design)].includes(action.tree))
        return problem('tree', action.tree, `a tree: ${some(trees)}`);
      if (action.do === 'bridge-priority') return [];
      const bundled = design.bundles.some(
        (each) => each.switch === action.switch && each.id === (action.port as string),
      );
      if (!bundled && !owner.ports.some((each) => each.id === action.port))
        return problem('port', action.port, `a port of ${action.switch}: ${some(owner.ports.map((each) => each.id))}`);
      const most = MAX_COST[methodOf(design, owner)];
      return action.cost > most
        ? problem('cost', action.cost, `1 to ${most} by the ${methodOf(design, owner)} method`)
        : [];
    }
  }
}
