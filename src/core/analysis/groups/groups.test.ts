/** Groups: everyone in each, those that could be made, and counts that are sums of what is inside. */
import fc from 'fast-check';
import { planLines } from '../../cabling/plan';
import { fernhollow } from '../../demo/demos';
import { describeCommands } from '../../edit/describe';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import type { GroupId, SwitchId } from '../../model/ids';
import { readDesign } from '../../model/read';
import { writeDesign } from '../../model/derive/write';
import { campusOf } from '../../testing/campus';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { blocks } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { crossingOf, insideOf } from './counts';
import {
  commandsFor,
  filledGroups,
  foldableGroups,
  groupsBy,
  GROUPINGS,
  nameForGroup,
  newGroup,
  standIns,
} from './groups';

function after(design: Design, text: string): Design {
  const edited = editAll(design, planLines(design, text).commands);
  if (!edited.ok) throw new Error(edited.error.found);
  return edited.value.design;
}
const nested = (): Design =>
  after(
    fernhollow(),
    'group hill site\ngroup ridge, domes building in hill\nswitch ridge-a, ridge-b in ridge\nswitch dome-north, dome-east in domes\nswitch lodge in hill',
  );
/** A ring with chords, in which everything hangs together. */
const benchLikeMesh = (count: number): Design =>
  networkOf(
    Object.fromEntries(Array.from({ length: count }, (_, i) => [`s${i}`, {}])),
    Array.from({ length: count }, (_, i) => i).flatMap((i) => [
      `s${i} 1 = s${(i + 1) % count} 2`,
      ...(i % 2 === 0 && i + 5 < count ? [`s${i} 3 = s${i + 5} 4`] : []),
    ]),
  );
const contents = (design: Design) =>
  Object.fromEntries(filledGroups(design).map(({ group, switches, depth }) => [`${depth} ${group.id}`, switches]));
/** A division of a design's switches into groups, by a random number for each. */
const divided = anyDesign.chain((design) =>
  fc
    .array(fc.integer({ min: 0, max: 3 }), { minLength: design.switches.length, maxLength: design.switches.length })
    .map((places) => [design, design.switches.map((sw, i) => [sw.id, places[i]!] as const)] as const),
);

it('are told with all that is in them, in groups within them too', () => {
  expect(contents(nested())).toEqual({
    '0 hill': ['ridge-a', 'ridge-b', 'dome-north', 'dome-east', 'lodge'],
    '1 domes': ['dome-north', 'dome-east'],
    '1 ridge': ['ridge-a', 'ridge-b'],
  });
});

it('leave their content to the group around them when they go', () => {
  const design = nested();
  const edited = editAll(design, [{ do: 'remove-group', group: 'ridge' as GroupId }]);
  expect(edited.ok && contents(edited.value.design)).toEqual({
    '0 hill': ['ridge-a', 'ridge-b', 'dome-north', 'dome-east', 'lodge'],
    '1 domes': ['dome-north', 'dome-east'],
  });
});

it('stand for their switches from the outside in', () => {
  const design = nested();
  const stands = (...folded: string[]) =>
    [...standIns(foldableGroups(design), new Set(folded as GroupId[]))].map(([id, { group }]) => `${id} ${group.id}`);
  expect(stands('ridge')).toEqual(['ridge-a ridge', 'ridge-b ridge']);
  expect(stands('ridge', 'hill').filter((each) => !each.endsWith('hill'))).toEqual([]);
  expect(stands()).toEqual([]);
});

it('that lie within themselves, or are not there, are refused with their path', () => {
  const read = (change: (raw: { groups: object[]; switches: { group?: string }[] }) => void) => {
    const raw = JSON.parse(writeDesign(nested())) as Parameters<typeof change>[0];
    change(raw);
    const result = readDesign(raw);
    return result.ok ? [] : result.error.map(({ path, found }) => `${path}: ${found}`);
  };
  expect(read(() => undefined)).toEqual([]);
  expect(read(({ groups }) => Object.assign(groups[0]!, { within: 'domes' }))).toEqual([
    expect.stringMatching(/^\$?\.?groups\[0\]\.within: "domes"$/),
    expect.stringMatching(/groups\[2\]\.within: "hill"$/),
  ]);
  expect(read(({ groups }) => Object.assign(groups[0]!, { within: 'nowhere' }))).toHaveLength(1);
  expect(read(({ switches }) => (switches[0]!.group = 'nowhere'))).toHaveLength(1);
});

