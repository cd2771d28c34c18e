import { act, fireEvent, screen, within } from '@testing-library/react';
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import { networkOf } from '../../core/testing/networks';
import { renderWith, settle } from '../testing';
import { Inspector } from './Inspector';
import { shortened } from '../lenses/root/WhyPort';

const sw = (id: string) => id as SwitchId;
const port = (id: string) => id as PortId;
const why = () => screen.getByRole('region', { name: 'Why' });
const change = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('the inspector', () => {
  it('says what to do while nothing is selected, and edits the design', async () => {
    const store = await renderWith(<Inspector />);
    expect(screen.getByText('8 switches, 15 links, 6 VLANs, 9 hosts')).toBeInTheDocument();
    change('Path cost method', 'short');
    await settle();
    expect(store.getState().design.pathCost).toBe('short');
  });

  it('says why a port blocks, with the part that decided marked', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'port', switch: sw('ridge-b'), port: port('1') }));
    expect(why()).toHaveTextContent('alternate, discarding');
    const decided = within(why())
      .getAllByRole('row')
      .filter((row) => row.dataset.decided);
    expect(decided.map((row) => row.dataset.decided)).toEqual(['designatedBridge', 'rootPathCost']);
    expect(decided[0]).toHaveTextContent('(decided)');
  });

  it('shows one Why for each tree that is drawn, and says where a port is in no tree', async () => {
    const store = await renderWith(<Inspector />);
    act(() => {
      store.getState().showTree('vlan:25' as never, 'toggle');
      store.getState().select({ kind: 'port', switch: sw('array-hut'), port: port('1') });
    });
    expect(why()).toHaveTextContent('VLAN 15 root, forwarding');
    expect(why()).toHaveTextContent('VLAN 25 not in this tree');
  });

  it('ranks bridge IDs for a switch, the few that matter first', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'switch', switch: sw('dome-west') }));
    const ranking = within(why()).getByRole('table', { name: 'bridge IDs, the best first' });
    expect(
      within(ranking)
        .getAllByRole('row')
        .map((row) => row.querySelector('td')?.textContent),
    ).toEqual(['1', '2', '3', '8']);
    fireEvent.click(within(why()).getByRole('button', { name: 'all 8 bridges' }));
    expect(within(ranking).getAllByRole('row')).toHaveLength(8);
    fireEvent.click(within(ranking).getByRole('button', { name: 'lodge' }));
    expect(store.getState().selection).toEqual({ kind: 'switch', switch: 'lodge' });
  });

  it('cuts a link, sets the speed of both its ends, unplugs it', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'link', link: 'l1' as LinkId }));
    change('Cable', 'cut');
    await settle();
    expect(why()).toHaveTextContent('ridge-a port 1. Disabled: the link is cut.');
    change('Speed, both ends', '25G');
    fireEvent.keyDown(screen.getByLabelText('Speed, both ends'), { key: 'Enter' });
    await settle();
    expect(
      ['ridge-a', 'ridge-b'].map((id) => store.getState().design.switches.find((s) => s.id === id)?.ports[0]?.speed),
    ).toEqual([25_000, 25_000]);
    fireEvent.click(screen.getByRole('button', { name: 'Unplug this cable' }));
    await settle();
    expect(store.getState().design.links).toHaveLength(14);
    expect(store.getState().selection).toBeNull();
  });

  it('turns a trunk into an access port and names its VLAN', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'port', switch: sw('lodge'), port: port('1') }));
    change('VLANs', 'access');
    await settle();
    change('Access VLAN', '55');
    fireEvent.blur(screen.getByLabelText('Access VLAN'));
    await settle();
    expect(store.getState().design.switches.find((s) => s.id === 'lodge')?.ports[0]?.vlans).toEqual({
      mode: 'access',
      vlan: 55,
    });
    expect(why()).toHaveTextContent('It does not carry the VLAN');
  });

  it('leads from a port to the host on it, which can be named', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'port', switch: sw('ridge-b'), port: port('9') }));
    fireEvent.click(screen.getByRole('button', { name: 'host Image store' }));
    expect(screen.getByText(/plugged into/)).toHaveTextContent('plugged into ridge-b port 8 and ridge-b port 9');
    change('Name', 'Image vault');
    fireEvent.blur(screen.getByLabelText('Name'));
    await settle();
    expect(store.getState().design.hosts.find((host) => host.id === 'image-store')?.name).toBe('Image vault');
  });

  it('joins two switches, and a switch to itself', async () => {
    const store = await renderWith(<Inspector />, networkOf({ a: {}, b: {} }, []));
    act(() => {
      store.getState().setLens('Cable');
      store.getState().select({ kind: 'switch', switch: sw('a') });
    });
    fireEvent.click(screen.getByRole('button', { name: 'Plug in' }));
    expect(screen.getByRole('alert')).toHaveTextContent('Choose the switch at the other end.');
    for (const far of ['b', 'a']) {
      change('Switch at the other end', far);
      fireEvent.click(screen.getByRole('button', { name: 'Plug in' }));
      await settle();
    }
    expect(store.getState().design.links.map(({ a, b }) => `${a.switch}${a.port}-${b.switch}${b.port}`)).toEqual([
      'a1-b1',
      'a2-a3',
    ]);
    change('Speed of the new cable', 'quick');
    fireEvent.click(screen.getByRole('button', { name: 'Plug in' }));
    expect(screen.getByRole('alert')).toHaveTextContent('A speed such as 1 Gb/s');
  });
});

describe('a bridge ID in a narrow table', () => {
  it('leaves out the octets that both sides share, but keeps at least two', () => {
    expect(shortened('4111.02:4b:00:00:00:0a', '4111.02:4b:00:00:00:0b')).toBe('4111.…00:0a');
    expect(shortened('4111.02:4b:00:00:00:0a', '4111.02:4b:00:00:00:0a')).toBe('4111.…00:0a');
    expect(shortened('4111.02:4b:00:11:00:0a', '4111.02:4b:00:22:00:0a')).toBe('4111.…11:00:0a');
    expect(shortened('4111.02:4b:00:00:00:0a', '4111.06:4b:00:00:00:0a')).toBe('4111.02:4b:00:00:00:0a');
    expect(shortened('128.7', '128.9')).toBe('128.7');
    expect(shortened('20 000', '4')).toBe('20 000');
  });
});
