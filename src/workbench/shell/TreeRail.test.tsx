import { act, fireEvent, screen, within } from '@testing-library/react';
import { commandSchema } from '../../core/edit/commands';
import { campusOf } from '../../core/testing/campus';
import { designOf, networkOf } from '../../core/testing/networks';
import { renderWith, settle } from '../testing';
import { TreeRail } from './TreeRail';

const row = (name: RegExp) => screen.getByRole('button', { name });
const rows = () => screen.queryAllByRole('listitem').map((item) => item.textContent);

describe('the list of trees', () => {
  it('names each tree with its root and standby', async () => {
    await renderWith(<TreeRail />);
    expect(rows()).toHaveLength(7);
    expect(rows()[0]).toBe('1 defaultroot lodgestandby workshop, show VLAN 1 alone');
    expect(rows()[1]).toBe('15 Mount controlroot lodgestandby workshop, show VLAN 15 alone');
    expect(screen.getByText('per VLAN, rapid')).toBeInTheDocument();
  });

  it('shows a tree alone with a click, and with others by its tick', async () => {
    const store = await renderWith(<TreeRail />);
    expect(screen.getByLabelText('draw VLAN 15 with the others')).toBeDisabled(); // the last one shown stays
    fireEvent.click(row(/show VLAN 25 alone/));
    expect(store.getState().shownTrees).toEqual(['vlan:25']);
    fireEvent.click(screen.getByLabelText('draw VLAN 15 with the others'));
    expect(store.getState().shownTrees).toEqual(['vlan:15', 'vlan:25']);
    expect(row(/show VLAN 15 alone/)).toHaveAttribute('aria-pressed', 'true');
  });

  it('follows an edit', async () => {
    const store = await renderWith(<TreeRail />);
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 0 })),
    );
    await settle();
    expect(rows()[1]).toBe('15 Mount controlroot ridge-astandby lodge, show VLAN 15 alone');
    expect(rows()[2]).toBe('25 Image captureroot lodgestandby workshop, show VLAN 25 alone');
  });

  it('counts islands, and says when a tree has no standby or there is no tree', async () => {
    const design = networkOf({ a: {}, b: {}, c: {}, d: {} }, ['a 1 = b 1', 'c 1 = d 1']);
    const store = await renderWith(<TreeRail />, design);
    const [only] = screen.getAllByRole('listitem');
    expect(within(only!).getByText('2 islands, each with its root')).toBeInTheDocument();
    expect(screen.getByText('rapid')).toBeInTheDocument();
    act(
      () =>
        void store
          .getState()
          .act(
            ...['a', 'b', 'c', 'd'].map((id) => commandSchema.parse({ do: 'set-switch', switch: id, dialect: 'off' })),
          ),
    );
    await settle();
    expect(screen.getByText('No switch here runs spanning tree yet.')).toBeInTheDocument();
  });

  it('gives trees that are alike one row, which can be opened', async () => {
    const store = await renderWith(<TreeRail />, campusOf({ switches: 12, vlans: 40 }));
    expect(rows()).toEqual([
      'VLANs 1-41 one treeroot acc-2standby core-1, show one of 41 trees that are alike, VLAN 2, alone',
      'list all 41',
    ]);
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'core-1', tree: 'vlan:7', priority: 0 })),
    );
    await settle();
    expect(rows().map((text) => text!.slice(0, 20))).toEqual([
      'VLANs 1-6,8-41 one t',
      'list all 40',
      '7 root core-1standby',
    ]);
    fireEvent.click(screen.getByText('list all 40'));
    expect(rows()).toHaveLength(43);
    fireEvent.click(row(/show VLAN 9 alone/));
    expect(store.getState().shownTrees).toEqual(['vlan:9']);
    // The row of all of them now stands for the one that is drawn.
    expect(row(/show one of 40 trees that are alike, VLAN 9, alone/)).toHaveAttribute('aria-pressed', 'true');
  });

  it.each([
    ['7', ['7 ']],
    ['5-6', ['VLANs 5-6 one tree', 'list all 2']],
    ['core-1 7-9', ['VLANs 7-9 one tree', 'list all 3']],
    ['nobody', []],
  ])('lists what fits %s', async (text, found) => {
    await renderWith(<TreeRail />, campusOf({ switches: 12, vlans: 40 }));
    fireEvent.change(screen.getByLabelText('Filter trees'), { target: { value: text } });
    expect(rows().map((each) => each!.split('root')[0])).toEqual(found);
    expect(screen.queryAllByText('No tree fits.')).toHaveLength(found.length === 0 ? 1 : 0);
  });

  it('stands with one switch and nothing plugged in', async () => {
    await renderWith(<TreeRail />, designOf({ switches: [{ id: 'a', mac: '02:00:00:00:00:01', ports: [] }] }));
    expect(rows()).toEqual([' Common treeroot ano standby, show the common tree alone']);
  });
});
