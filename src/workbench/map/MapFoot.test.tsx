import { act, fireEvent, screen } from '@testing-library/react';
import { designOf } from '../../core/testing/networks';
import type { MapControls } from '../state/store';
import { renderWith, settle } from '../testing';
import { MapFoot } from './MapFoot';
import { MovedBar } from './MovedBar';
import { solvedOf } from '../state/revisions';

const controls = () => {
  const called: string[] = [];
  const call = (name: string) => () => void called.push(name);
  const all: MapControls = {
    closer: call('closer'),
    farther: call('farther'),
    whole: call('whole'),
    tidy: (by) => void called.push(`tidy ${by}`),
    places: () => new Map(),
    drawn: () => null,
    middle: () => ({ x: 0, y: 0 }),
  };
  return { called, all };
};
const button = (name: string) => screen.getByRole('button', { name });

describe('below the map', () => {
  it('the view, the layouts and tidying are a click away', async () => {
    const { called, all } = controls();
    const store = await renderWith(<MapFoot />);
    act(() => store.getState().setControls(all));
    for (const name of ['whole map', 'zoom in', 'zoom out']) fireEvent.click(button(name));
    expect(button('as placed')).toHaveAttribute('aria-pressed', 'true');
    fireEvent.click(button('hung from root'));
    expect(store.getState().layout).toBe('hung');
    expect(screen.getByLabelText('letters on the map')).toHaveTextContent('Rroot port');
    act(() => store.getState().setLens('Cable'));
    fireEvent.click(button('tidy by tier'));
    fireEvent.click(button('tidy by root'));
    expect(called).toEqual(['whole', 'closer', 'farther', 'tidy tier', 'tidy root']);
  });

  it('nothing can be tidied or hung where nothing is', async () => {
    const store = await renderWith(<MapFoot />, designOf({}));
    act(() => store.getState().setLens('Cable'));
    for (const name of ['tidy by tier', 'tidy by root', 'hung from root']) expect(button(name)).toBeDisabled();
  });
});

describe('the legend', () => {
  it('lists the signs of the view that is open, and those that a view adds', async () => {
    const store = await renderWith(<MapFoot Signs={() => <li>added by the view</li>} />);
    fireEvent.click(button('legend'));
    const signs = await screen.findByRole('list', { name: 'Signs on the map' });
    for (const sign of ['knot: root', 'untied loop: standby', 'frayed end, A or B', 'open band', 'added by the view'])
      expect(signs).toHaveTextContent(sign);
    expect(signs).not.toHaveTextContent('listening');
    act(() => store.getState().setLens('Break'));
    expect(signs).toHaveTextContent('collar a third full: listening');
    act(() => store.getState().setLens('Cable'));
    expect(signs).not.toHaveTextContent('knot');
    expect(signs).toHaveTextContent('thick cable: 10 Gb/s');
    fireEvent.keyDown(signs, { key: 'Escape' });
    expect(screen.queryByRole('list', { name: 'Signs on the map' })).toBeNull();
  });
});

describe('above the map', () => {
  it('an earlier revision is told, with the way back', async () => {
    const store = await renderWith(<MovedBar />);
    const { design } = store.getState();
    act(() => store.getState().look({ kind: 'revision', ...solvedOf(design, 3, 'revision 3'), moved: null }));
    expect(screen.getByRole('status')).toHaveTextContent('Looking at revision 3; nothing can be changed here.');
    fireEvent.click(button('go back to now'));
    expect(store.getState().looking).toEqual({ kind: 'present' });
  });

  it('a change of many things is told in one line, cut where it is long', async () => {
    const store = await renderWith(<MovedBar />);
    const name = 'n'.repeat(10_000);
    act(() => void store.getState().act({ do: 'rename-design', name }));
    await settle();
    expect(screen.getByRole('status').textContent!.length).toBeLessThan(300);
    expect(screen.getByRole('status')).toHaveTextContent('…: no port changed its role');
    fireEvent.click(button('more'));
    expect(screen.getByRole('status').textContent!.length).toBeGreaterThan(3000);
    fireEvent.click(button('less'));
    expect(screen.getByRole('status').textContent!.length).toBeLessThan(300);
  });
});
