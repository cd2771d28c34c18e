/** The drawer's tables as data: neighbours, hosts, VLANs, comparisons. */
import { fireEvent, screen } from '@testing-library/react';
import { act } from 'react';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import type { SwitchId, TreeId } from '../../../core/model/ids';
import { networkOf } from '../../../core/testing/networks';
import { sideBySide, solvedOf, viewOf } from '../../state/revisions';
import { renderWith, settle } from '../../testing';
import { endRows, settingRows } from './ComparisonView';
import { FindingsList } from './FindingsList';
import { hostRows } from '../cable/HostTable';
import { ImportNeighbours, mergedObserved, switchInName } from '../cable/ImportNeighbours';
import { neighbourRows } from '../cable/NeighbourTable';
import { readLoad, readVlans, rowCommand, vlanRows } from './VlanTable';

const demo = fernhollow();

describe('the table of neighbours', () => {
  it('has a row a port, with what is drawn', () => {
    expect(neighbourRows(demo)[0]).toMatchObject({
      switch: 'ridge-a',
      port: '1',
      drawn: 'ridge-b port 1',
      observed: '',
      verdict: '',
      speed: '10 Gb/s',
    });
    expect(neighbourRows(demo).find((row) => row.drawn === 'host Duty desk')).toMatchObject({
      switch: 'ridge-a',
      port: '9',
      carries: 'access 45',
    });
  });
  it('reads files by what is in them, and takes the switch from the file name where it can', () => {
    expect(switchInName('2026-11 ridge-b.json', ['ridge', 'ridge-b', 'lodge'])).toBe('ridge-b');
    expect(switchInName('out.json', ['lodge'])).toBe('');
  });
  it('keeps what other switches reported before', () => {
    const row = (sw: string, device: string) => ({ switch: sw, port: '1', device });
    expect(mergedObserved([row('a', 'x'), row('b', 'y')], [row('A', 'z')])).toEqual([row('b', 'y'), row('A', 'z')]);
  });
  it('imports pasted text, once it is whole', async () => {
    const close = jest.fn();
    const store = await renderWith(<ImportNeighbours close={close} />);
    const take = screen.getByRole('button', { name: 'Compare with the drawing' });
    const paste = async (value: string) => {
      fireEvent.change(screen.getByLabelText('Reported neighbours as text'), { target: { value } });
      await settle();
    };
    await paste('switch,neighbour\na,b');
    expect(screen.getByRole('alert')).toHaveTextContent('The column "port" is missing');
    expect(take).toBeDisabled();
    await paste('{"lldp":{"interface":{"port-1":{"chassis":{"ridge-b":{}}}}}}');
    expect(take).toBeDisabled();
    fireEvent.change(screen.getByLabelText('Switch on which pasted text was printed'), {
      target: { value: 'ridge-a' },
    });
    await settle();
    fireEvent.click(take);
    await settle();
    expect(store.getState().design.observed).toEqual([{ switch: 'ridge-a', port: 'port-1', device: 'ridge-b' }]);
    expect(close).toHaveBeenCalled();
  });
});

describe('hosts and VLANs', () => {
  it('say where a host is and what its VLAN is called', () => {
    expect(hostRows(demo).find((row) => row.name === 'Image store')).toMatchObject({
      vlan: 25,
      vlanName: 'Image capture',
      at: 'ridge-b port 8 and ridge-b port 9',
    });
    expect(hostRows({ ...demo, hosts: [{ ...demo.hosts[0]!, vlan: 77, attach: [] }] })[0]).toMatchObject({
      vlanName: 'not listed',
      at: 'nowhere',
    });
  });
  it('say what uses a VLAN', () => {
    expect(vlanRows(demo).find((row) => row.id === 45)?.uses).toBe(
      '2 hosts (Duty desk, Office desk), 4 access ports, 26 trunks',
    );
    expect(vlanRows(networkOf({ a: {} }, [], {}, { vlans: [{ id: 9 }] }))[0]).toEqual({
      id: 9,
      name: '',
      load: '',
      uses: 'nothing',
      switches: [],
    });
    expect(vlanRows(demo).find((row) => row.id === 45)?.switches).toContain('workshop');
  });
  it('read IDs and loads as typed', () => {
    expect(readVlans('15, 60-62')).toEqual({ ok: true, value: [15, 60, 61, 62] });
    for (const wrong of ['', '5-3', '0', '4095', 'x']) expect(readVlans(wrong).ok).toBe(false);
    expect([readLoad(' '), readLoad('2,5'), readLoad('-1').ok, readLoad('many').ok]).toEqual([
      { ok: true, value: null },
      { ok: true, value: 2.5 },
      false,
      false,
    ]);
  });
  it('turn a changed row into one command', () => {
    const before = { id: 15, name: 'Mount control', load: '120', uses: '' };
    expect(rowCommand(before, before)).toEqual({ ok: true, value: null });
    expect(rowCommand(before, { ...before, name: ' ', load: '5' })).toEqual({
      ok: true,
      value: { do: 'set-vlan', vlan: 15, name: null, load: 5 },
    });
    expect(rowCommand(before, { ...before, load: 'x' }).ok).toBe(false);
  });
});

