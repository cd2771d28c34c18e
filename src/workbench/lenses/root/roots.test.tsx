/** The tables of the Root view, and placing from keys and buttons. */
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import type { Design } from '../../../core/model/document';
import type { SwitchId, TreeId } from '../../../core/model/ids';
import type * as RootLossModule from '../../../core/analysis/roots/rootLoss';
import type * as Networks from '../../../core/testing/networks';
import { rootMatrix } from '../../../core/analysis/roots/rootMatrix';
import { networkOf, solutionOf } from '../../../core/testing/networks';
import { placeIn, placeSelected } from '../shared/placing';
import { MovedBar } from '../../map/MovedBar';
import { StoreProvider } from '../../state/context';
import { selectionOf, type Item } from '../../state/selection';
import { renderWith, settle } from '../../testing';
import { lossesOf } from '../../../core/analysis/roots/rootLoss';
import { LossTable, lossRows } from './LossTable';
import { groupsOf } from '../shared/groups';
import { RootMatrix, rootRows } from './RootMatrix';

/** The worker's answer, in this thread. */
jest.mock('../../state/questions', () => {
  const { lossesOf: losses } = jest.requireActual<typeof RootLossModule>('../../../core/analysis/roots/rootLoss');
  const { solutionOf: solved } = jest.requireActual<typeof Networks>('../../../core/testing/networks');
  return {
    askLosses: (of: Design) => ({
      of,
      begin: () => ({
        found: Promise.resolve().then(() => ({ ok: true, value: losses(solved(of)) })),
        stop: () => undefined,
      }),
    }),
  };
});

const sw = (id: string): Item => ({ kind: 'switch', switch: id as SwitchId });
const demo = solutionOf(fernhollow());
const vlan = (vid: number) => `vlan:${vid}` as TreeId;

