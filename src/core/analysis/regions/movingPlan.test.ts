import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import { DEFAULT_TALK } from '../../model/scenario';
import { simulate } from '../../sim/simulate';
import { scenarioProblems } from '../../sim/scenario/scenario';
import { meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { joining, keepingTrees } from './asDialect';
import { outcomesOf } from '../plans/outcome';
import { preparedDesign } from '../plans/plan';
import { playOf } from '../plans/played';
import { proposeGroupings } from './grouping';
import { planMoving, type MovingKind, type MovingPlan } from './movingPlan';
import { regionsIn } from './regions';
import { parts, tries } from '../../testing/runs';

const planOf = (design: Design, kind: MovingKind): MovingPlan | null => {
  const solution = solutionOf(design);
  const found = proposeGroupings(solution);
  const plan = found.ok ? planMoving(solution, found.value[0]!.commands, kind) : null;
  return plan?.ok ? plan.value : null;
};
const played = (design: Design, plan: MovingPlan) => {
  const play = playOf(design, plan);
  if (!play.ok) throw new Error(play.error);
  return { ...play.value, actions: [...play.value.actions] };
};
const KINDS = ['tree', 'outwards', 'inwards'] as const satisfies readonly MovingKind[];

it.each(parts(3, 20))(
  'moves every switch once, and ends with what was to be reached, whatever the order (%#)',
  (runs) => {
    fc.assert(
      fc.property(meshDesign, fc.constantFrom(...KINDS), (design, kind) => {
        const plan = planOf(design, kind);
        if (!plan) return;
        expect(plan.steps.flatMap((step) => step.switch ?? []).sort()).toEqual(
          design.switches.map((sw) => sw.id).sort(),
        );
        const play = played(design, plan);
        expect(scenarioProblems(play, play.design).flat()).toEqual([]);
        expect(plan.steps.at(-1)?.regions).toContain(`${design.switches.length} switches; nobody outside`);
        // Whatever was unplugged is plugged in again.
        const cables = play.actions.flatMap((action) =>
          action.do === 'link-down' ? [action.link] : action.do === 'link-up' ? [`-${action.link}`] : [],
        );
        expect(cables.filter((id) => !id.startsWith('-')).map((id) => `-${id}`)).toEqual(
          cables.filter((id) => id.startsWith('-')),
        );
      }),
      runs,
    );
  },
);

it('grows one region outwards: no step leaves it in pieces', () => {
  fc.assert(
    fc.property(meshDesign, (design) => {
      const plan = planOf(design, 'outwards');
      if (!plan) return;
      let at = preparedDesign(design, plan);
      for (const { changes } of plan.steps) {
        const edited = editAll(at, changes);
        if (!edited.ok) throw new Error(edited.error.found);
        at = edited.value.design;
        expect(regionsIn(solutionOf(at).network).map((region) => region.pieces.length)).toEqual([1]);
      }
    }),
    { numRuns: tries(12) },
  );
});

const outcomes = (kind: MovingKind) => {
  const plan = planOf(fernhollow(), kind)!;
  const { design, actions, until, times } = played(fernhollow(), plan);
  const run = simulate(design, { actions, until, talk: DEFAULT_TALK, fromBoot: false }, { mostFrames: 0 });
  if (!run.ok) throw new Error(run.error);
  return outcomesOf({ times, until }, run.value);
};

it('does not let frames circle where the redundant cables are out meanwhile', () => {
  const careful = outcomes('tree');
  expect(careful.map((each) => each.frames)).toEqual(careful.map(() => null));
  expect(Math.max(...careful.map((each) => each.outage))).toBeLessThan(4);
});

it('lets frames circle with every cable in, in the observatory', () =>
  expect(outcomes('outwards').some((each) => each.frames === 'circle')).toBe(true));

it('begins at the root to be, and says what stands before the first step', () => {
  const plan = planOf(fernhollow(), 'outwards')!;
  expect(plan.steps.map((step) => step.switch).slice(0, 2)).toEqual(['ridge-a', 'ridge-b']);
  expect(plan.preparation.map((command) => command.do)).toEqual([
    'add-region',
    ...Array.from({ length: 6 }, () => 'set-bridge-priority'),
  ]);
  expect(plan.steps[0]?.regions).toBe('FERNHOLLOW-OBSERVATORY: 1 switch; 7 outside');
});

it('has nothing to do where all are there, and follows classic bridges’ slower pace', () => {
  const classic = networkOf({ a: { dialect: 'stp' }, b: { dialect: 'stp' } }, ['a 1 = b 1']);
  const kept = planMoving(solutionOf(classic), keepingTrees(classic).commands, 'outwards');
  expect(kept.ok && played(classic, kept.value).times).toEqual([1, 61]);
  const there = editAll(classic, keepingTrees(classic).commands);
  if (!there.ok) throw new Error(there.error.found);
  expect(
    planMoving(
      solutionOf(there.value.design),
      joining(there.value.design, 'region-1' as never, ['a', 'b'] as never),
      'tree',
    ),
  ).toMatchObject({ ok: false, error: expect.stringContaining('nothing to move') as string });
});
