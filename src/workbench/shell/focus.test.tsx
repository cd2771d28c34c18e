/** The map narrowed to a part of the network, and widened again. */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { campusOf } from '../../core/testing/campus';
import type { SwitchId } from '../../core/model/ids';
import { Inspector } from '../inspector/Inspector';
import { StoreProvider } from '../state/context';
import { renderWith } from '../testing';
import { FocusBar, focusText } from '../map/FocusBar';
import { ACTIONS } from '../map/actions';
import { useMapDesign } from '../map/mapDesign';

const sw = (id: string) => ({ kind: 'switch', switch: id as SwitchId }) as const;
const Drawn = () => (
  <p data-testid="drawn">
    {useMapDesign()
      .switches.map(({ id }) => id)
      .join(' ')}
  </p>
);
const drawn = () => screen.getByTestId('drawn').textContent;
const campus = campusOf({ switches: 12, vlans: 1 });

async function open() {
  const store = await renderWith(
    <>
      <Drawn />
      <FocusBar />
    </>,
    campus,
  );
  return { store, press: (id: string) => act(() => ACTIONS.find((each) => each.id === id)!.run(store.getState())) };
}

it('shows only what is selected and its neighbours, wider and narrower, and all again', async () => {
  const { store, press } = await open();
  act(() => store.getState().select(sw('acc-1')));
  press('only');
  expect(drawn()).toBe('dist-1 dist-2 acc-1');
  expect(screen.getByRole('status', { name: 'Focus' })).toHaveTextContent(
    'Only acc-1 and what is a link away: 3 of 12 switches.',
  );
  fireEvent.click(screen.getByText('one less'));
  expect(drawn()).toBe('acc-1');
  fireEvent.click(screen.getByText('one link more'));
  fireEvent.click(screen.getByText('one link more'));
  expect(drawn()!.split(' ')).toHaveLength(10);
  fireEvent.click(screen.getByText('show all'));
  expect(drawn()!.split(' ')).toHaveLength(12);
  expect(screen.queryByRole('status', { name: 'Focus' })).toBeNull();
});

it('follows the ways to the root, and what blocks', async () => {
  const { store, press } = await open();
  // acc-2, the last but six, has the oldest address: it is root of every tree.
  act(() => store.getState().select(sw('acc-5')));
  press('only-ways');
  expect(drawn()).toMatch(/acc-2.*acc-5/);
  press('only-blocks');
  expect(screen.getByRole('status', { name: 'Focus' })).toHaveTextContent('Only what blocks in the trees shown');
  expect(drawn()).toContain('core-1');
});

it('shows all again where something is gone to that was left out', async () => {
  const { store, press } = await open();
  act(() => store.getState().select(sw('acc-1')));
  press('only');
  act(() => store.getState().goTo(sw('dist-1')));
  expect(store.getState().focus).not.toBeNull();
  act(() => store.getState().goTo(sw('core-2')));
  expect(store.getState().focus).toBeNull();
});

it('can be asked for beside what is selected', async () => {
  const { store } = await open();
  render(
    <StoreProvider value={store}>
      <Inspector />
    </StoreProvider>,
  );
  act(() => store.getState().select(sw('acc-1')));
  fireEvent.click(screen.getByText('only this'));
  expect(drawn()).toBe('dist-1 dist-2 acc-1');
  fireEvent.click(screen.getByText('only its ways to the root'));
  expect(store.getState().focus?.kind).toBe('ways');
});

it.each([
  [{ kind: 'around', switches: ['a', 'b', 'c'], hops: 0 }, 'a and 2 others'],
  [{ kind: 'around', switches: ['a'], hops: 3 }, 'a and what is up to 3 links away'],
  [{ kind: 'moved', switches: ['a'] }, 'what just moved'],
] as const)('says of %j: %s', (focus, text) => expect(focusText(focus as never, 'a')).toBe(text));
