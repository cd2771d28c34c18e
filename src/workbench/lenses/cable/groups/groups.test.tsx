/** Groups in tables and inspector: made, named, put within each other, folded, and taken as a selection. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { campusOf } from '../../../../core/testing/campus';
import type { GroupId, SwitchId } from '../../../../core/model/ids';
import { Inspector } from '../../../inspector/Inspector';
import { PortTable } from '../../shared/PortTable';
import { foldedAtFirst, groupOfAll, groupsOf, rememberedFolds, unfoldedFor } from '../../../state/folding';
import { selectionOf } from '../../../state/selection';
import { renderWith, settle } from '../../../testing';
import { csvOf } from '../../../ui/csv';
import { groupRows, GroupTable } from './GroupTable';

const click = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settle();
};

beforeEach(() => localStorage.clear());

it('are made of names, told with what is inside, and of what is selected', async () => {
  const store = await renderWith(<GroupTable />);
  expect(screen.getByText(/No groups yet/)).toBeInTheDocument();
  expect(screen.getByRole('button', { name: 'the selection' })).toBeDisabled();
  await click('names');
  const { design, solution } = store.getState();
  expect(design.groups.map(({ id }) => id)).toEqual(['dome', 'ridge']);
  expect(groupRows(design, solution, store.getState().shownTrees)[0]).toMatchObject({ name: 'dome', switches: 3 });
  act(() => store.getState().select(selectionOf([{ kind: 'switch', switch: 'lodge' as SwitchId }])));
  act(() => store.getState().pick({ kind: 'switch', switch: 'workshop' as SwitchId }, 'more'));
  await click('the selection');
  expect(store.getState().design.groups).toHaveLength(3);
  act(() => store.getState().undo());
  await settle();
  expect(store.getState().design.groups).toHaveLength(2);
});

it('are named, put within each other and removed in the inspector, and switches change theirs', async () => {
  const store = await renderWith(<Inspector />);
  const choose = (...ids: string[]) =>
    act(() => store.getState().select(selectionOf(ids.map((id) => ({ kind: 'switch', switch: id as SwitchId })))));
  choose('lodge', 'workshop');
  const room = screen.getByRole('region', { name: 'Group' });
  expect(within(room).getByLabelText('Name of the new group')).toHaveValue('lodge, workshop');
  fireEvent.change(within(room).getByLabelText('Name of the new group'), { target: { value: 'Valley' } });
  await click(/^group 2 switches/);
  choose('ridge-a', 'ridge-b');
  await click(/^group 2 switches/);
  const set = (label: string, value: string) =>
    fireEvent.change(within(screen.getByRole('region', { name: 'Group' })).getByLabelText(label), {
      target: { value },
    });
  set('Within', 'Valley');
  set('Kind', 'building');
  await settle();
  expect(store.getState().design.groups).toEqual([
    { id: 'Valley' },
    { id: 'ridge', kind: 'building', within: 'Valley' },
  ]);
  choose('lodge');
  fireEvent.change(screen.getByLabelText('Group'), { target: { value: 'ridge' } });
  await settle();
  choose('ridge-a', 'ridge-b', 'lodge');
  await click('Remove the group');
  expect(store.getState().design.switches.filter(({ group }) => group === ('Valley' as GroupId))).toHaveLength(4);
});

it('narrow a table to the ends of the selected switches', async () => {
  const store = await renderWith(<PortTable />);
  act(() => store.getState().select(selectionOf([{ kind: 'switch', switch: 'lodge' as SwitchId }])));
  await click('only of the selected switch');
  const shown = screen.getByText(/\d+ ports/);
  expect(Number(/\d+/.exec(shown.textContent)![0])).toBeLessThan(10);
  await click('of all switches');
  expect(Number(/\d+/.exec(screen.getByText(/\d+ ports/).textContent)![0])).toBeGreaterThan(20);
});

it('open a large network folded, remember what is unfolded, and open for what is found', async () => {
  const campus = campusOf({ switches: 70, vlans: 1 });
  const store = await renderWith(<GroupTable />, campus);
  const { folded, fold } = store.getState();
  expect(folded.size).toBe(groupsOf(campus).length);
  const inside = groupsOf(campus)[0]!;
  act(() => fold([inside.group.id], 'unfold'));
  expect(rememberedFolds('test')).toEqual(store.getState().folded);
  act(() => fold([inside.group.id], 'fold'));
  act(() => store.getState().goTo({ kind: 'switch', switch: inside.switches[0]! }));
  expect(store.getState().folded.has(inside.group.id)).toBe(false);
  expect(unfoldedFor(campus, folded, ['core-1' as SwitchId])).toBe(folded);
  expect(groupOfAll(campus, inside.switches)?.group.id).toBe(inside.group.id);
  expect(foldedAtFirst(campusOf({ switches: 20, vlans: 1 })).size).toBe(0);
});

it('are copied as the table has them, and nothing in it becomes a formula', async () => {
  const columns = [
    { field: 'name', headerName: 'Group' },
    { field: 'count', headerName: 'Switches' },
    { field: 'fold', headerName: 'On the map' },
  ];
  expect(csvOf(columns, [{ name: '=1+1, "north"', count: 3 }])).toBe('Group,Switches\r\n"\'=1+1, ""north""",3\r\n');
  await renderWith(<GroupTable />);
  await click('names');
  const copied: string[] = [];
  Object.assign(navigator, { clipboard: { writeText: (text: string) => Promise.resolve(void copied.push(text)) } });
  await click('copy as CSV');
  expect(copied[0]).toMatch(/^Group,Kind,Within,Switches,Root inside,Blocking ports\r\ndome,/);
  expect(screen.getByRole('button', { name: 'copied' })).toBeInTheDocument();
});
