/** The Bundle view's panels, each on the demo. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import type * as Judge from '../../../core/analysis/plans/judge';
import type { Plan } from '../../../core/analysis/plans/plan';
import type { Design } from '../../../core/model/document';
import type { HostId, LinkId, PortId, SwitchId } from '../../../core/model/ids';
import { Inspector } from '../../inspector/Inspector';
import { bundleSelected, canBundle, removeSelected } from '../../state/editing';
import { networkOf } from '../../../core/testing/networks';
import { clockOf } from '../../state/clock';
import { renderWith, settle } from '../../testing';
import { FlowsTable } from './FlowsTable';
import { ModesTable } from './ModesTable';
import { PlanTable } from './PlanTable';

/** The worker's answer, in this thread. */
jest.mock('../../state/questions', () => {
  const { judgePlan } = jest.requireActual<typeof Judge>('../../../core/analysis/plans/judge');
  return {
    ...jest.requireActual<object>('../../state/questions'),
    askJudged: (of: Design, plan: Plan) => ({
      of,
      begin: () => ({ found: Promise.resolve().then(() => judgePlan(of, plan)), stop: () => undefined }),
    }),
  };
});

type Store = Awaited<ReturnType<typeof renderWith>>;
const link = (id: string) => ({ kind: 'link', link: id as LinkId }) as const;
const port = (sw: string, id: string) => ({ kind: 'port', switch: sw as SwitchId, port: id as PortId }) as const;
const bundled = async (ui: Parameters<typeof renderWith>[0]): Promise<Store> => {
  const store = await renderWith(ui);
  act(() => store.getState().setLens('Bundle'));
  act(() => store.getState().select({ kind: 'several', items: [link('l1'), link('l2')] }));
  act(() => bundleSelected(store.getState()));
  await settle();
  return store;
};
const region = (name: string) => screen.getByRole('region', { name });
const change = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('bundle these', () => {
  it('is offered for one of two links side by side, and says what it will make', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().setLens('Bundle'));
    act(() => store.getState().select(link('l2')));
    await settle();
    expect(region('Bundle these')).toHaveTextContent(
      'a bundle of 2 links: to ridge-b on ridge-a, ports 1, 2; to ridge-a on ridge-b, ports 1, 2',
    );
    fireEvent.click(screen.getByRole('button', { name: 'Bundle these' }));
    await settle();
    expect(store.getState().selection).toEqual(port('ridge-a', 'to-ridge-b'));
    expect(screen.getByRole('heading', { level: 2 })).toHaveTextContent('ridge-a, bundle to ridge-b');
    act(() => removeSelected(store.getState()));
    await settle();
    expect(store.getState().design.bundles.map((bundle) => bundle.id)).not.toContain('to-ridge-b');
  });
  it('says why other links cannot be one', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().setLens('Bundle'));
    act(() => store.getState().select({ kind: 'several', items: [link('l1'), link('l3')] }));
    await settle();
    expect(screen.getByText(/do not all join ridge-a and ridge-b/)).toBeInTheDocument();
    expect(canBundle(store.getState())).toBe(false);
  });
});