describe('findings', () => {
  it('say why, lead to their place, and are ended by their remedy', async () => {
    const store = await renderWith(
      <FindingsList />,
      networkOf({ a: { priority: 0, tier: 'core' }, b: { priority: 4096, tier: 'core' } }, ['a 1 = b 1'], {
        'a 1': { speed: 100 },
      }),
    );
    expect(screen.getByRole('listitem')).toHaveTextContent(
      'a port 1 to b port 1: the ends are set to 100 and 1000 Mb/s.The link may not come up',
    );
    fireEvent.click(screen.getByRole('button', { name: 'go there' }));
    expect(store.getState().selection).toEqual({ kind: 'link', link: 'l0' });
    fireEvent.click(screen.getByRole('button', { name: 'set both ends to 1000 Mb/s' }));
    await settle();
    expect(screen.queryByRole('listitem')).toBeNull();
    expect(screen.getByText(/Nothing found/)).toBeInTheDocument();
  });
});

describe('two revisions', () => {
  const edited = editAll(demo, [
    { do: 'set-bridge-priority', switch: 'ridge-a' as SwitchId, tree: 'vlan:15' as TreeId, priority: 4096 },
    { do: 'remove-vlan', vlan: 65 },
  ]);
  const later = edited.ok ? edited.value.design : demo;
  const sides = sideBySide(solvedOf(demo, 0, 'as found'), solvedOf(later, 4, 'now'));
  it('side by side: settings and ends by name', () => {
    expect(settingRows(sides).at(-1)).toMatchObject({
      on: 'ridge-a',
      setting: 'priority in VLAN 15',
      before: 'as for all trees',
      after: '4096',
      item: { kind: 'switch', switch: 'ridge-a' },
    });
    expect(endRows(sides).find((row) => row.switch === 'ridge-b' && row.port === '1')).toMatchObject({
      tree: 'VLAN 15',
      before: 'alternate',
      after: 'root',
    });
  });
  it('the earlier one takes the place of the present one, until someone goes back', async () => {
    const store = await renderWith(<i />, later);
    act(() => store.getState().look(viewOf(sideBySide(sides.after, sides.before))));
    expect(store.getState()).toMatchObject({
      looking: { kind: 'comparison', label: 'as found', revision: 0 },
      design: { vlans: { length: 6 } },
    });
    expect(store.getState().moved?.ends).toHaveLength(10);
    expect(store.getState().act({ do: 'rename-design', name: 'x' })).toContain('This is as found, to look at only');
    store.getState().undo();
    act(() => store.getState().look(null));
    expect(store.getState()).toMatchObject({ looking: { kind: 'present' }, design: later, moved: null });
    act(() => expect(store.getState().restore(0, demo)).toBeNull());
    await settle();
    expect(store.getState().design).toEqual(demo);
    expect(store.getState().undoSteps.at(-1)?.label).toBe('restored revision 0');
    expect(store.getState().restore(0, demo)).toContain('is the same as the present one');
    act(() => store.getState().undo());
    await settle();
    expect(store.getState().design).toEqual(later);
  });
});
