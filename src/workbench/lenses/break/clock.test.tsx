/** The Break view's drawer over the demo, the protocols running in this thread. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import type { HostId, LinkId, PortId, SwitchId } from '../../../core/model/ids';
import { SECOND } from '../../../core/modes/entity';
import { BreakBundle } from '../bundle/BreakBundle';
import { BreakHost, BreakLink, BreakPort, BreakSwitch } from './BreakHere';
import { WhyInstant } from './WhyInstant';
import { clockOf, timeText } from '../../state/clock';
import type { WorkbenchStore } from '../../state/store';
import { renderWith, settle } from '../../testing';
import { ClockTable } from './ClockTable';
import { FramesTable } from './FramesTable';
import { OrderTable } from './OrderTable';
import { OutageTable } from './OutageTable';
import { ReachTable } from './ReachTable';
import { SidesTable } from './SidesTable';
import { durationText } from '../../../core/base/words';

/** Chooses a scenario of the demo and waits for its run. */
async function take(store: WorkbenchStore, id = 'root-link') {
  const clock = clockOf(store);
  act(() => {
    act(() => store.getState().setLens('Break'));
    clock.getState().open(store.getState().design.scenarios.find((each) => each.id === id)!);
  });
  for (let i = 0; i < 50 && clock.getState().status.kind === 'running'; i += 1) await settle();
  expect(clock.getState().status).toEqual({ kind: 'done' });
  return clock;
}
const texts = (label: string) =>
  within(screen.getByRole('list', { name: label }))
    .getAllByRole('listitem')
    .map((item) => item.textContent);

describe('the clock', () => {
  it('says what to do first, then plays what is chosen', async () => {
    const store = await renderWith(<ClockTable />);
    expect(screen.getByText(/Nothing happens yet/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/^Scenario/), { target: { value: 'root-link' } });
    act(() => store.getState().setLens('Break'));
    for (let i = 0; i < 50 && clockOf(store).getState().status.kind !== 'done'; i += 1) await settle();
    expect(screen.getByText(/^settled at 1\.00\d s$/)).toBeTruthy();
    expect(texts('What happens')).toEqual([expect.stringContaining('The link ridge-a port 7 to lodge port 1 is cut')]);
    expect(screen.getByLabelText('Instant').textContent).toBe('0.000 s');
    fireEvent.click(screen.getByRole('button', { name: 'Next change' }));
    expect(screen.getByLabelText('Instant').textContent).toBe('1.000 s');
    const slider = screen.getByRole('slider', { name: 'Time' });
    fireEvent.keyDown(slider, { key: 'End' });
    expect(slider.getAttribute('aria-valuetext')).toBe('30.000 s');
    fireEvent.keyDown(slider, { key: 'ArrowLeft' });
    expect(Number(slider.getAttribute('aria-valuenow'))).toBeLessThan(1.1 * SECOND);
    expect(texts('Rows').some((text) => text.startsWith('ridge-a 6'))).toBe(true);
  });
  it('keeps a scenario under a name with the design, changes it and forgets it', async () => {
    const store = await renderWith(<ClockTable />);
    const clock = clockOf(store);
    act(() => store.getState().setLens('Break'));
    act(() => clock.getState().addAction({ at: 2, do: 'switch-down', switch: 'dome-west' as SwitchId }));
    await settle();
    fireEvent.click(screen.getByRole('button', { name: 'keep with the design' }));
    fireEvent.click(screen.getByRole('button', { name: 'keep it' }));
    expect(screen.getByRole('alert').textContent).toBe('A scenario needs a name.');
    fireEvent.change(screen.getByLabelText('Name of the scenario'), { target: { value: 'A dome goes dark' } });
    fireEvent.click(screen.getByRole('button', { name: 'keep it' }));
    await settle();
    const kept = () => store.getState().design.scenarios.at(-1);
    expect(kept()).toMatchObject({
      name: 'A dome goes dark',
      actions: [{ at: 2, do: 'switch-down', switch: 'dome-west' }],
    });
    fireEvent.change(screen.getByLabelText('Time of action 1 in seconds'), { target: { value: '4' } });
    fireEvent.blur(screen.getByLabelText('Time of action 1 in seconds'));
    fireEvent.click(screen.getByRole('button', { name: 'keep the change' }));
    await settle();
    expect(kept()?.actions[0]?.at).toBe(4);
    fireEvent.click(screen.getByRole('button', { name: 'forget' }));
    await settle();
    expect(kept()?.name).not.toBe('A dome goes dark');
  });
  it('offers the nearest link where that of a scenario is gone, and loses nothing', async () => {
    const store = await renderWith(<ClockTable />);
    const clock = await take(store);
    act(() => void store.getState().act({ do: 'remove-link', link: 'l13' as LinkId }));
    for (let i = 0; i < 20; i += 1) await settle();
    expect(
      screen.getAllByRole('alert').some((alert) => alert.textContent.includes('There is no link l13 any more.')),
    ).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: /^take .* instead$/ }));
    for (let i = 0; i < 50 && clock.getState().status.kind !== 'done'; i += 1) await settle();
    expect(clock.getState().status.kind).toBe('done');
    expect(clock.getState().scenario.actions).toHaveLength(1);
  });
  it('runs again after an edit', async () => {
    const store = await renderWith(<ClockTable />);
    const clock = await take(store);
    const before = clock.getState().player;
    act(() => void store.getState().act({ do: 'set-switch', switch: 'ridge-a' as SwitchId, dialect: 'per-vlan-stp' }));
    for (let i = 0; i < 50 && clock.getState().player === before; i += 1) await settle();
    expect(clock.getState().player).not.toBe(before);
    expect(clock.getState().player!.trace.design.switches[0]!.dialect).toBe('per-vlan-stp');
  });
  it('does not run again where a switch is only moved, or a scenario kept', async () => {
    const store = await renderWith(<ClockTable />);
    const clock = await take(store);
    const before = clock.getState().player;
    act(
      () =>
        void store
          .getState()
          .act({ do: 'move-switches', to: [{ switch: 'lodge' as SwitchId, position: { x: 5, y: 5 } }] }),
    );
    act(() => void store.getState().act({ do: 'forget-scenario', scenario: 'converter' }));
    for (let i = 0; i < 20; i += 1) await settle();
    expect(clock.getState().player).toBe(before);
  });
  it('stops, keeping what it has', async () => {
    const store = await renderWith(<ClockTable />);
    act(() => store.getState().setLens('Break'));
    const clock = clockOf(store);
    act(() => {
      clock
        .getState()
        .open({ ...store.getState().design.scenarios.find((each) => each.id === 'root-dies')!, until: 3600 });
      clock.getState().stop();
    });
    for (let i = 0; i < 100 && clock.getState().status.kind === 'running'; i += 1) await settle();
    expect(clock.getState().status.kind === 'failed' || clock.getState().player?.trace.stopped).toBe(true);
  });
});

