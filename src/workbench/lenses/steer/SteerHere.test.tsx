import { act, fireEvent, screen } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import type { PortId, SwitchId } from '../../../core/model/ids';
import { fail, type Result } from '../../../core/base/result';
import { steer, type Proposal } from '../../../core/analysis/steering/steer';
import type { Wish } from '../../../core/analysis/steering/wishes';
import { solutionOf } from '../../../core/testing/networks';
import { askSteering } from '../../state/questions';
import { renderWith, settle } from '../../testing';
import { proposalText } from '../shared/Offers';
import { SteerHere } from './SteerHere';

jest.mock('../../state/questions', () => ({ askSteering: jest.fn() }));
const wish: Wish = { wants: 'block', switch: 'ridge-a' as SwitchId, port: '1' as PortId };
let answer: (found: Result<Proposal[], string>) => void;
const stop = jest.fn();

beforeEach(() => {
  stop.mockClear();
  jest.mocked(askSteering).mockImplementation((of) => ({
    of,
    begin(tell) {
      tell(0.4);
      return { found: new Promise((done) => (answer = done)), stop };
    },
  }));
});
const begin = () => fireEvent.click(screen.getByRole('button', { name: 'Propose ways to block here' }));

describe('steering from the inspector', () => {
  it('shows how far it is, and can be stopped', async () => {
    await renderWith(<SteerHere wish={wish} />);
    expect(screen.getByText(/In VLAN 15: each set of changes is tried/)).toBeInTheDocument();
    begin();
    expect(screen.getByRole('status')).toHaveTextContent('40 %');
    fireEvent.click(screen.getByRole('button', { name: 'cancel' }));
    expect(stop).toHaveBeenCalled();
    await act(async () => answer(fail('too late')));
    expect(screen.queryByText('too late')).toBeNull();
  });

  it('says why it cannot be done', async () => {
    await renderWith(<SteerHere wish={wish} />);
    begin();
    await act(async () => answer(fail('It is the only way.')));
    expect(screen.getByRole('alert')).toHaveTextContent('It is the only way.');
  });

  it('shows a proposal on the map before it is taken as one step', async () => {
    const store = await renderWith(<SteerHere wish={wish} />);
    begin();
    await act(async () => answer(steer(solutionOf(fernhollow()), [wish], store.getState().shownTrees)));
    const [first] = screen.getAllByRole('listitem');
    expect(first).toHaveTextContent('1 setting; 8 other ports change');
    fireEvent.click(screen.getByRole('button', { name: 'show proposal 1 on the map' }));
    expect(store.getState().looking).toMatchObject({ kind: 'proposal', label: 'the design with this proposal' });
    expect(store.getState().moved?.ends.length).toBeGreaterThan(8);
    expect(store.getState().undoSteps).toHaveLength(0);
    fireEvent.click(screen.getByRole('button', { name: 'take it, proposal 1' }));
    await settle();
    expect(store.getState()).toMatchObject({ looking: { kind: 'present' }, undoSteps: { length: 1 } });
    expect(screen.queryByRole('listitem')).toBeNull();
  });

  it('does not offer proposals for another design than they were made for', async () => {
    const store = await renderWith(<SteerHere wish={wish} />);
    begin();
    await act(async () => answer(steer(solutionOf(fernhollow()), [wish], store.getState().shownTrees)));
    act(() => void store.getState().act({ do: 'set-switch', switch: 'lodge' as SwitchId, up: false }));
    await settle();
    expect(screen.getByText(/The design has changed since/)).toBeInTheDocument();
  });

  it('tells the price in words', () => {
    const price = (changes: Partial<Proposal>) =>
      proposalText(fernhollow(), {
        commands: [],
        sentence: '',
        settings: 1,
        others: [],
        spills: false,
        weakRoots: [],
        weakWays: [],
        ...changes,
      });
    expect(price({})).toBe('1 setting; nothing else changes');
    expect(price({ settings: 2, others: [{}, {}, {}] as never, spills: true, weakRoots: ['lodge' as SwitchId] })).toBe(
      '2 settings; 3 other ports change, some in other trees; of the access switches lodge becomes root',
    );
  });
});
