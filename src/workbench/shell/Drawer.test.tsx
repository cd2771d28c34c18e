import { act, fireEvent, screen, within } from '@testing-library/react';
import { commandSchema } from '../../core/edit/commands';
import { networkOf } from '../../core/testing/networks';
import { renderWith, settle } from '../testing';
import { Drawer } from './Drawer';
import { FindingsList } from '../lenses/shared/FindingsList';

describe('the drawer', () => {
  it('does not claim that all is well where there are no trees', async () => {
    const store = await renderWith(<Drawer />);
    act(() => store.setState({ solution: null, problem: 'the solver has stopped' }));
    for (const tab of ['Ports', 'Changed ports', 'Findings']) {
      fireEvent.click(screen.getByRole('tab', { name: tab }));
      expect(screen.getByRole('tabpanel')).toHaveTextContent('There are no trees to list');
    }
  });

  it('counts findings and moved ends on its tabs, and can be closed', async () => {
    const store = await renderWith(<Drawer />);
    expect(screen.getByRole('tab', { name: 'Findings 7' })).toBeInTheDocument();
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 0 })),
    );
    await settle();
    expect(screen.getByRole('tab', { name: 'Changed ports 10' })).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: 'hide table' }));
    expect(screen.queryByRole('tabpanel')).toBeNull();
    fireEvent.click(screen.getByRole('tab', { name: /Findings/ }));
    expect(screen.getByRole('tabpanel')).toBeInTheDocument();
  });

  it('lists other tables in the Cable view', async () => {
    const store = await renderWith(<Drawer />);
    act(() => store.getState().setLens('Cable'));
    expect(screen.getAllByRole('tab').map((tab) => tab.textContent)).toEqual([
      'Cables',
      'Neighbours',
      'Hosts',
      'Groups',
      'VLANs',
      'Changed ports',
      'Findings 7',
      'History',
    ]);
  });
});

describe('findings', () => {
  it('lead to their place, in a tree that they are about', async () => {
    const store = await renderWith(<FindingsList />);
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 0 })),
    );
    await settle();
    const [first] = screen.getAllByRole('listitem');
    expect(first).toHaveTextContent('lodge is root of VLANs 1,25,35,45,55,65 only by its MAC address');
    fireEvent.click(within(first!).getByRole('button', { name: 'go there' }));
    expect(store.getState()).toMatchObject({ selection: { kind: 'switch', switch: 'lodge' }, shownTrees: ['vlan:1'] });
  });

  it('take one remedy, and no other until what is left has been looked for', async () => {
    const store = await renderWith(<FindingsList />);
    act(() => void store.getState().act(commandSchema.parse({ do: 'set-link', link: 'l1', speed: 100 })));
    await settle();
    const remedies = () => screen.queryAllByTitle('one step, which can be undone');
    expect(remedies().length).toBeGreaterThan(1);
    fireEvent.click(remedies()[0]!);
    for (const button of remedies()) expect(button).toBeDisabled();
    const taken = store.getState().undoSteps.length;
    fireEvent.click(remedies()[1]!);
    expect(store.getState().undoSteps.length).toBe(taken);
  });

  it('say so when there are none', async () => {
    await renderWith(<FindingsList />, networkOf({ a: { tier: 'core' } }, []));
    expect(await screen.findByText(/Nothing found/)).toBeInTheDocument();
  });
});
