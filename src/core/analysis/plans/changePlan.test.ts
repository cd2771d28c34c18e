/** Plans from one state to another: every state on the way is legal, the last one is the goal, and what is said of steps is so. */
import fc from 'fast-check';
import { planLines } from '../../cabling/plan';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import { touchedPlaces } from '../../model/derive/touched';
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { simulate } from '../../sim/simulate';
import { solve } from '../../tree/solve';
import { viewTree } from '../../tree/settled';
import { planChange, type ChangePlan, type PlanOptions } from './changePlan';
import { planBundle } from '../lag/bundlePlan';
import { judgePlan } from './judge';
import { mixed, stepKey, stepsBetween } from './mix';
import { statesOf } from './plan';
import { playOf } from './played';
import { readScenario } from '../../sim/scenario/scenario';

const DEMO = fernhollow();
const edited = (design: Design, ...commands: readonly Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const sw = (id: string): SwitchId => id as SwitchId;
const CHANGES: readonly ((design: Design) => Design)[] = [
  (design) => edited(design, { do: 'set-bridge-priority', switch: sw('ridge-a'), tree: null, priority: 4096 }),
  (design) => edited(design, { do: 'set-bridge-priority', switch: sw('ridge-b'), tree: null, priority: 8192 }),
  (design) =>
    edited(design, {
      do: 'set-port-cost',
      switch: sw('workshop'),
      port: '1' as never,
      tree: 'vlan:25' as never,
      cost: 200_000,
    }),
  (design) => edited(design, ...planLines(design, 'dome-north = dome-east 10G').commands),
  (design) => edited(design, ...planLines(design, 'pier = ridge-a, ridge-b 1G').commands),
  (design) => edited(design, { do: 'set-link', link: 'l2' as never, up: false }),
  (design) => edited(design, { do: 'remove-link', link: 'l15' as never }),
  (design) => edited(design, { do: 'set-port', switch: sw('lodge'), port: '5' as never, bpduGuard: true }),
];
const goal = fc
  .subarray([...CHANGES], { minLength: 1, maxLength: 4 })
  .map((all) => all.reduce((design, change) => change(design), DEMO));
const planned = (after: Design, options: PlanOptions = {}): ChangePlan => {
  const plan = planChange(DEMO, after, options);
  if (!plan.ok) throw new Error(plan.error);
  return plan.value;
};
/** A design as its trees stand. */
const trees = (design: Design) => {
  const { network, trees: all } = solve(design);
  return all.map((tree) => viewTree(network, tree));
};

const keysOf = ({ plan }: ChangePlan): string[] => plan.steps.map(({ key }) => key);

it.each(['visits', 'settings'] as const)(
  'takes every step once, through states that are legal, to where it should go: %s',
  (grain) => {
    fc.assert(
      fc.property(goal, (after) => {
        const change = planned(after, { grain });
        expect(keysOf(change).sort()).toEqual(stepsBetween(DEMO, after, grain).map(stepKey).sort());
        const states = statesOf(DEMO, change.plan);
        if (!states.ok) throw new Error(states.error);
        expect(trees(states.value[0]!)).toEqual(trees(DEMO));
        // Nothing is set that the goal does not set.
        expect(change.plan.preparation).toEqual([]);
        expect(touchedPlaces(states.value.at(-1), after)).toEqual([]);
        expect(trees(states.value.at(-1)!)).toEqual(trees(after));
        // What travels as commands is the state that was judged.
        const done = new Set<string>();
        for (const [i, { key }] of change.plan.steps.entries()) {
          done.add(key);
          expect(touchedPlaces(states.value[i + 1], mixed(DEMO, after, done))).toEqual([]);
        }
      }),
      { numRuns: 3 },
    );
  },
);

it('runs to where the settled answer says that it ends, played whole on the clock', () => {
  fc.assert(
    fc.property(goal, (after) => {
      const play = playOf(DEMO, planned(after).plan);
      if (!play.ok) throw new Error(play.error);
      const { design, actions, until } = play.value;
      const scenario = readScenario({ actions, until, talk: 1 }, design);
      if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
      const run = simulate(design, scenario.value);
      if (!run.ok) throw new Error(run.error);
      const ways = (all: ReturnType<typeof trees>) =>
        all.map(({ id, switches }) => [
          id,
          ...Object.entries(switches)
            .map(([name, { root, rootPort, rootPathCost }]) => [name, root, rootPort, rootPathCost].join(' '))
            .sort(),
        ]);
      expect(ways([...run.value.final.trees])).toEqual(ways(trees(after)));
    }),
    { numRuns: 4 },
  );
});

it('runs a step that bundles', () => {
  const plan = planBundle(DEMO, solve(DEMO), ['l1', 'l2'] as never, 'lacp');
  const judged = plan.ok ? judgePlan(DEMO, plan.value) : plan;
  if (!judged.ok) throw new Error(judged.error);
  expect(judged.value.steps.map(({ run }) => run.ok && run.value.frames)).toEqual(judged.value.steps.map(() => null));
  expect(judged.value.steps.at(-1)!.back).toEqual(['Unplug ridge-a port 1 to ridge-b port 1.']);
});

it('says what moves, who is root, what takes it back, and keeps what must hold as long as it can', () => {
  const must = (id: string, line: string) => ({ id, line, severity: 'must' as const, note: '' });
  const after = {
    ...CHANGES.slice(0, 2).reduce((design, change) => change(design), DEMO),
    intents: [must('a', 'all hosts reach each other')],
  };
  const change = planned(after);
  expect(keysOf(change)).toEqual(['visit ridge-a', 'visit ridge-b']);
  const [first] = change.judged.steps;
  expect(change.plan.steps[0]!.does).toEqual(['ridge-a: priority 32768 to 4096']);
  expect(first!.back).toEqual(['ridge-a: priority 4096 to 32768']);
  expect(new Set(first!.roots.map(({ root }) => root))).toEqual(new Set(['ridge-a']));
  expect(change.judged.steps.flatMap(({ broken, cutOff }) => [...broken, ...cutOff])).toEqual([]);
  expect(first!.run).toMatchObject({ ok: true, value: { frames: null } });
});

it('begins with the step that cuts off for the shortest time, of those that do equally little in the end', () => {
  fc.assert(
    fc.property(goal, (after) => {
      const { plan, judged } = planned(after);
      const keys = plan.steps.map(({ key }) => key);
      const [first, second] = keys;
      if (second === undefined) return;
      const other = planChange(DEMO, after, { order: [second, first!, ...keys.slice(2)] });
      if (!other.ok) return; // it cannot come first
      const [a, b] = [judged.steps[0]!, other.value.judged.steps[0]!];
      const harm = ({ broken, cutOff, roots }: typeof a): number[] => [broken.length, cutOff.length, roots.length];
      const longest = ({ run }: typeof a): number => (run.ok ? (run.value.worst?.longest ?? 0) : Infinity);
      const least = harm(a).findIndex((n, i) => n !== harm(b)[i]);
      if (least >= 0) expect(harm(a)[least]).toBeLessThan(harm(b)[least]!);
      else if (keys.length <= 3) expect(longest(a)).toBeLessThanOrEqual(longest(b));
    }),
    { numRuns: 4 },
  );
});

it('goes setting by setting, with what is alike in several trees as one', () => {
  const set = (tree: string) =>
    ({ do: 'set-bridge-priority', switch: sw('lodge'), tree: tree as never, priority: 8192 }) as const;
  const after = edited(DEMO, set('vlan:15'), set('vlan:25'), {
    do: 'set-port-cost',
    switch: sw('lodge'),
    port: '1' as never,
    tree: null,
    cost: 7,
  });
  expect(stepsBetween(DEMO, after, 'visits')).toHaveLength(1);
  const { plan } = planned(after, { grain: 'settings' });
  expect(plan.steps.map(({ does }) => does)).toEqual(
    expect.arrayContaining([
      ['lodge: priority in VLANs 15,25 as for all trees to 8192'],
      ['lodge port 1: cost from speed to 7'],
    ]),
  );
  expect(plan.steps).toHaveLength(2);
});

it('judges an order by hand, and says where one cannot be', () => {
  const after = CHANGES[3]!(DEMO);
  const order = stepsBetween(DEMO, after).map(stepKey);
  expect(keysOf(planned(after, { order }))).toEqual(order);
  expect(planChange(DEMO, after, { order: [...order].reverse() })).toMatchObject({ ok: false });
  expect(planChange(DEMO, DEMO)).toMatchObject({ ok: false });
});
