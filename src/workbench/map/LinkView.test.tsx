import { act, fireEvent, render } from '@testing-library/react';
import { commandSchema } from '../../core/edit/commands';
import { fernhollow } from '../../core/demo/demos';
import type { TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { networkOf } from '../../core/testing/networks';
import { StoreProvider } from '../state/context';
import { createWorkbench, type WorkbenchStore } from '../state/store';
import { inlineSolver, noSaver, settle } from '../testing';
import { drawnLink, outlinedOn } from './linkStrands';
import { DrawnLinks } from './testing';

/** Draws every link of a design, as the map does when seen from near. */
async function drawLinks(design: Design = fernhollow()): Promise<WorkbenchStore> {
  const store = createWorkbench(
    { id: 't', revision: 0, design, undo: [], redo: [], damage: null },
    inlineSolver(),
    noSaver,
  );
  store.getState().start();
  render(
    <StoreProvider value={store}>
      <svg>
        <DrawnLinks design={design} />
      </svg>
    </StoreProvider>,
  );
  await settle();
  return store;
}

const link = (id: string) => document.querySelector(`[data-link="${id}"]`)!;
const ends = (id: string) =>
  [...link(id).querySelectorAll('[data-end]')].map(
    (end) => `${end.getAttribute('data-end')} ${end.querySelector('text')?.textContent}`,
  );

const titled = (text: string) =>
  [...document.querySelectorAll('title')].find((title) => title.textContent === text)!.parentElement!;

describe('what stands out on a link', () => {
  it('is a port that reports another neighbour than is drawn, beside the table of neighbours', async () => {
    const store = await drawLinks();
    const { act: edit, setLens, openDrawer, design } = store.getState();
    const [first] = design.links;
    const elsewhere = { switch: 'ridge-a', port: '1', device: 'workshop', devicePort: '9', kind: 'switch' as const };
    act(() => void edit(commandSchema.parse({ do: 'set-observed', observed: [elsewhere] })));
    await settle();
    const outlined = () => outlinedOn(store.getState(), first!);
    expect(outlined()).toEqual([]);
    act(() => {
      setLens('Cable');
      openDrawer('neighbours');
    });
    expect(outlined()).toEqual(['a']);
    act(() => openDrawer('cables'));
    expect(outlined()).toEqual([]);
  });
});

describe('a link on the map', () => {
  it('has a glyph and the letter of the role at each end', async () => {
    await drawLinks();
    expect(ends('l1')).toEqual(['designated D', 'alternate A']);
    expect(ends('l11')).toEqual(['alternate A', 'designated D']);
    expect(ends('l15')).toEqual(['root R', 'designated D']);
  });

  it('carries one strand for each shown tree that runs along it', async () => {
    const store = await drawLinks();
    act(() => store.getState().showTree('vlan:25' as TreeId, 'toggle'));
    expect(ends('l1')).toHaveLength(4);
    expect(ends('l9')).toHaveLength(2); // array-hut's ring does not carry VLAN 25
  });

  it('shows where the last change moved its ends: the letter before and the letter now', async () => {
    const store = await drawLinks();
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 0 })),
    );
    await settle();
    expect(ends('l1')).toEqual(['designated D', 'root A→R']);
    act(() => store.getState().forgetMoved());
    expect(ends('l1')).toEqual(['designated D', 'root R']);
  });

  it('is frayed at a designated end that blocks, since the other end throws away what it says', async () => {
    const names = Array.from({ length: 9 }, (_, i) => `s${i}`);
    await drawLinks(
      networkOf(
        Object.fromEntries(names.map((name) => [name, { timers: { maxAge: 6 } }])),
        names.slice(1).map((name, i) => `s${i} 2 = ${name} 1`),
      ),
    );
    expect(ends('l6')).toEqual(['designated D', 'designated D']);
    // A collar bar is one stroke, a frayed end three.
    const strokes = (id: string) =>
      [...link(id).querySelectorAll('[data-end] > path')].map((path) => path.getAttribute('d')!.split('M').length - 1);
    expect([strokes('l5'), strokes('l6')]).toEqual([
      [1, 1],
      [3, 1],
    ]);
    const width = (id: string) => Number(link(id).querySelector('[stroke-width="3"]:not([data-end] path)') !== null);
    expect([width('l5'), width('l6')]).toEqual([1, 0]);
  });

  it('is marked as cut, with no strand, when it has no signal', async () => {
    const design = fernhollow();
    await drawLinks({ ...design, links: design.links.map((l) => (l.id === 'l1' ? { ...l, up: false } : l)) });
    expect(ends('l1')).toEqual([]);
    expect(link('l1')).toHaveTextContent('cut');
  });

  it('says its speed instead of roles in the Cable view', async () => {
    const store = await drawLinks();
    act(() => store.getState().setLens('Cable'));
    expect(ends('l1')).toEqual([]);
    expect(link('l2').querySelector('text')).toHaveTextContent('1 Gb/s');
  });

  it('is selected by a click on it, and its ends by a click on them', async () => {
    const store = await drawLinks();
    fireEvent.click(titled('ridge-a port 1 to ridge-b port 1, 1 Gb/s'));
    expect(store.getState().selection).toEqual({ kind: 'link', link: 'l1' });
    fireEvent.click(titled('ridge-b port 1: alternate in 15'));
    expect(store.getState().selection).toEqual({ kind: 'port', switch: 'ridge-b', port: '1' });
  });

  it('draws a cable from a switch to itself with its backup end', async () => {
    await drawLinks(networkOf({ a: {} }, ['a 1 = a 2']));
    expect(ends('l0')).toEqual(['designated D', 'backup B']);
  });
});

describe('what a link shows', () => {
  it('is the same as long as the picture is', async () => {
    const store = await drawLinks();
    const [first] = store.getState().design.links;
    const drawn = drawnLink(store.getState(), first!);
    expect(drawn).toEqual({
      dead: false,
      shut: [null, null],
      strands: [
        {
          treeIndex: 1,
          label: '15',
          roles: ['designated', 'alternate'],
          moved: null,
          disputed: [false, false],
          guards: [null, null],
          states: null,
        },
      ],
    });
    act(
      () =>
        void store
          .getState()
          .act(commandSchema.parse({ do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:45', priority: 0 })),
    );
    await settle();
    expect(drawnLink(store.getState(), first!)).toEqual(drawn);
  });
});
