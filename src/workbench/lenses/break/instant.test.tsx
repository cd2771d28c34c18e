/** The map at an instant of a run: states at the ends, links without signal, BPDUs on their way, who takes itself for a root. */
import { act, render } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import type { TreeId } from '../../../core/model/ids';
import type { Design, Dialect } from '../../../core/model/document';
import { SECOND } from '../../../core/modes/entity';
import { clockOf } from '../../state/clock';
import { StoreProvider } from '../../state/context';
import { createWorkbench } from '../../state/store';
import { inlineRunner, inlineSolver, noSaver, settle } from '../../testing';
import { FillingCollar, fillOf } from '../../map/glyphs/fillingCollar';
import { DrawnLinks, linesOf, plainLine } from '../../map/testing';
import { Pulses } from './Pulses';
import { courseOf } from '../../map/run';

const speaking = (dialect: Dialect): Design => ({
  ...fernhollow(),
  switches: fernhollow().switches.map((sw) => ({ ...sw, dialect })),
});

/** Draws every link and the BPDUs between them, the Break view open on a scenario of the demo. */
async function draw(design: Design, scenario = 'root-link') {
  const store = createWorkbench(
    { id: 't', revision: 0, design, undo: [], redo: [], damage: null },
    inlineSolver(),
    noSaver,
  );
  const clock = clockOf(store, inlineRunner);
  store.getState().start();
  render(
    <StoreProvider value={store}>
      <svg>
        <DrawnLinks design={design} />
        <Pulses lines={linesOf(design)} />
      </svg>
    </StoreProvider>,
  );
  await settle();
  act(() => {
    store.getState().setLens('Break');
    clock.getState().open(design.scenarios.find((each) => each.id === scenario)!);
  });
  for (let i = 0; i < 50 && clock.getState().status.kind !== 'done'; i += 1) await settle();
  return { store, clock, seek: (seconds: number) => act(() => clock.getState().seek(seconds * SECOND)) };
}
const states = (id: string) =>
  [...document.querySelectorAll(`[data-link="${id}"] [data-end]`)].map(
    (end) => `${end.getAttribute('data-end')} ${end.getAttribute('data-state')}`,
  );
const dead = (id: string) => document.querySelector(`[data-link="${id}"] title`)!.textContent.endsWith('no signal');

describe('the map at an instant', () => {
  it('shows roles and states as they are then, and the settled tree again in another lens', async () => {
    const { store, seek } = await draw(speaking('stp'));
    expect(states('l11')).toEqual(['alternate blocking', 'designated forwarding']);
    seek(1);
    expect(states('l11')).toEqual(['root listening', 'designated forwarding']);
    seek(16.5);
    expect(states('l11')).toEqual(['root learning', 'designated forwarding']);
    seek(29.9);
    expect(states('l11')[0]).toMatch(/learning|forwarding|blocking/);
    act(() => store.getState().setLens('Root'));
    expect(states('l11')).toEqual(['alternate null', 'designated null']);
  });
  it('shows a link without signal only while it has none', async () => {
    const { seek } = await draw(speaking('rstp'), 'root-dies');
    const seen = [0, 5, 40].map((t) => {
      seek(t);
      return dead('l13');
    });
    expect(seen).toEqual([false, true, false]);
  });
  it('shows BPDUs on their way where they are few, none where nothing is sent', async () => {
    const { seek, clock } = await draw(speaking('rstp'));
    seek(1.0005);
    const pulses = () => Number(document.querySelector('[data-pulses]')?.getAttribute('data-pulses') ?? 0);
    expect(pulses()).toBeGreaterThan(0);
    const { times } = clock.getState().player!.trace.sent;
    const gap = times.findIndex((t, i) => (times[i + 1] ?? t) - t > 100_000);
    seek((times[gap]! + 50_000) / SECOND);
    expect(pulses()).toBe(0);
  });
  it('knows who takes itself for a root', async () => {
    const { clock, seek } = await draw(speaking('rstp'), 'root-dies');
    const roots = () => {
      const { network, trees } = clock.getState().picture!;
      const tree = trees.find((each) => each.id === ('cst' as TreeId))!;
      return network.switches.filter((_, s) => tree.root[s] === s).map((sw) => sw.id);
    };
    expect(roots()).toEqual(['lodge']);
    seek(5);
    expect(roots()).not.toContain('lodge');
    seek(59);
    expect(roots()).toEqual(['lodge']);
  });

  it('shows nothing of a run while a worksheet is filled in', async () => {
    const { store, seek } = await draw(speaking('rstp'), 'root-dies');
    seek(5);
    expect(dead('l13')).toBe(true);
    act(() => {
      store.getState().openWorksheet('vlan:15' as TreeId);
      store.getState().setLens('Break');
    });
    expect(dead('l13')).toBe(false);
    act(() => store.getState().closeWorksheet());
    expect(dead('l13')).toBe(true);
  });
});

it('a collar fills by thirds on the way to forwarding', () => {
  expect(
    (['discarding', 'listening', 'learning', 'forwarding'] as const).map((state) => Math.round(fillOf(state) * 3)),
  ).toEqual([0, 1, 2, 3]);
  const { to } = courseOf(plainLine('l', { x: 0, y: 0 }, { x: 100, y: 0 }), 0);
  const { container } = render(
    <svg>
      <FillingCollar end={to} fill={1 / 3} colour="black" />
      <FillingCollar end={to} fill={0} colour="black" />
    </svg>,
  );
  expect(container.querySelectorAll('path[fill="black"]')).toHaveLength(1);
});