describe('the matrix of roots', () => {
  it('has a row a switch, the strong ones first, and a column for each group of alike trees', () => {
    const rows = rootRows(demo, rootMatrix(demo));
    expect(rows.map((row) => row.id).slice(0, 3)).toEqual(['ridge-a', 'ridge-b', 'dome-north']);
    expect(rows.at(-1)).toMatchObject({ tier: 'access', g0: '32768' });
    expect(rows.find((row) => row.id === 'array-hut')?.g1).toBe('32768');
  });
  it('shows the trees of some VLANs', () => {
    const { groups } = rootMatrix(demo);
    expect(groupsOf(groups, '').groups).toBe(groups);
    expect(
      groupsOf(groups, '15-35')
        .groups.flatMap((group) => group.trees)
        .sort(),
    ).toEqual([vlan(15), vlan(25), vlan(35)]);
    expect(groupsOf(groups, '5-3')).toMatchObject({
      groups,
      fault: expect.stringContaining('runs backwards') as string,
    });
  });
  it('sets a priority on all selected switches in the trees shown, as one step', async () => {
    const store = await renderWith(<RootMatrix />);
    const set = () => fireEvent.click(screen.getByRole('button', { name: 'Set' }));
    const write = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    expect(screen.getByRole('button', { name: 'Set' })).toBeDisabled();
    act(() => store.getState().select(selectionOf([sw('ridge-a'), sw('ridge-b')])));
    write('Trees in the table', '15-35');
    write('Priority of the selected switches in these trees', '5000');
    set();
    expect(screen.getByRole('alert')).toHaveTextContent(
      '0 to 61440 in steps of 4096; 5000 is not. Nearest: 4096 and 8192.',
    );
    write('Priority of the selected switches in these trees', '8192');
    set();
    await settle();
    expect(store.getState().undoSteps.map((step) => step.label)).toEqual([
      'priority of ridge-a, ridge-b in VLANs 15,25,35: 32768 to 8192',
    ]);
    expect(screen.getByText('for 2 switches in 3 trees')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Root' })).toBeDisabled(); // one switch at a time
  });
  it('says what to do where nothing runs spanning tree', async () => {
    await renderWith(<RootMatrix />, networkOf({ a: { dialect: 'off' } }, []));
    expect(screen.getByText(/No switch runs spanning tree yet/)).toBeInTheDocument();
  });
});

describe('placing', () => {
  it('the selected switch in the trees shown is one step, and says whom it got past', async () => {
    const store = await renderWith(<MovedBar />);
    act(() => placeSelected('root')(store.getState()));
    expect(screen.getByRole('status')).toHaveTextContent('Select the switch that should be the root.');
    act(() => store.getState().select(sw('ridge-a')));
    act(() => placeSelected('root')(store.getState()));
    await settle();
    expect(store.getState().design.switches[0]?.trees).toEqual({ 'vlan:15': { priority: 24_576 } });
    expect(screen.getByRole('status')).toHaveTextContent(
      'ridge-a becomes root of VLAN 15 with priority 24576. It had to get past lodge, workshop, array-hut.',
    );
    act(() => store.getState().select(selectionOf([sw('lodge'), sw('workshop')])));
    act(() => placeSelected('standby')(store.getState()));
    expect(screen.getByRole('status')).toHaveTextContent('One switch at a time can be the standby; 2 are selected.');
    act(() => placeIn(store.getState(), [vlan(15), vlan(25)], ['lodge', 'workshop'] as SwitchId[], 'never'));
    await settle();
    expect(
      store
        .getState()
        .design.switches.filter((each) => each.trees[vlan(25)]?.priority === 61_440)
        .map((each) => each.id),
    ).toEqual(['workshop', 'lodge']);
    fireEvent.click(screen.getByRole('button', { name: 'and for VLANs to come' }));
    await settle();
    expect(
      store
        .getState()
        .design.switches.filter((each) => each.priority === 61_440)
        .map((each) => each.id),
    ).toEqual(['workshop', 'lodge']);
    expect(store.getState().design.switches.find((each) => (each.id as string) === 'lodge')!.trees[vlan(35)]).toEqual({
      priority: 32_768,
    });
  });

  it('that no priority can do is told, with what to change instead', async () => {
    const store = await renderWith(<MovedBar />, networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1']));
    act(() => store.getState().select(sw('b')));
    act(() => placeSelected('root')(store.getState()));
    expect(store.getState().undoSteps).toHaveLength(0);
    expect(screen.getByRole('status')).toHaveTextContent('No priority makes b root of the common tree');
    fireEvent.click(screen.getByRole('button', { name: 'raise a to 4096 and place b at 0' }));
    await settle();
    expect(store.getState().design.switches.map((each) => each.priority)).toEqual([4096, 0]);
    expect(store.getState()).toMatchObject({ advice: null, solution: { trees: [{ root: new Int32Array([1, 1]) }] } });
  });
});

describe('if a root dies', () => {
  it('lists each root with the trees that fare alike', () => {
    expect(
      lossRows(demo.network.design, lossesOf(demo)).map(({ root, trees, takesOver, cutOff, shares }) => ({
        root,
        trees,
        takesOver,
        cutOff,
        shares,
      })),
    ).toEqual([
      {
        root: 'lodge',
        trees: 'VLANs 1,15,25,35,45,55,65',
        takesOver: 'workshop',
        cutOff: 'Visitor kiosk',
        shares: 'no other',
      },
    ]);
    const chain = solutionOf(networkOf({ a: {}, b: { priority: 0 }, c: {} }, ['a 1 = b 1', 'b 2 = c 1']));
    expect(lossRows(chain.network.design, lossesOf(chain))).toMatchObject([{ root: 'b', takesOver: 'a', cutOff: 'c' }]);
  });
  it('stays while one row is looked at: the next is one click, and so is the way back', async () => {
    const store = await renderWith(<LossTable />);
    const row = (name: RegExp) => screen.findByRole('row', { name });
    fireEvent.click(within(await row(/^lodge/)).getByText('lodge'));
    expect(store.getState().looking).toMatchObject({ kind: 'loss', label: 'the design if lodge dies' });
    expect((await row(/^lodge/)).className).toContain('row-chosen');
    expect(screen.getByText(/The map shows the design if lodge dies/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: 'go back to now' }));
    expect(store.getState().looking).toEqual({ kind: 'present' });
    render(
      <StoreProvider value={store}>
        <MovedBar />
      </StoreProvider>,
    );
    expect(screen.queryByText(/nothing can be changed here/)).toBeNull();
  });
});
