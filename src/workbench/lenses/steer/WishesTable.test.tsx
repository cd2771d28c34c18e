import { act, fireEvent, screen } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import type { LinkId, PortId, SwitchId, TreeId } from '../../../core/model/ids';
import { fail, type Result } from '../../../core/base/result';
import { steer, type Proposal } from '../../../core/analysis/steering/steer';
import type { Wish } from '../../../core/analysis/steering/wishes';
import { solutionOf } from '../../../core/testing/networks';
import { Inspector } from '../../inspector/Inspector';
import { askSteering } from '../../state/questions';
import { renderWith, settle } from '../../testing';
import { WishesTable } from './WishesTable';

jest.mock('../../state/questions', () => ({ askSteering: jest.fn() }));
const block: Wish = { wants: 'block', switch: 'dome-east' as SwitchId, port: '1' as PortId };
const carry: Wish = { wants: 'carry', link: 'l2' as LinkId };
const trees = ['vlan:15' as TreeId];
let answer: (found: Result<Proposal[], string>) => void;

beforeEach(() => {
  jest.mocked(askSteering).mockReset();
  jest.mocked(askSteering).mockImplementation((of) => ({
    of,
    begin: () => ({ found: new Promise((done) => (answer = done)), stop: () => undefined }),
  }));
});

describe('the wishes', () => {
  it('says how to wish while there are none', async () => {
    await renderWith(<WishesTable />);
    expect(screen.getByText(/Nothing is wished for yet/)).toBeInTheDocument();
  });

  it('begins at once where a frayed end was pulled, and fulfils all of them in one step', async () => {
    const store = await renderWith(<WishesTable />);
    act(() => store.getState().askFor([block, carry], trees));
    expect(askSteering).toHaveBeenCalledWith(fernhollow(), [block, carry], trees);
    await act(async () => answer(steer(solutionOf(fernhollow()), [block, carry], trees)));
    fireEvent.click(screen.getByRole('button', { name: 'take it, proposal 1' }));
    await settle();
    expect(store.getState().undoSteps).toHaveLength(1);
  });

  it('forgets what was found when the wishes change, and says why they cannot come true', async () => {
    const store = await renderWith(<WishesTable />);
    act(() => store.getState().wish([block, carry], trees));
    expect(askSteering).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('button', { name: 'Propose ways' }));
    await act(async () => answer(fail('They stand against each other.')));
    expect(screen.getByRole('alert')).toHaveTextContent('They stand against each other.');
    fireEvent.click(screen.getByRole('button', { name: 'remove: block at dome-east port 1' }));
    expect(screen.queryByRole('alert')).toBeNull();
    expect(store.getState().wishes.list).toEqual([carry]);
  });

  it('takes several selected ends and links at once, each once', async () => {
    const store = await renderWith(<Inspector />);
    act(() => {
      store.getState().setLens('Steer');
      store.getState().pick({ kind: 'port', switch: block.switch, port: block.port }, 'alone');
      store.getState().pick({ kind: 'link', link: 'l2' as LinkId }, 'more');
    });
    fireEvent.click(screen.getByRole('button', { name: 'add to the wishes' }));
    expect(store.getState().wishes.list).toEqual([carry, block]);
    expect(store.getState().drawer).toEqual({ tab: 'wishes', open: true });
    expect(screen.getByRole('button', { name: 'in the list of wishes' })).toBeInTheDocument();
  });
});