describe('pointing', () => {
  it('opens what a guard may shut, bundles and ports with a loop probe too, and no member of a bundle', async () => {
    const plain = fernhollow();
    const design = {
      ...plain,
      switches: plain.switches.map((sw) => ({
        ...sw,
        ports: sw.ports.map((port) =>
          sw.id === 'dome-east' && port.id === '3' ? { ...port, bpduGuard: false, loopProbe: true } : port,
        ),
      })),
    };
    const bundle = (id: string) => <BreakBundle bundle={design.bundles.find((each) => each.id === id)!} />;
    const port = (sw: string, id: string) => <BreakPort id={sw as SwitchId} port={id as PortId} />;
    const store = await renderWith(
      <>
        {bundle('image-store-cards')}
        {bundle('uplinks')}
        {port('dome-east', '3')}
        {port('dome-east', '1')}
        {port('ridge-b', '8')}
      </>,
      design,
    );
    act(() => store.getState().setLens('Break'));
    const buttons = screen.getAllByRole('button', { name: 'Somebody opens it again' });
    expect(buttons).toHaveLength(2);
    for (const button of buttons) fireEvent.click(button);
    await settle();
    const { scenario, problems } = clockOf(store).getState();
    expect(scenario.actions.map((action) => action.do === 'open-port' && action.port)).toEqual([
      'image-store-cards',
      '3',
    ]);
    expect(problems.flat()).toEqual([]);
  });

  it('plugs a stranger in on two cables, and has a host send BPDUs once, in the mode of its switch', async () => {
    const design = { ...fernhollow(), links: fernhollow().links.filter((link) => !['l9', 'l10'].includes(link.id)) };
    const kiosk = design.hosts.find(({ id }) => id === 'visitor-kiosk')!;
    const store = await renderWith(
      <>
        <BreakPort id={'dome-east' as SwitchId} port={'3' as PortId} />
        <BreakHost host={kiosk} />
      </>,
      design,
    );
    act(() => store.getState().setLens('Break'));
    const other = screen.getByLabelText(/^A stranger’s, its other/);
    fireEvent.change(other, { target: { value: '0' } });
    fireEvent.click(screen.getByRole('button', { name: 'It sends BPDUs' }));
    expect(screen.queryByLabelText(/^A small switch, its other/)).toBeNull(); // the port is taken by then
    await settle();
    const { scenario, problems } = clockOf(store).getState();
    expect(problems.flat()).toEqual([]);
    const [stranger, host] = scenario.actions;
    expect(stranger?.do === 'add-switch' && stranger.links.map(({ a }) => a.switch)).toEqual([
      'dome-east',
      'dome-west',
    ]);
    expect(host).toMatchObject({ do: 'host-bpdus', host: kiosk.id, priority: 32_768, dialect: 'per-vlan-rstp' });
    expect(screen.queryByRole('button', { name: 'It sends BPDUs' })).toBeNull();
  });

  it('joins two ports by a small switch without spanning tree', async () => {
    const store = await renderWith(<BreakPort id={'lodge' as SwitchId} port={'6' as PortId} />, fernhollow());
    act(() => store.getState().setLens('Break'));
    const other = screen.getByLabelText(/^A small switch, its other/);
    fireEvent.change(other, { target: { value: '1' } });
    await settle();
    const { scenario, problems } = clockOf(store).getState();
    expect(problems.flat()).toEqual([]);
    const [joined] = scenario.actions;
    if (joined?.do !== 'add-switch') throw new Error('no small switch');
    expect([joined.switch.dialect, joined.links.map(({ a }) => `${a.switch} ${a.port}`)]).toEqual([
      'off',
      ['lodge 6', 'workshop 6'],
    ]);
  });

  it('puts what happens to a link, a switch and a port into the scenario, one after the other', async () => {
    const design = { ...fernhollow(), links: fernhollow().links.filter((link) => !['l9', 'l10'].includes(link.id)) };
    const store = await renderWith(
      <>
        <BreakLink link={design.links[0]!} />
        <BreakSwitch sw={design.switches.find((sw) => sw.id === 'dome-west')!} />
        <BreakPort id={'dome-east' as SwitchId} port={'3' as PortId} />
      </>,
      design,
    );
    act(() => store.getState().setLens('Break'));
    const clock = clockOf(store);
    fireEvent.click(screen.getByRole('button', { name: 'Cut it' }));
    fireEvent.click(screen.getByRole('button', { name: 'ridge-b is no longer heard' }));
    fireEvent.click(screen.getByRole('button', { name: 'Loses power' }));
    fireEvent.click(screen.getByRole('button', { name: 'A new switch is plugged into port 3' }));
    fireEvent.change(screen.getByLabelText('A new cable to'), { target: { value: '0' } });
    fireEvent.change(screen.getByLabelText('Gets path cost'), { target: { value: '77' } });
    fireEvent.keyDown(screen.getByLabelText('Gets path cost'), { key: 'Enter' });
    await settle();
    expect(clock.getState().scenario.actions.map((action) => `${action.at} ${action.do}`)).toEqual([
      '1 link-down',
      '11 one-way',
      '21 switch-down',
      '31 add-switch',
      '41 add-link',
      '51 port-cost',
    ]);
    expect(clock.getState().problems.flat()).toEqual([]);
    expect(screen.queryByRole('button', { name: /A new switch is plugged/ })).toBeNull(); // its port is taken by then
  });
});

