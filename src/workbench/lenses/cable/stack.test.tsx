import { act, fireEvent, screen, within } from '@testing-library/react';
import type { PortId, SwitchId } from '../../../core/model/ids';
import { Inspector } from '../../inspector/Inspector';
import { renderWith, settle } from '../../testing';

const lodge = 'lodge' as SwitchId;

it('makes a switch a stack, says how its members stand, and sets what they are', async () => {
  const store = await renderWith(<Inspector />);
  const stack = () => store.getState().design.switches.find(({ id }) => id === lodge)!.stack;
  const press = async (name: string, within_ = 'member 1') => {
    fireEvent.click(within(screen.getByRole('group', { name: within_ })).getByRole('button', { name }));
    await settle();
  };
  act(() => store.getState().select({ kind: 'switch', switch: lodge }));
  fireEvent.click(screen.getByRole('button', { name: 'Make it a stack of two' }));
  await settle();
  const panel = screen.getByRole('region', { name: 'Members of the stack' });
  expect(panel).toHaveTextContent('All 2 members act as one switch; member 1 is master.');
  await press('switch off');
  expect(panel).toHaveTextContent('One of its 2 members acts as the switch: member 2.');
  await press('switch on');
  fireEvent.change(screen.getByLabelText('Cabled as'), { target: { value: 'chain' } });
  await settle();
  await press('cut stack cable to 2');
  expect(panel).toHaveTextContent('The others have lost them');
  await press('settings', 'member 2');
  const wish = screen.getByLabelText('Wish to be master');
  fireEvent.change(wish, { target: { value: '40' } });
  fireEvent.keyDown(wish, { key: 'Enter' });
  expect(await screen.findByRole('alert')).toHaveTextContent('A whole number from 1 to 15.');
  fireEvent.change(wish, { target: { value: '9' } });
  fireEvent.keyDown(wish, { key: 'Enter' });
  await settle();
  expect(stack()).toMatchObject({ ring: false, members: [{ cable: false }, { masterPriority: 9 }] });

  act(() => store.getState().select({ kind: 'port', switch: lodge, port: '2' as PortId }));
  fireEvent.change(screen.getByLabelText('Stack member'), { target: { value: '2' } });
  await settle();
  expect(store.getState().design.switches.find(({ id }) => id === lodge)!.ports[1]).toMatchObject({ stackMember: 2 });
  act(() => store.getState().select({ kind: 'switch', switch: lodge }));
  expect(screen.getByRole('group', { name: 'member 2' })).toHaveTextContent('port 2');
  fireEvent.click(screen.getByRole('button', { name: 'No longer a stack' }));
  await settle();
  expect(stack()).toBeUndefined();
});

it('makes several switches one stack, or says why not', async () => {
  const store = await renderWith(<Inspector />);
  const choose = (...ids: string[]) =>
    act(() =>
      store
        .getState()
        .select({ kind: 'several', items: ids.map((id) => ({ kind: 'switch', switch: id as SwitchId })) }),
    );
  act(() => void store.getState().act({ do: 'set-switch', switch: lodge, dialect: 'stp' }));
  await settle();
  choose('lodge', 'workshop');
  fireEvent.click(screen.getByRole('button', { name: 'Make them one stack' }));
  expect(screen.getByRole('alert')).toHaveTextContent('The members of a stack run one spanning tree mode');
  act(() => void store.getState().act({ do: 'set-switch', switch: lodge, dialect: 'per-vlan-rstp' }));
  await settle();
  fireEvent.click(screen.getByRole('button', { name: 'Make them one stack' }));
  await settle();
  expect(store.getState().selection).toMatchObject({ kind: 'switch' });
  expect(screen.getByRole('region', { name: 'Members of the stack' })).toHaveTextContent('All 2 members act');
  expect(store.getState().design.switches).toHaveLength(7);
});
