import { fireEvent, screen } from '@testing-library/react';
import { designOf } from '../../../core/testing/networks';
import { renderWith, settle } from '../../testing';
import { CablingLine } from './CablingLine';

const field = () => screen.getByRole('textbox', { name: 'Quick-cabling line' });
const type = (text: string) => fireEvent.change(field(), { target: { value: text, selectionStart: text.length } });
const press = (key: string, more: object = {}) => fireEvent.keyDown(field(), { key, ...more });

describe('the cabling line', () => {
  it('says what it will do, does it as one step, and remembers the line', async () => {
    const store = await renderWith(<CablingLine />, designOf({}));
    type('a 1 = b 1\nhost desk = a 2 vlan 45');
    expect(screen.getByRole('status')).toHaveTextContent('will add switch a, b');
    expect(screen.getByRole('status')).toHaveTextContent('will cable a port 1 to b port 1');
    fireEvent.click(screen.getByRole('button', { name: 'Do 2 lines' }));
    await settle();
    expect(store.getState().design).toMatchObject({
      switches: [{ id: 'a', position: { x: 0, y: 0 } }, { id: 'b' }],
      links: { length: 1 },
      hosts: { length: 1 },
    });
    expect(store.getState().undoSteps).toHaveLength(1);
    expect(field()).toHaveValue('');
    press('ArrowUp');
    expect(field()).toHaveValue('a 1 = b 1\nhost desk = a 2 vlan 45');
    expect(screen.getByRole('status')).toHaveTextContent('The design has all of this already.');
    press('Enter');
    expect(store.getState().undoSteps).toHaveLength(1);
  });

  it('counts on what the line before did, though the screen still waits for its trees', async () => {
    const store = await renderWith(<CablingLine />, designOf({}));
    for (const text of ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']) {
      type(text);
      press('Enter');
    }
    expect(screen.queryByRole('alert')).toBeNull();
    await settle();
    expect(store.getState().design.links).toHaveLength(3);
  });

  it('points at what is wrong, in its line, and keeps the text', async () => {
    const store = await renderWith(<CablingLine />);
    type('vlan 70\nlodge 9 = attic 1-3');
    expect(screen.getByRole('status')).toHaveTextContent('line 2');
    expect(screen.getByRole('status')).toHaveTextContent('1 ends on the left, 3 on the right');
    expect(screen.getByRole('button', { name: 'Do 2 lines' })).toBeDisabled();
    press('Enter');
    const area = field() as HTMLTextAreaElement;
    expect(area.value.slice(area.selectionStart, area.selectionEnd)).toBe('attic 1-3');
    expect(store.getState().undoSteps).toHaveLength(0);
  });

  it('completes words by Tab, by arrows and Enter, and by clicking', async () => {
    await renderWith(<CablingLine />);
    fireEvent.focus(field());
    type('dome-n');
    press('Tab');
    expect(field()).toHaveValue('dome-north ');
    // At once: whoever types on does not wait for a frame.
    expect((field() as HTMLTextAreaElement).selectionStart).toBe('dome-north '.length);
    type('dome-north 9 = rid');
    press('ArrowDown');
    press('ArrowDown');
    expect(field()).toHaveAttribute('aria-activedescendant', screen.getByRole('option', { name: /ridge-b/ }).id);
    press('Enter');
    expect(field()).toHaveValue('dome-north 9 = ridge-b ');
    type('dome-north 9 = ridge-b 20 tr');
    fireEvent.click(screen.getByRole('option', { name: /trunk/ }));
    expect(field()).toHaveValue('dome-north 9 = ridge-b 20 trunk ');
    press('Escape');
    expect(screen.queryByRole('option')).toBeNull();
  });

  it('takes names with markup and names of 10 000 characters as they are', async () => {
    const store = await renderWith(<CablingLine />, designOf({}));
    type(`switch "<img src=x>"\nswitch "${'n'.repeat(10_000)}"`);
    press('Enter');
    await settle();
    expect(store.getState().design.switches.map((sw) => [sw.id.length <= 200, (sw.name ?? sw.id).length])).toEqual([
      [true, 11],
      [true, 10_000],
    ]);
  });
});
