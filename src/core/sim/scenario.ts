/** What happens to a network while the clock runs: actions at chosen times, checked against the design. */
import { z } from '../zod';
import type { LinkId, PortId, SwitchId, TreeId } from '../design/ids';
import { MAX_COST, bridgePriority, pathCost } from '../design/legal';
import { methodOf } from '../design/costMethod';
import { pluggedIn } from '../design/plugs';
import { foundText, problemsOf, type DesignProblem } from '../design/problem';
import { endSchema, linkDelay, type Design } from '../design/schema';
import { SECOND } from '../protocol/entity';
import { fail, ok, type Result } from '../result';
import { treesOf } from '../tree/trees';
import { TALK } from './dataPlane';

/** Longest run, seconds. */
export const MAX_UNTIL = 3600;
/** How long a run goes on where the scenario does not say. */
export const DEFAULT_UNTIL = 60;

const at = z.number().min(0);
const link = z.string().transform((id) => id as LinkId);
const sw = z.string().transform((id) => id as SwitchId);
const port = z.string().transform((id) => id as PortId);
const tree = z.string().transform((id) => id as TreeId).optional();

export const actionSchema = z.discriminatedUnion('do', [
  /** `light: false`: the ends do not notice, as with a converter in between; only missing BPDUs tell. */
  z.strictObject({ at, do: z.literal('link-down'), link, light: z.boolean().default(true) }),
  z.strictObject({ at, do: z.literal('link-up'), link }),
  /** What the switch `from` sends over the link no longer arrives; without it, what the first end sends. */
  z.strictObject({ at, do: z.literal('one-way'), link, from: sw.optional() }),
  z.strictObject({ at, do: z.literal('switch-down'), switch: sw }),
  /** `boot`: seconds from the power to the first frame. */
  z.strictObject({ at, do: z.literal('switch-up'), switch: sw, boot: z.number().min(0).max(MAX_UNTIL).default(0) }),
  z.strictObject({ at, do: z.literal('bridge-priority'), switch: sw, priority: bridgePriority, tree }),
  z.strictObject({ at, do: z.literal('port-cost'), switch: sw, port, cost: pathCost, tree }),
  z.strictObject({ at, do: z.literal('add-link'), link: z.strictObject({ id: link, a: endSchema, b: endSchema, delay: linkDelay.optional() }) }),
]);
export type Action = z.output<typeof actionSchema>;

export const scenarioSchema = z.strictObject({
  name: z.string().max(200).optional(),
  actions: z.array(actionSchema).max(10_000),
  /** Seconds. */
  until: z.number().positive().max(MAX_UNTIL).default(DEFAULT_UNTIL),
  /** How often every host speaks, seconds: what is learnt anew is learnt within this time. */
  talk: z.number().min(0.001).max(MAX_UNTIL).default(TALK / SECOND),
});
export type Scenario = z.output<typeof scenarioSchema>;

/** Reads a scenario's JSON and holds it against the design; every problem names its place. */
export function readScenario(json: unknown, design: Design): Result<Scenario, DesignProblem[]> {
  const parsed = scenarioSchema.safeParse(json);
  if (!parsed.success) return fail(problemsOf(scenarioSchema, json, parsed.error));
  const problems = parsed.data.actions.flatMap((action, i) => actionProblems(action, i, design, parsed.data));
  return problems.length > 0 ? fail(problems) : ok(parsed.data);
}

function actionProblems(action: Action, i: number, design: Design, { until, actions }: Scenario): DesignProblem[] {
  const at = `actions[${i}]`;
  const problem = (field: string, found: unknown, allowed: string): DesignProblem[] => [{ path: `${at}.${field}`, found: foundText(found), allowed }];
  const some = (ids: readonly string[]): string => (ids.length === 0 ? 'there is none' : ids.length > 12 ? `one of ${ids.slice(0, 12).join(', ')} and ${ids.length - 12} more` : `one of ${ids.join(', ')}`);
  if (action.at > until) return problem('at', action.at, `at most the scenario's end, ${until} s`);
  const added = actions.slice(0, i).flatMap((before) => (before.do === 'add-link' ? [before.link.id] : []));
  const links = [...design.links.map((each) => each.id), ...added];
  switch (action.do) {
    case 'link-down':
    case 'link-up':
    case 'one-way': {
      if (!links.includes(action.link)) return problem('link', action.link, `a link: ${some(links)}`);
      const ends = design.links.find((each) => each.id === action.link);
      if (action.do === 'one-way' && action.from !== undefined && ends && ![ends.a.switch, ends.b.switch].includes(action.from)) return problem('from', action.from, `an end of the link: ${ends.a.switch} or ${ends.b.switch}`);
      return [];
    }
    case 'add-link': {
      if (links.includes(action.link.id)) return problem('link.id', action.link.id, 'an id that no other link has');
      const taken = pluggedIn(design);
      return (['a', 'b'] as const).flatMap((side) => {
        const end = action.link[side];
        const owner = design.switches.find((each) => each.id === end.switch);
        if (!owner) return problem(`link.${side}.switch`, end.switch, `a switch: ${some(design.switches.map((each) => each.id))}`);
        if (!owner.ports.some((each) => each.id === end.port)) return problem(`link.${side}.port`, end.port, `a port of ${end.switch}: ${some(owner.ports.map((each) => each.id))}`);
        return taken(end.switch, end.port) ? problem(`link.${side}.port`, end.port, 'a port that nothing is plugged into') : [];
      });
    }
    default: {
      const owner = design.switches.find((each) => each.id === action.switch);
      if (!owner) return problem('switch', action.switch, `a switch: ${some(design.switches.map((each) => each.id))}`);
      if (action.do === 'switch-up' || action.do === 'switch-down') return [];
      if (action.tree !== undefined && !treesOf(design).includes(action.tree)) return problem('tree', action.tree, `a tree: ${some(treesOf(design))}`);
      if (action.do === 'bridge-priority') return [];
      if (!owner.ports.some((each) => each.id === action.port)) return problem('port', action.port, `a port of ${action.switch}: ${some(owner.ports.map((each) => each.id))}`);
      const most = MAX_COST[methodOf(design, owner)];
      return action.cost > most ? problem('cost', action.cost, `1 to ${most} by the ${methodOf(design, owner)} method`) : [];
    }
  }
}