describe('what a run is asked', () => {
  it('what it cost: chart and table, and a row leads to its instant', async () => {
    const store = await renderWith(<OutageTable />);
    const clock = await take(store);
    expect(screen.getByRole('status').textContent).toMatch(
      /of 10 directed pairs of hosts were cut off: the longest for 1\.005 ms/,
    );
    expect(screen.getByRole('img', { name: /^Time cut off in all/ })).toBeTruthy();
    expect(clock.getState().player!.trace.outages.length).toBeGreaterThan(0);
  });
  it('the order of events: a sentence seeks and selects', async () => {
    const store = await renderWith(<OrderTable />);
    const clock = await take(store);
    await settle();
    fireEvent.click(screen.getByRole('button', { name: /ridge-a: port 6, alternate until now, is root port/ }));
    expect(clock.getState().t).toBe(SECOND);
    expect(store.getState().selection).toMatchObject({ kind: 'port', switch: 'ridge-a' });
    fireEvent.change(screen.getByLabelText('Filter events'), { target: { value: 'dome-north' } });
    expect(texts('Order of events').every((text) => text.includes('dome-north'))).toBe(true);
  });
  it('who reaches whom, by which way, and where no frame goes', async () => {
    const store = await renderWith(<ReachTable />);
    const clock = await take(store);
    await settle();
    fireEvent.change(screen.getByLabelText('From host'), { target: { value: 'camera-recorder' } });
    fireEvent.change(screen.getByLabelText('To host'), { target: { value: 'image-store' } });
    expect(screen.getByRole('status').textContent).toMatch(
      /^Camera recorder → 6 dome-north 1 → 3 ridge-a 7 → 1 lodge 2 → 7 ridge-b image-store-cards → Image store$/,
    );
    act(() => clock.getState().seek(20 * SECOND));
    await settle();
    expect(screen.getByRole('status').textContent).not.toMatch(/lodge/);
    expect(
      within(screen.getByRole('table', { name: 'Reachability' })).getAllByRole('button', { name: /another way/ }),
    ).toHaveLength(2);
    expect(screen.getByText(/would circle on \d+ links/)).toBeTruthy();
    expect(clock.getState().pair).toEqual({ from: 'camera-recorder' as HostId, to: 'image-store' as HostId });
  });
  it('the frames at a port, and a capture of them', async () => {
    const store = await renderWith(<FramesTable />);
    const clock = await take(store);
    act(() => store.getState().select({ kind: 'link', link: 'l12' as LinkId }));
    await settle();
    await settle();
    expect(screen.getByText(/^\d+ frames?: BPDUs of the trees shown and LACPDUs, on the selected link/)).toBeTruthy();
    const capture = await clock.getState().runner.capture({ kind: 'link', link: 'l12' as LinkId });
    expect(capture.ok && capture.value.length).toBeGreaterThan(200);
  });
  it('side by side with other dialects', async () => {
    const store = await renderWith(<SidesTable />);
    await take(store);
    await settle();
    fireEvent.click(screen.getByRole('button', { name: 'Run it in every mode' }));
    for (let i = 0; i < 100 && !screen.queryByRole('row', { name: /^Per-VLAN rapid/ }); i += 1) await settle();
    const longest = (name: string) =>
      within(screen.getByRole('row', { name: new RegExp(`^${name}`) })).getAllByRole('cell')[0]!.textContent;
    expect([longest('as designed'), longest('RSTP')]).toEqual(['1.005 ms', '1.005 ms']);
    expect(parseFloat(longest('Classic STP')!)).toBeGreaterThanOrEqual(29);
  });
  it('why a port is what it is at the instant shown', async () => {
    const store = await renderWith(<WhyInstant id={'ridge-a' as SwitchId} port={'6' as PortId} />);
    const clock = await take(store);
    act(() => store.getState().showTree(store.getState().solution!.trees[1]!.id, 'alone'));
    await settle();
    expect(screen.getByText(/so from the start/)).toBeTruthy();
    act(() => clock.getState().seek(SECOND));
    await settle();
    await settle();
    expect(screen.getByRole('region', { name: 'At this instant' }).textContent).toMatch(
      /At 1\.000 s.*root, forwarding.*Since 1\.000 s: signal came or went/,
    );
  });
});

it('writes times and lengths of time as people do', () => {
  expect([timeText(0), timeText(1_001_005), timeText(12_500_000)]).toEqual(['0.000 s', '1.001\u202f005 s', '12.500 s']);
  expect([0, 0.001005, 0.0301, 0.82, 31.2, 120.04].map(durationText)).toEqual([
    'none',
    '1.005 ms',
    '30.1 ms',
    '820 ms',
    '31.2 s',
    '120 s',
  ]);
});
