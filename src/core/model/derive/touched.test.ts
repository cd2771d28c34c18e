import { fernhollow } from '../../demo/demos';
import { commandSchema } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { collide, touchedPlaces } from './touched';

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
