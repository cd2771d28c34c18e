import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { commandSchema } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { collide, putAt, touchedPlaces, valueAt, withPlaces } from './touched';

const demo = fernhollow();
const after = (...inputs: object[]) => {
  const edited = editAll(
    demo,
    inputs.map((input) => commandSchema.parse(input)),
  );
  if (!edited.ok) throw new Error(edited.error.path);
  return touchedPlaces(demo, edited.value.design);
};
const text = (...inputs: object[]): string[] => after(...inputs).map((place) => place.join('/'));

const cost = (sw: string, port: string, tree: string | null = 'vlan:15') => ({
  do: 'set-port-cost',
  switch: sw,
  port,
  tree,
  cost: 7,
});
const name = (sw: string) => ({ do: 'set-switch', switch: sw, name: 'other' });
const remove = (sw: string) => ({ do: 'remove-switch', switch: sw });

it('names what changed by ids, whatever came or went before it', () => {
  expect(text(cost('lodge', '1'))).toEqual(['switches/lodge/ports/1/trees/vlan:15']);
  expect(text(name('lodge'))).toEqual(['switches/lodge/name']);
  expect(text({ do: 'remove-link', link: 'l1' }, cost('lodge', '1', null))).toEqual([
    'switches/lodge/ports/1/cost',
    'links/l1',
  ]);
  expect(text({ do: 'add-vlan', vlan: { id: 16 } })).toEqual(['vlans/16']);
});

it.each<[string, object, object, boolean]>([
  [
    'two fields of one switch',
    name('lodge'),
    { do: 'set-bridge-priority', switch: 'lodge', tree: null, priority: 0 },
    false,
  ],
  ['two ports', cost('lodge', '1'), cost('lodge', '2'), false],
  ['one port in two trees', cost('lodge', '1'), cost('lodge', '1', 'vlan:25'), false],
  ['the same field', cost('lodge', '1'), cost('lodge', '1'), true],
  ['a field of a switch that is gone', cost('lodge', '1'), remove('lodge'), true],
  ['a switch that is gone whose port is set', remove('lodge'), cost('lodge', '1'), true],
  ['an earlier switch that is gone', remove('ridge-a'), cost('lodge', '1'), false],
  ['two new links of one id', { do: 'remove-link', link: 'l1' }, { do: 'remove-link', link: 'l1' }, true],
])('%s', (_, mine, theirs, collides) => expect(collide(after(mine), after(theirs))).toBe(collides));

describe('places of two states', () => {
  const commands: readonly object[] = [
    cost('lodge', '1'),
    cost('lodge', '2', null),
    name('ridge-a'),
    { do: 'remove-link', link: 'l1' },
    { do: 'add-vlan', vlan: { id: 16 } },
    { do: 'set-link', link: 'l2', up: false },
    remove('array-hut'),
    { do: 'set-bridge-priority', switch: 'ridge-b', tree: 'vlan:15', priority: 0 },
  ];
  const states = fc.subarray([...commands]).map((some) => {
    const edited = editAll(
      demo,
      some.map((each) => commandSchema.parse(each)),
    );
    if (!edited.ok) throw new Error(edited.error.path);
    return edited.value.design;
  });

  it('lead from one to the other, all at once, one by one, and as a command', () => {
    fc.assert(
      fc.property(states, states, (from, to) => {
        const places = touchedPlaces(from, to);
        expect(
          touchedPlaces(
            withPlaces(from, to, () => true),
            to,
          ),
        ).toEqual([]);
        expect(
          touchedPlaces(
            withPlaces(from, to, () => false),
            from,
          ),
        ).toEqual([]);
        const put = places.reduce<unknown>((at, place) => putAt(at, place, valueAt(to, place)), from);
        expect(touchedPlaces(put, to)).toEqual([]);
        if (places.length === 0) return;
        const puts = places.map((place) => ({ place: [...place], value: valueAt(to, place) }));
        const edited = editAll(from, [{ do: 'put', puts }]);
        expect(edited.ok && touchedPlaces(edited.value.design, to)).toEqual([]);
      }),
    );
  });

  it('are refused where nothing leads there, and what is put there must be legal', () => {
    const put = (place: string[], value: unknown) => {
      const edited = editAll(demo, [{ do: 'put', puts: [{ place, value }] }]);
      return edited.ok ? 'taken' : `${edited.error.path}: ${edited.error.found}`;
    };
    expect(put(['switches', 'nobody', 'priority'], 0)).toBe('switches/nobody/priority: nothing');
    expect(put(['__proto__', 'x'], 1)).toBe('__proto__/x: nothing');
    expect(put(['switches', 'lodge', 'priority'], 5)).toMatch(/^switches\[\d\]\.priority: 5/);
    expect(put(['switches', 'lodge', 'priority'], 4096)).toBe('taken');
  });
});