it('are made of switches, within the group that all of these were in, and told so', () => {
  const design = nested();
  const made = newGroup(design, ['dome-north', 'dome-east'] as SwitchId[], 'Two domes');
  expect(describeCommands(design, made.commands)).toMatch(/added group Two domes.*2 switches: into group Two domes/s);
  const edited = editAll(design, made.commands);
  expect(edited.ok && contents(edited.value.design)).toMatchObject({ '2 Two domes': ['dome-north', 'dome-east'] });
  expect(nameForGroup(design, ['dome-north', 'dome-east'] as SwitchId[])).toBe('dome');
  expect(nameForGroup(design, ['ridge-a', 'lodge'] as SwitchId[])).toBe('lodge, ridge-a');
});

describe('those that could be made', () => {
  it.each(GROUPINGS)(
    'by %s put every switch at most once, are taken as one step, and leave nobody who was in one',
    (by) => {
      fc.assert(
        fc.property(anyDesign, (design) => {
          const made = groupsBy(design, by);
          const all = made.flatMap(({ switches }) => switches);
          expect(new Set(all).size).toBe(all.length);
          const edited = editAll(design, commandsFor(design, made));
          if (!edited.ok) throw new Error(edited.error.found);
          for (const { group, switches } of filledGroups(edited.value.design))
            expect(switches.length > 0 && group.id !== '').toBe(true);
          expect(commandsFor(edited.value.design, made)).toEqual([]);
        }),
        { numRuns: tries(20) },
      );
    },
  );

  it('by block are the pairs of a campus with what hangs on them', () => {
    const campus = campusOf({ switches: 50, vlans: 1, perPair: 10 });
    const made = foldableGroups(campus);
    expect(made[0]!.group.id).toBe('dist-1, dist-2');
    expect(made.flatMap(({ switches }) => switches).some((id) => id.startsWith('core'))).toBe(false);
    expect(made.flatMap(({ switches }) => switches)).toHaveLength(48);
  });

  it('are not folded by themselves where one of them is most of the network', () => {
    const mesh = benchLikeMesh(24);
    expect(groupsBy(mesh, 'block').some(({ switches }) => switches.length > 12)).toBe(true);
    expect(foldableGroups(mesh)).toEqual([]);
  });

  it('by block follow names and cables, and stay the same over other edits', () => {
    const campus = campusOf({ switches: 50, vlans: 1, perPair: 10 });
    const before = groupsBy(campus, 'block');
    const edited = (...commands: Parameters<typeof editAll>[1]): Design => {
      const done = editAll(campus, commands);
      if (!done.ok) throw new Error(done.error.found);
      return done.value.design;
    };
    const [dist] = before[0]!.switches;
    expect(groupsBy(edited({ do: 'set-bridge-priority', switch: dist!, tree: null, priority: 0 }), 'block')).toBe(
      before,
    );
    const named = groupsBy(edited({ do: 'set-switch', switch: dist!, name: 'first' }), 'block');
    expect(named[0]!.group.id).toBe('dist-2, first');
    const [gone] = before[0]!.switches.slice(-1);
    expect(groupsBy(edited({ do: 'remove-switch', switch: gone! }), 'block')[0]!.switches).not.toContain(gone);
  });

  it('by prefix are what stands before the first sign', () => {
    expect(groupsBy(fernhollow(), 'prefix').map(({ group, switches }) => `${group.id} ${switches.length}`)).toEqual([
      'dome 3',
      'ridge 2',
    ]);
  });
});

it('count what blocks inside of them, and on the links between them, as its sum', () => {
  fc.assert(
    fc.property(divided, ([design, places]) => {
      const solution = solve(design);
      const { network } = solution;
      for (const tree of solution.trees) {
        const groups = [0, 1, 2, 3].map((n) => places.flatMap(([id, place]) => (place === n ? [id] : [])));
        const counted = groups.reduce((sum, ids) => sum + insideOf(solution, tree, ids).blocked, 0);
        const all = network.ports.filter((_, p) => blocks(tree, p)).length;
        expect(counted).toBe(all);
        const placeOf = new Map(places);
        const whole = crossingOf(solution, tree, design.links);
        const [within, across] = [true, false].map((same) =>
          crossingOf(
            solution,
            tree,
            design.links.filter(({ a, b }) => (placeOf.get(a.switch) === placeOf.get(b.switch)) === same),
          ),
        );
        expect({ carry: within!.carry + across!.carry, block: within!.block + across!.block }).toEqual(whole);
      }
    }),
    { numRuns: tries(25) },
  );
});

it('are made and moved by lines, never within themselves', () => {
  const wrong = (text: string) => planLines(nested(), text).lines.find((line) => line.fault)?.fault?.message;
  expect(wrong('group hill in domes')).toBe('hill would lie within itself');
  expect(wrong('group new in new')).toBe('new would lie within itself');
  expect(contents(after(nested(), 'group domes floor in ridge'))).toMatchObject({
    '2 domes': ['dome-north', 'dome-east'],
  });
  expect(planLines(nested(), 'group domes building in hill').commands).toEqual([]);
});
