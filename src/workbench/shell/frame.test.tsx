import { tableIn } from '../lenses/lenses';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { commandSchema } from '../../core/edit/commands';
import { renderWith, settle } from '../testing';
import { ConflictDialog } from './ConflictDialog';
import { Header } from './Header';
import { TextButton } from '../ui/TextButton';
import { useKeys } from './useKeys';

jest.mock('next/navigation', () => ({}));

const told = jest.fn();
function Keys() {
  useKeys(told);
  return <input aria-label="a field" />;
}
const priority = (value: number) =>
  commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: null, priority: value });

describe('the header', () => {
  it('says which revision is on screen and whether it is saved', async () => {
    const store = await renderWith(<Header />);
    expect(screen.getByRole('status')).toHaveTextContent('revision 0, saved');
    act(() => void store.getState().act(priority(0)));
    await settle();
    expect(screen.getByRole('status')).toHaveTextContent('revision 1');
    act(() => store.setState({ save: { kind: 'offline', message: 'gone', short: 'no answer' } }));
    expect(screen.getByRole('status')).toHaveTextContent('not saved: no answer, trying again');
    expect(screen.getByRole('button', { name: 'Export' })).toBeDisabled();
  });

  it('offers undo and redo only where there is something to take back or do again', async () => {
    const store = await renderWith(<Header />);
    const [undo, redo] = [screen.getByRole('button', { name: /Undo/ }), screen.getByRole('button', { name: /Redo/ })];
    expect([undo, redo].map((button) => (button as HTMLButtonElement).disabled)).toEqual([true, true]);
    act(() => void store.getState().act(priority(0)));
    await settle();
    fireEvent.click(undo);
    await settle();
    expect([undo, redo].map((button) => (button as HTMLButtonElement).disabled)).toEqual([true, false]);
  });

  it('has the lenses that are built, and no others', async () => {
    const store = await renderWith(<Header />);
    expect(screen.getAllByRole('tab').map((tab) => tab.textContent)).toEqual([
      'Cable',
      'Root',
      'Steer',
      'Group',
      'Bundle',
      'Guard',
      'Break',
      'Prove',
      'Hand over',
      'Observe',
    ]);
    fireEvent.click(screen.getByRole('tab', { name: 'Cable' }));
    expect(store.getState().lens).toBe('Cable');
    expect(tableIn('Cable', store.getState().drawer.tab).key).toBe('cables');
  });
});

describe('keys', () => {
  it('take back, do again, step through trees and let go, but not inside a field', async () => {
    const store = await renderWith(<Keys />);
    const press = (key: string, more: object = {}, target: Element = document.body) =>
      act(() => void fireEvent.keyDown(target, { key, ...more }));
    const set = () => store.getState().design.switches[0]?.priority;
    act(() => void store.getState().act(priority(4096)));
    await settle();
    press('z', { ctrlKey: true }, screen.getByLabelText('a field'));
    expect(set()).toBe(4096);
    press('z', { ctrlKey: true });
    await settle();
    expect(set()).toBe(32768);
    press('Z', { metaKey: true, shiftKey: true });
    await settle();
    expect(set()).toBe(4096);
    press(']');
    expect(store.getState().shownTrees).toEqual(['vlan:25']);
    act(() => store.getState().select({ kind: 'link', link: store.getState().design.links[0]!.id }));
    press('Escape');
    expect(store.getState().selection).toBeNull();
  });
});

describe('a change that the server does not take', () => {
  it('is told with what happened since, and with ways on', async () => {
    const store = await renderWith(<ConflictDialog />);
    expect(screen.queryByRole('dialog')).toBeNull();
    act(() =>
      store.setState({
        save: {
          kind: 'conflict',
          failure: { status: 409, message: 'At revision 3 by now.', details: [], since: ['moved lodge'] },
        },
      }),
    );
    expect(screen.getByRole('dialog')).toHaveTextContent('At revision 3 by now.');
    expect(screen.getByRole('dialog')).toHaveTextContent('moved lodge');
    expect(screen.getAllByRole('button').map((button) => button.textContent)).toEqual([
      'Open the saved revision, drop mine',
      'Keep mine as a new design',
    ]);
  });
});

it('a text button is a button that submits nothing', () => {
  render(<TextButton>go</TextButton>);
  expect(screen.getByRole('button', { name: 'go' })).toHaveAttribute('type', 'button');
});
