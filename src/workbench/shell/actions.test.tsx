import { selectionText } from '../state/selectionText';
import { fireEvent, screen } from '@testing-library/react';
import { act } from 'react';
import { fernhollow } from '../../core/demo/demos';
import { copyBlock } from '../../core/edit/block';
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import { KeySheet } from './KeySheet';
import { Palette, matchingOffers, offersOf } from './Palette';
import { itemsOf, selectionOf, toggled, type Item } from '../state/selection';
import { renderWith, settle } from '../testing';
import { ACTIONS, actionFor } from './actions';
import { copiedText, pasteText, removalOf, roomFor } from '../state/editing';

const sw = (id: string): Item => ({ kind: 'switch', switch: id as SwitchId });
const link = (id: string): Item => ({ kind: 'link', link: id as LinkId });
const port = (id: string, label: string): Item => ({ kind: 'port', switch: id as SwitchId, port: label as PortId });
const press = (key: string, more: object = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  shiftKey: false,
  altKey: false,
  ...more,
});

describe('actions', () => {
  it('have names and keys of their own', () => {
    const keys = ACTIONS.flatMap((action) => action.keys ?? []);
    expect(new Set(keys).size).toBe(keys.length);
    expect(new Set(ACTIONS.map((action) => action.id)).size).toBe(ACTIONS.length);
  });

  it('are found by their keys where they can be done', async () => {
    const store = await renderWith(<i />);
    const found = (key: string, more?: object) => actionFor(press(key, more), store.getState())?.id ?? null;
    expect([
      found('?', { shiftKey: true }),
      found('/'),
      found('+', { shiftKey: true }),
      found('H', { shiftKey: true }),
      found('Z', { ctrlKey: true }),
    ]).toEqual(['keys', 'line', 'closer', null, null]);
    expect([found('h'), found('k', { metaKey: true }), found('k'), found('x'), found('h', { altKey: true })]).toEqual([
      'hang',
      'palette',
      null,
      null,
      null,
    ]);
    act(() => store.getState().select(link('l1')));
    expect([found('x'), found('o'), found('Delete')]).toEqual(['cut', null, 'remove']);
  });

  it('cut and restore, switch off and on, remove, each as one step', async () => {
    const store = await renderWith(<i />);
    const run = async (id: string) => {
      act(() => ACTIONS.find((action) => action.id === id)!.run(store.getState()));
      await settle();
    };
    const up = () =>
      store
        .getState()
        .design.links.slice(0, 2)
        .map((each) => each.up);
    act(() => store.getState().select(selectionOf([link('l1'), link('l2'), sw('lodge')])));
    await run('cut');
    expect(up()).toEqual([false, false]);
    await run('cut');
    expect(up()).toEqual([true, true]);
    await run('power');
    expect(store.getState().design.switches.find((each) => each.id === 'lodge')?.up).toBe(false);
    expect(store.getState().solution?.trees[1]?.root).not.toContain(7);
    await run('remove');
    expect([
      store.getState().design.links.length,
      store.getState().design.switches.length,
      store.getState().selection,
    ]).toEqual([10, 7, null]);
    await run('undo');
    expect(store.getState().design).toMatchObject({ links: { length: 15 }, switches: { length: 8 } });
    await run('all');
    expect(itemsOf(store.getState().selection)).toHaveLength(8);
    await run('root');
    expect(selectionText(store.getState())).toBe('switch workshop');
  });

  it('say what is selected', async () => {
    const store = await renderWith(<i />);
    const said = (...items: Item[]) => {
      act(() => store.getState().select(selectionOf(items)));
      return selectionText(store.getState());
    };
    expect(said()).toBe('');
    expect(said(port('ridge-b', '1'))).toBe('ridge-b port 1, to ridge-a port 1, alternate in VLAN 15');
    expect(said(link('l1'))).toBe('link from ridge-a port 1 to ridge-b port 1');
    expect(said({ kind: 'host', host: 'duty-desk' as never })).toBe('host Duty desk');
    expect(said(link('l1'), sw('lodge'))).toBe('2 things selected, 1 of them switches');
  });
});

describe('removing', () => {
  it('does not ask twice for what goes with something else', async () => {
    const store = await renderWith(<i />);
    act(() =>
      store
        .getState()
        .select(
          selectionOf([
            link('l1'),
            sw('ridge-a'),
            port('ridge-a', '2'),
            port('lodge', '3'),
            { kind: 'host', host: 'duty-desk' as never },
          ]),
        ),
    );
    expect(removalOf(store.getState()).map((command) => command.do)).toEqual([
      'remove-host',
      'remove-port',
      'remove-switch',
    ]);
    expect(store.getState().act(...removalOf(store.getState()))).toBeNull();
  });
});

describe('copying', () => {
  it('pastes beside what is there and selects it; anything else on the clipboard is refused in words', async () => {
    const store = await renderWith(<i />);
    expect(copiedText(store.getState())).toBeNull();
    act(() => store.getState().select(selectionOf([sw('lodge'), sw('workshop')])));
    const text = copiedText(store.getState())!;
    act(() => expect(pasteText(store.getState(), text)).toBeNull());
    await settle();
    act(() => store.getState().select(toggled(store.getState().selection, sw('lodge'))));
    expect(itemsOf(store.getState().selection)).toEqual([sw('workshop-2'), sw('lodge-2'), sw('lodge')]);
    expect(pasteText(store.getState(), 'dome-1 = dome-2')).toBe(
      'The clipboard holds no block of switches that was copied in Knot Path.',
    );
    const block = copyBlock(fernhollow(), new Set(['lodge' as SwitchId]))!;
    const taken = fernhollow().switches.map((each) => each.position!);
    const by = roomFor(block, taken);
    for (const other of taken)
      expect(
        Math.abs(block.switches[0]!.position!.x + by.x - other.x) >= 200 ||
          Math.abs(block.switches[0]!.position!.y + by.y - other.y) >= 120,
      ).toBe(true);
  });
});

describe('the palette', () => {
  it('finds actions and objects by parts of their names', async () => {
    const store = await renderWith(<Palette />);
    const offers = offersOf(store.getState());
    const names = (text: string) => matchingOffers(offers, text).map((offer) => offer.name);
    expect(names('dome').slice(0, 3)).toEqual(['dome-north', 'dome-east', 'dome-west']);
    expect(names('tidy')).toEqual(['Tidy the map by tier', 'Tidy the map by distance from the root']);
    expect(names('visitor')).toEqual(['Visitor kiosk', 'Tree of VLAN 55 Visitors', 'VLAN 55 Visitors']);
    expect(names('lodge port 3')).toEqual(['lodge port 3']);
    expect(names('nothing at all like it')).toEqual([]);
    act(() => store.getState().openDialog('palette'));
    const field = screen.getByRole('combobox');
    fireEvent.change(field, { target: { value: 'ridge-b' } });
    fireEvent.keyDown(field, { key: 'ArrowDown' });
    fireEvent.keyDown(field, { key: 'ArrowUp' });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(store.getState()).toMatchObject({
      dialog: null,
      selection: { kind: 'switch', switch: 'ridge-b' },
      sight: { item: { switch: 'ridge-b' } },
    });
  });

  it('is beside a sheet of all keys', async () => {
    const store = await renderWith(<KeySheet />);
    act(() => store.getState().openDialog('keys'));
    for (const action of ACTIONS.filter((each) => each.keys))
      expect(screen.getByRole('dialog')).toHaveTextContent(action.name);
  });
});
