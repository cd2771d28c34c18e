/** Switches that become one stack: everything that hung on them hangs on it, and it is one bridge. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import type { SwitchId } from '../model/ids';
import { bundledDesign } from '../testing/bundles';
import { anyDesign, networkOf } from '../testing/networks';
import { tries } from '../testing/runs';
import { solve } from '../tree/solve';
import { editAll } from './edit';
import { stackTogether } from './stacking';

const stacked = (design: Design, ids: readonly string[]): Design => {
  const commands = stackTogether(design, ids as readonly SwitchId[]);
  if (!commands.ok) throw new Error(commands.error);
  const edited = editAll(design, commands.value);
  if (!edited.ok) throw new Error(JSON.stringify(edited.error));
  return edited.value.design;
};

it('keeps every port, every cable to others, every host and bundle: any networks', () => {
  let seen = 0;
  fc.assert(
    fc.property(
      fc.oneof(anyDesign, bundledDesign({ modes: ['active', 'static'] })),
      fc.nat(),
      fc.integer({ min: 2, max: 3 }),
      (design, pick, most) => {
        const lead = design.switches[pick % design.switches.length]!;
        const ids = design.switches
          .filter(({ dialect }) => dialect === lead.dialect)
          .slice(0, most)
          .map(({ id }) => id);
        if (ids.length < 2) return;
        seen += 1;
        const next = stacked(design, ids);
        const total = (of: Design) => of.switches.reduce((sum, { ports }) => sum + ports.length, 0);
        expect(total(next)).toBe(total(design));
        expect(next.switches).toHaveLength(design.switches.length - ids.length + 1);
        expect(next.switches.find(({ id }) => id === ids[0])!.stack!.members).toHaveLength(ids.length);
        const among = design.links.filter(
          ({ a, b }) => a.switch !== b.switch && ids.includes(a.switch) && ids.includes(b.switch),
        );
        expect(next.links).toHaveLength(design.links.length - among.length);
        expect(next.bundles).toHaveLength(design.bundles.length);
        expect(next.hosts.map(({ attach }) => attach.length)).toEqual(design.hosts.map(({ attach }) => attach.length));
        expect(solve(next).network.switches).toHaveLength(next.switches.length);
      },
    ),
    { numRuns: tries(30) },
  );
  expect(seen).toBeGreaterThan(0);
});

const closet = networkOf({ a: { priority: 0 }, b: { dialect: 'stp' }, c: { stack: undefined }, d: {} }, [
  'a 1 = c 1',
  'a 2 = d 1',
  'c 2 = d 2',
  'a 3 = b 1',
]);

it('names ports after their member, and keeps the settings of the first', () => {
  const next = stacked(closet, ['c', 'd']);
  const stack = next.switches.find(({ id }) => id === 'c')!;
  expect(stack.ports.map(({ id, stackMember }) => [id, stackMember])).toEqual([
    ['1', undefined],
    ['2', undefined],
    ['2/1', 2],
    ['2/2', 2],
  ]);
  expect(next.links.map(({ a, b }) => `${a.switch} ${a.port} = ${b.switch} ${b.port}`)).toEqual([
    'a 1 = c 1',
    'a 2 = c 2/1',
    'a 3 = b 1',
  ]);
  expect(stack.stack!.members.map(({ mac, masterPriority }) => [mac, masterPriority])).toEqual([
    [closet.switches[2]!.mac, 2],
    [closet.switches[3]!.mac, 1],
  ]);
});

it.each<[string[], RegExp]>([
  [['c'], /two switches or more/],
  [['a', 'b'], /^The members of a stack run one spanning tree mode: a runs RSTP, b Classic STP\.$/],
])('refuses %s', (ids, why) => {
  const refused = stackTogether(closet, ids as SwitchId[]);
  expect(refused.ok ? '' : refused.error).toMatch(why);
});

it('refuses a switch that is a stack already', () => {
  const next = stacked(closet, ['c', 'd']);
  expect(stackTogether(next, ['a', 'c'] as SwitchId[])).toEqual({ ok: false, error: 'c is a stack already.' });
});
