/** The exercises that ship: none is done at first, and each can be. */
import { planLines } from '../../cabling/plan';
import { fernhollow } from '../../demo/demos';
import { EXERCISES } from '../../demo/exercises';
import { PRACTICE_LEVELS, PRACTICE_TEXT, practiceDesign, practiceTree } from '../practice/practice';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { readDesignText } from '../../model/read';
import { leanDesign } from '../../model/derive/write';
import { solve } from '../../tree/solve';
import { everyFailure } from '../failures/everyFailure';
import { bestSheet, settingsTouched } from './exercise';
import { judged } from './intents';
import { SETS, newTo } from './sets';
import { Settled } from './settled';

/** Intents that do not hold, failures included. */
function broken(design: Design): string[] {
  const solution = solve(design);
  const verdicts = judged(new Settled(solution), design.intents);
  const { outcomes } = everyFailure(solution);
  return design.intents
    .filter(({ id }) => {
      const verdict = verdicts.get(id)!;
      return verdict.is === 'later'
        ? outcomes.some((each) => each.broken.some(({ intent }) => intent === id))
        : verdict.is !== 'holds';
    })
    .map(({ line }) => line);
}

const priority = (sw: string, value: number, ...vlans: readonly number[]): Command[] =>
  (vlans.length === 0 ? [null] : vlans.map((vid) => `vlan:${vid}`)).map((tree) => ({
    do: 'set-bridge-priority',
    switch: sw as SwitchId,
    tree: tree as never,
    priority: value,
  }));

/** One way to do each. */
const DONE: Readonly<Record<string, (design: Design) => readonly Command[]>> = {
  'Place the root': () => priority('ridge-a', 4096),
  'A standby beside it': () => [...priority('ridge-a', 4096), ...priority('ridge-b', 8192)],
  'Two roots share the load': () => [
    ...priority('ridge-a', 4096, 1, 15, 35, 55),
    ...priority('ridge-b', 8192, 1, 15, 35, 55),
    ...priority('ridge-b', 4096, 25, 45, 65),
    ...priority('ridge-a', 8192, 25, 45, 65),
  ],
  'Which end blocks': () => [
    {
      do: 'set-port-cost',
      switch: 'workshop' as SwitchId,
      port: '1' as never,
      tree: 'vlan:25' as never,
      cost: 200_000,
    },
  ],
  'Guard the edges': (design) => {
    const verdict = judged(new Settled(solve(design)), design.intents).get('i1')!;
    return verdict.is === 'broken' && verdict.way && 'commands' in verdict.way ? verdict.way.commands : [];
  },
  'A building without power': (design) => planLines(design, 'dome-north = dome-east 10G').commands,
};

it.each(EXERCISES.map((exercise) => [exercise.name, exercise] as const))(
  '%s: not done at first, and can be',
  (name, { on }) => {
    const design = on(fernhollow());
    expect(readDesignText(JSON.stringify(leanDesign(design))).ok).toBe(true);
    const before = broken(design);
    expect(before.length).toBeGreaterThan(0);
    const done = editAll(design, DONE[name]!(design));
    if (!done.ok) throw new Error(done.error.found);
    expect(broken(done.value.design)).toEqual([]);
  },
);

it('has sets to begin with that every design can read', () => {
  for (const { lines } of SETS) expect(newTo(fernhollow(), lines)).toHaveLength(lines.length);
});

it('counts the settings that were touched, and not what was only written down', () => {
  const begin = EXERCISES[0]!.on(fernhollow());
  const after = (...commands: readonly Command[]): number => {
    const done = editAll(begin, commands);
    if (!done.ok) throw new Error(done.error.found);
    return settingsTouched(begin, done.value.design);
  };
  expect(after(...priority('ridge-a', 4096))).toBe(1);
  expect(after(...priority('ridge-a', 4096, 15, 25), ...priority('ridge-b', 8192))).toBe(3);
  expect(after({ do: 'remove-intent', intent: 'i1' }, { do: 'set-exercise', exercise: null })).toBe(0);
  expect(after(...planLines(begin, 'dome-north = dome-east 10G').commands)).toBeGreaterThan(0);
});

it('takes the best worksheet since it began, for its tree', () => {
  const sheet = (at: string, right: number, tree = 'vlan:15') => ({
    at,
    right,
    of: 10,
    tree: tree as never,
    answers: { switches: {} },
  });
  const begin = { ...fernhollow(), worksheets: [sheet('2026-11-01T10:00:00Z', 10)] };
  const now = (...more: ReturnType<typeof sheet>[]) => ({ ...begin, worksheets: [...begin.worksheets, ...more] });
  expect(bestSheet(begin, now(), 'vlan:15' as never)).toBeNull();
  const [some, better] = [sheet('2026-11-02T10:00:00Z', 4), sheet('2026-11-02T11:00:00Z', 7)];
  expect(bestSheet(begin, now(some, better, sheet('2026-11-02T12:00:00Z', 10, 'vlan:25')), 'vlan:15' as never)).toBe(
    better,
  );
});

it('makes each practice network an exercise with a worksheet', () => {
  for (const level of PRACTICE_LEVELS) {
    const made = practiceDesign(level, 7);
    expect(made.ok && made.value.exercise).toEqual({
      task: PRACTICE_TEXT[level],
      begins: 0,
      worksheet: practiceTree(level),
    });
  }
});
