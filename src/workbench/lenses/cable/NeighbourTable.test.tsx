import { act, fireEvent, screen } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import { designOf } from '../../../core/testing/networks';
import { itemsOf } from '../../state/selection';
import { renderWith, settle } from '../../testing';
import { NeighbourTable } from './NeighbourTable';
import { VlanTable } from '../shared/VlanTable';

const demo = fernhollow();
const seen = [
  { switch: 'ridge-a', port: '1', device: 'ridge-b', devicePort: '1' },
  { switch: 'ridge-a', port: '2', device: 'lodge', devicePort: '9' },
];

describe('the table of neighbours on the screen', () => {
  it('selects the ports that the filter leaves, for settings of all of them', async () => {
    const store = await renderWith(<NeighbourTable />);
    fireEvent.change(screen.getByLabelText('Filter ports'), { target: { value: 'lodge host' } });
    await settle();
    fireEvent.click(screen.getByRole('button', { name: 'select these' }));
    expect(itemsOf(store.getState().selection)).toEqual([{ kind: 'port', switch: 'lodge', port: '5' }]);
  });

  it('counts what differs, shows it alone, and forgets it as one step', async () => {
    const store = await renderWith(<NeighbourTable />, { ...demo, observed: seen });
    const only = screen.getByLabelText(/differences only/);
    expect(only.parentElement).toHaveTextContent('6 differences only'); // lodge instead of ridge-b, and five that ridge-a does not report
    fireEvent.click(only);
    expect(await screen.findByText('6 ports')).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: 'forget what was reported' }));
    await settle();
    expect(store.getState().design.observed).toEqual([]);
    expect(screen.queryByLabelText(/differences only/)).toBeNull();
    act(() => store.getState().undo());
    await settle();
    expect(store.getState().design.observed).toEqual(seen);
  });

  it('hands the drawn table over as a file', async () => {
    const saved: { name: string; text: string }[] = [];
    const blobs: Blob[] = [];
    Object.assign(URL, {
      createObjectURL: (blob: Blob) => `blob:${blobs.push(blob)}`,
      revokeObjectURL: () => undefined,
    });
    jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      saved.push({ name: this.download, text: this.href });
    });
    await renderWith(<NeighbourTable />);
    fireEvent.click(screen.getByRole('button', { name: 'Export as CSV' }));
    expect(saved.map((file) => file.name)).toEqual(['fernhollow-observatory-neighbours.csv']);
    expect(blobs[0]?.type).toBe('text/csv;charset=utf-8');
  });

  it('says what to do first in an empty design', async () => {
    await renderWith(<NeighbourTable />, designOf({}));
    expect(screen.getByText(/No ports yet/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: 'Import reported neighbours' }));
    expect(screen.getByText(/lldpctl -f json/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(screen.getByText(/No ports yet/)).toBeInTheDocument();
  });
});

describe('the table of VLANs on the screen', () => {
  const field = (name: string) => screen.getByLabelText(name);
  const write = (name: string, value: string) => fireEvent.change(field(name), { target: { value } });
  const ids = 'VLAN IDs to add or delete';

  it('adds ranges, leaving those that are there', async () => {
    const store = await renderWith(<VlanTable />);
    write(ids, '14-16');
    write('Load of each new VLAN in Mb/s', 'much');
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(screen.getByRole('alert')).toHaveTextContent('A load is a number of Mb/s');
    expect(field(ids)).toHaveValue('14-16');
    write('Load of each new VLAN in Mb/s', '7.5');
    fireEvent.keyDown(field(ids), { key: 'Enter' });
    await settle();
    expect(store.getState().design.vlans.slice(0, 3)).toEqual([
      { id: 14, load: 7.5 },
      { id: 15, name: 'Mount control', load: 120 },
      { id: 16, load: 7.5 },
    ]);
    expect(field(ids)).toHaveValue('');
    write(ids, '15');
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(screen.getByRole('alert')).toHaveTextContent('These are in the list already.');
  });

  it('asks before it deletes, telling what is used, and can be told to keep', async () => {
    const store = await renderWith(<VlanTable />);
    write(ids, '30-99');
    fireEvent.click(screen.getByRole('button', { name: 'Delete' }));
    const ask = screen.getByRole('alertdialog', { name: 'Delete VLAN 35,45,55,65?' });
    expect(ask).toHaveTextContent('VLAN 55: 1 host (Visitor kiosk), 1 access port, 26 trunks');
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(store.getState().design.vlans).toHaveLength(6);
    write(ids, '99');
    fireEvent.click(screen.getByRole('button', { name: 'Delete' }));
    expect(screen.getByRole('alert')).toHaveTextContent('None of these is in the list.');
    write(ids, '65');
    fireEvent.click(screen.getByRole('button', { name: 'Delete' }));
    fireEvent.click(screen.getAllByRole('button', { name: 'Delete' }).at(-1)!);
    await settle();
    expect(store.getState().design.vlans.map((vlan) => vlan.id)).toEqual([15, 25, 35, 45, 55]);
  });

  it('says what to do first', async () => {
    await renderWith(<VlanTable />, designOf({}));
    expect(screen.getByText(/No VLANs are listed yet/)).toBeInTheDocument();
  });
});
