/** Plans from one state to another: every state on the way is legal, the last one is the goal, and what is said of steps is so. */
import fc from 'fast-check';
import { planLines } from '../../cabling/plan';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { simulate } from '../../sim/simulate';
import { solve } from '../../tree/solve';
import { viewTree } from '../../tree/settled';
import { planChange, type ChangePlan } from './changePlan';
import { mixed, stepKey, stepsBetween } from './mix';

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
  .subarray([...CHANGES], { minLength: 1 })
  .map((all) => all.reduce((design, change) => change(design), DEMO));
const planned = (after: Design, order: readonly string[] | null = null): ChangePlan => {
  const plan = planChange(DEMO, after, order);
  if (!plan.ok) throw new Error(plan.error);
  return plan.value;
};
/** A design as its trees stand. */
const trees = (design: Design) => {
  const { network, trees: all } = solve(design);
  return all.map((tree) => viewTree(network, tree));
};

it('takes every step once, through states that are legal, to where it should go', () => {
  fc.assert(
    fc.property(goal, (after) => {
      const { steps } = planned(after);
      const keys = steps.map(({ step }) => stepKey(step));
      expect([...keys].sort()).toEqual(stepsBetween(DEMO, after).map(stepKey).sort());
      const states = keys.map((_, i) => mixed(DEMO, after, new Set(keys.slice(0, i + 1))));
      for (const state of states) expect(state).not.toBeNull();
      expect(trees(states.at(-1)!)).toEqual(trees(after));
      expect(trees(mixed(DEMO, after, new Set())!)).toEqual(trees(DEMO));
    }),
    { numRuns: 3 },
  );
});

it('runs a step to where the settled answer says that it ends', () => {
  const after = CHANGES.slice(0, 3).reduce((design, change) => change(design), DEMO);
  const run = simulate(
    DEMO,
    { actions: [], until: 60, talk: 0.01, fromBoot: false },
    { becomes: { at: 1, design: after } },
  );
  if (!run.ok) throw new Error(run.error);
  expect(run.value.final.trees).toEqual(trees(after));
});

it('says what moves, who is root, what takes it back, and keeps what must hold as long as it can', () => {
  const must = (id: string, line: string) => ({ id, line, severity: 'must' as const, note: '' });
  const after = {
    ...CHANGES.slice(0, 2).reduce((design, change) => change(design), DEMO),
    intents: [must('a', 'all hosts reach each other')],
  };
  const { steps } = planned(after);
  expect(steps.map(({ step }) => stepKey(step))).toEqual(['visit ridge-a', 'visit ridge-b']);
  const [first] = steps;
  expect(first!.does).toEqual(['ridge-a: priority 32768 to 4096']);
  expect(first!.back).toEqual(['ridge-a: priority 4096 to 32768']);
  expect(new Set(first!.roots.map(({ root }) => root))).toEqual(new Set(['ridge-a']));
  expect(steps.flatMap(({ broken, cutOff }) => [...broken, ...cutOff])).toEqual([]);
  expect(first!.run).toMatchObject({ ok: true, value: { loops: false } });
});

it('judges an order by hand, and says where one cannot be', () => {
  const after = CHANGES[3]!(DEMO);
  const keys = stepsBetween(DEMO, after).map(stepKey);
  expect(planned(after, keys).steps.map(({ step }) => stepKey(step))).toEqual(keys);
  expect(planChange(DEMO, after, [...keys].reverse())).toMatchObject({ ok: false });
  expect(planChange(DEMO, DEMO)).toMatchObject({ ok: false });
});