describe('the inspector of a bundle', () => {
  it('spells the bits out, and marks what does not fit', async () => {
    await bundled(<Inspector />);
    fireEvent.click(within(region('Members')).getAllByRole('button', { name: 'state bits' })[0]!);
    const bits = screen.getByRole('table', { name: 'State bits' });
    expect(bits).toHaveTextContent('activityspeaks firstspeaks first');
    expect(bits).toHaveTextContent('distributingdistributingdistributing');
    change('Carries', '15,25');
    fireEvent.blur(screen.getByLabelText('Carries'));
    await settle();
    const wrong = () => [...region('Both ends').querySelectorAll('tr[data-wrong]')].map((row) => row.textContent);
    expect(wrong()).toEqual([expect.stringMatching(/^VLANs, does not fittrunk 15,25, native 1trunk 1,15,25/)]);
    fireEvent.click(screen.getByRole('button', { name: 'make ridge-b carry the same VLANs' }));
    await settle();
    expect(wrong()).toEqual([]);
  });
  it('refuses what is out of range, and keeps what was typed', async () => {
    const store = await bundled(<Inspector />);
    for (const [label, typed, fault] of [
      ['Minimum links', '99', 'A number of members is 1 to 64.'],
      ['Key', '70000', 'A key is 0 to 65535.'],
      ['Number', '0', "A bundle's number is 1 to 2047."],
    ]) {
      change(label!, typed!);
      fireEvent.blur(screen.getByLabelText(label!));
      expect(screen.getByText(fault!)).toBeInTheDocument();
      expect(screen.getByLabelText(label!)).toHaveValue(typed);
    }
    expect(store.getState().design.bundles.at(-1)).toMatchObject({ minLinks: 1 });
  });
  it('says what the loss of a member costs and moves', async () => {
    await bundled(<Inspector />);
    fireEvent.click(within(region('If a member is lost')).getByRole('button', { name: 'port 1' }));
    expect(region('If a member is lost')).toHaveTextContent(/cost 1.000 to 2.000; no port changes/);
  });
  it('takes a member down, then all of them', async () => {
    const store = await bundled(<Inspector />);
    fireEvent.click(screen.getAllByRole('button', { name: 'take this member down' })[0]!);
    await settle();
    expect(region('Verdict')).toHaveTextContent('Up: 1 of 2 members active.');
    fireEvent.click(screen.getByRole('button', { name: 'take the whole bundle down' }));
    await settle();
    expect(region('Verdict')).toHaveTextContent('Down: no member has signal.');
    expect(
      store
        .getState()
        .design.links.filter((each) => !each.up)
        .map((each) => each.id),
    ).toEqual(['l1', 'l2']);
    fireEvent.click(screen.getByRole('button', { name: 'bring the whole bundle back' }));
    await settle();
    expect(region('Verdict')).toHaveTextContent('Up: 2 of 2');
  });
  it('of a host is its cards', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'host', host: 'image-store' as HostId }));
    await settle();
    expect(region('Cards')).toHaveTextContent('Up: 2 of 2 members active.');
    change('Together', 'passive');
    await settle();
    expect(region('Cards')).toHaveTextContent('both ends wait for the other to speak');
    change('Together', 'separate');
    await settle();
    expect(store.getState().design.hosts.find((host) => host.id === 'image-store')?.bundle).toBeUndefined();
  });
  it('stands at a member with its LACP settings', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select(port('lodge', '2')));
    await settle();
    expect(region('Member of a bundle')).toHaveTextContent(
      'Uplinks holds what this port carries and costs. Individual: ridge-b port 7',
    );
    change('LACP key', '9');
    fireEvent.blur(screen.getByLabelText('LACP key'));
    await settle();
    expect(store.getState().design.switches.find((sw) => sw.id === 'lodge')?.ports[1]?.lacp).toEqual({
      priority: 32_768,
      key: 9,
    });
  });
});

