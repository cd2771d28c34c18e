import { act, fireEvent, screen, within } from '@testing-library/react';
import type { HostId, LinkId, PortId, SwitchId } from '../../core/model/ids';
import { selectionOf, type Item } from '../state/selection';
import type { WorkbenchStore } from '../state/store';
import { renderWith, settle } from '../testing';
import { Inspector } from './Inspector';
import { choiceOf, common, textOf } from '../ui/several';

const select = (store: WorkbenchStore, ...items: Item[]) => act(() => store.getState().select(selectionOf(items)));
const sw = (id: string): Item => ({ kind: 'switch', switch: id as SwitchId });
const link = (id: string): Item => ({ kind: 'link', link: id as LinkId });
const set = (room: HTMLElement, label: string, value: string) => {
  const field = within(room).getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};
const region = (name: RegExp) => screen.getByRole('region', { name });

describe('several things at once', () => {
  it('show what they agree on and call the rest several', () => {
    expect([common([1, 1]), common([1, 2]), common([])]).toEqual([1, null, null]);
    expect(
      common([
        { mode: 'access', vlan: 5 },
        { mode: 'access', vlan: 5 },
      ]),
    ).toEqual({ mode: 'access', vlan: 5 });
    expect([textOf([2, 2], String), textOf([2, 3], String)]).toEqual([
      { value: '2' },
      { value: '', placeholder: 'several' },
    ]);
    expect(
      choiceOf(['a', 'b'] as ('a' | 'b')[], [
        ['a', 'A'],
        ['b', 'B'],
      ]).options[0],
    ).toEqual(['', 'several']);
  });

  it('take one value for all switches, in one step', async () => {
    const store = await renderWith(<Inspector />);
    select(store, sw('lodge'), sw('workshop'), sw('ridge-a'));
    const room = region(/selected switches/);
    expect(screen.getByRole('heading', { level: 2 })).toHaveTextContent('3 switches selected');
    expect(within(room).getByLabelText('Tier')).toHaveDisplayValue('several');
    set(room, 'Max age', '41');
    expect(within(room).getByRole('alert')).toHaveTextContent('6 to 40');
    expect(within(room).getByLabelText('Max age')).toHaveValue('41');
    set(room, 'Max age', '12');
    await settle();
    fireEvent.change(within(room).getByLabelText('Power'), { target: { value: 'off' } });
    await settle();
    const chosen = store
      .getState()
      .design.switches.filter((each) => ['lodge', 'workshop', 'ridge-a'].includes(each.id));
    expect(chosen.map((each) => [each.timers.maxAge, each.up])).toEqual([
      [12, false],
      [12, false],
      [12, false],
    ]);
    expect(store.getState().undoSteps.map((step) => step.label)).toEqual([
      'ridge-a, workshop, lodge: max age 20 to 12',
      'ridge-a, workshop, lodge: switched off',
    ]);
    fireEvent.change(within(room).getByLabelText('Cost method'), { target: { value: 'short' } });
    await settle();
    fireEvent.change(within(room).getByLabelText('Cost method'), { target: { value: 'design' } });
    await settle();
    expect(store.getState().design.switches.some((each) => each.pathCost)).toBe(false);
  });

  it('set both ends of links, ports and hosts, and go together', async () => {
    const store = await renderWith(<Inspector />);
    select(
      store,
      link('l1'),
      link('l2'),
      { kind: 'port', switch: 'lodge' as SwitchId, port: '5' as PortId },
      { kind: 'host', host: 'duty-desk' as HostId },
    );
    const links = region(/selected links/);
    set(links, 'Native VLAN', '65');
    set(links, 'Speed', '25G');
    await settle();
    const ends = store
      .getState()
      .design.switches.slice(0, 2)
      .flatMap((each) => each.ports.slice(0, 2));
    expect(ends.map((each) => [each.speed, each.vlans.mode === 'trunk' && each.vlans.native])).toEqual(
      Array.from({ length: 4 }, () => [25_000, 65]),
    );
    fireEvent.change(within(links).getByLabelText('VLANs'), { target: { value: 'access' } });
    await settle();
    expect(within(region(/selected links/)).getByLabelText('Access VLAN')).toHaveValue('65');
    set(region(/selected ports/), 'Access VLAN', '45');
    set(region(/selected hosts/), 'VLAN', '55');
    await settle();
    expect(store.getState().design.hosts.find((host) => host.id === 'duty-desk')?.vlan).toBe(55);
    fireEvent.click(screen.getByRole('button', { name: 'Remove all of these' }));
    await settle();
    expect(store.getState().design).toMatchObject({ links: { length: 13 }, hosts: { length: 8 } });
  });

  it('a host is plugged in by words', async () => {
    const store = await renderWith(<Inspector />);
    select(store, { kind: 'host', host: 'duty-desk' as HostId });
    const field = screen.getByLabelText('Plugged into');
    expect(field).toHaveValue('ridge-a 9');
    const plug = (text: string) => {
      fireEvent.change(screen.getByLabelText('Plugged into'), { target: { value: text } });
      fireEvent.keyDown(screen.getByLabelText('Plugged into'), { key: 'Enter' });
    };
    plug('ridge-a 1');
    expect(screen.getByRole('alert')).toHaveTextContent('port 1 of ridge-a is taken');
    plug('lodge 20');
    await settle();
    expect(store.getState().design.hosts.find((host) => host.id === 'duty-desk')?.attach).toEqual([
      { switch: 'lodge', port: '20' },
    ]);
    plug('');
    await settle();
    expect(screen.getByText('plugged in nowhere')).toBeInTheDocument();
    set(document.body, 'VLAN', '0');
    expect(screen.getByRole('alert')).toHaveTextContent('A VLAN ID is 1 to 4094.');
  });
});