describe('tables', () => {
  it('the matrix marks the pair of the selected bundle', async () => {
    const store = await bundled(<ModesTable />);
    const now = () => screen.getByRole('table', { name: 'Which modes come up' }).querySelector('[aria-current]');
    expect(now()).toHaveTextContent('comes up');
    act(() => void store.getState().act({ do: 'set-bundle', bundle: 'to-ridge-b' as never, mode: 'static' }));
    await settle();
    expect(now()).toHaveTextContent('one-sided');
    change('Bundle', 'switch uplinks');
    expect(screen.getByText(/lodge is active, ridge-a has no bundle there/)).toBeInTheDocument();
  });
  it('flows between hosts count where they cross the bundle, made-up ones move only from the member that is lost', async () => {
    await bundled(<FlowsTable />);
    expect(screen.getByText(/flows? over 2 of 2 members/)).toHaveTextContent(
      /do not leave lodge here|do not leave ridge-a here/,
    );
    change('Flows', '100');
    change('Lost member', '1');
    const rows = within(screen.getByRole('table', { name: 'Flows by member' }))
      .getAllByRole('row')
      .slice(1);
    expect(rows).toHaveLength(100);
    for (const row of rows) {
      const [, , member, then] = within(row)
        .getAllByRole('cell')
        .map((cell) => cell.textContent);
      expect([member, then]).toEqual([member, '2']);
    }
  });
  it('a plan is simulated, shown step by step, held, played, and taken over', async () => {
    const store = await renderWith(<PlanTable />);
    const rows = () =>
      within(screen.getByRole('table', { name: 'Plan of action' }))
        .getAllByRole('row')
        .slice(1);
    fireEvent.click(screen.getByRole('button', { name: 'Simulate each step' }));
    for (let i = 0; i < 60 && screen.queryAllByText('Nobody is cut off.').length === 0; i += 1) await settle();
    expect(screen.getAllByText('Nobody is cut off.')).toHaveLength(6);
    expect(rows()[2]).toHaveTextContent('Take it backPlug in ridge-a port 1 to ridge-b port 1.');
    expect(screen.getByText(/^On the way, nobody is cut off on the way/)).toBeInTheDocument();

    fireEvent.click(screen.getByRole('button', { name: 'show it, step 2' }));
    await settle();
    expect(store.getState().looking).toMatchObject({ kind: 'loss', label: 'the network after step 2' });
    expect(rows()[1]).toHaveAttribute('data-shown');
    expect(rows()).toHaveLength(6);

    fireEvent.click(screen.getByLabelText('hold after step 3'));
    fireEvent.click(screen.getByRole('button', { name: 'Play it on the timeline' }));
    const clock = clockOf(store);
    expect(store.getState()).toMatchObject({ lens: 'Break', looking: { kind: 'present' } });
    expect(clock.getState().scenario.actions.map(({ do: what }) => what)).toEqual([
      'add-bundle',
      'add-bundle',
      'link-down',
      'bundle-ports',
      'bundle-ports',
      'link-up',
    ]);
    expect(clock.getState().holds).toEqual([
      { t: 30_999_000, text: expect.stringMatching(/^Held after step 3.*Play on when that is so\.$/) as string },
    ]);
    act(() => store.getState().setLens('Bundle'));
    fireEvent.click(screen.getByRole('button', { name: 'Take over the result' }));
    await settle();
    expect(store.getState().design.bundles).toHaveLength(4);
    expect(screen.getByText(/No links run side by side unbundled/)).toBeInTheDocument();
  });
});

describe('a server with two cards', () => {
  const design = networkOf(
    { a: {} },
    [],
    { 'a 7': {}, 'a 8': {} },
    {
      hosts: [
        {
          id: 'server',
          mac: '02:00:00:00:01:01',
          vlan: 1,
          attach: ['7', '8'].map((port) => ({ switch: 'a', port })),
        },
      ],
    },
  );
  it.each([
    ['the host', { kind: 'host', host: 'server' as HostId } as const],
    ['a port of the switch', { kind: 'port', switch: 'a' as SwitchId, port: '7' as PortId } as const],
  ])('is bundled from %s, both ends in one step', async (_, selection) => {
    const store = await renderWith(<Inspector />, design);
    act(() => {
      store.getState().setLens('Bundle');
      store.getState().select(selection);
    });
    await settle();
    fireEvent.click(screen.getByRole('button', { name: 'Bundle cards and ports' }));
    await settle();
    expect(store.getState().undoSteps).toHaveLength(1);
    expect(store.getState().design).toMatchObject({
      hosts: [{ bundle: { mode: 'active' } }],
      bundles: [{ switch: 'a', ports: ['7', '8'], mode: 'active' }],
    });
  });
});
