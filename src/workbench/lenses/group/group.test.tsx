import { act, fireEvent, screen, within } from '@testing-library/react';
import { fernhollow, valleyStation } from '../../../core/demo/demos';
import type { Command } from '../../../core/edit/commands';
import type { LinkId, RegionId, SwitchId } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import type * as EqualModule from '../../../core/analysis/regions/matching';
import type * as Grouping from '../../../core/analysis/regions/grouping';
import type * as MovingModule from '../../../core/analysis/regions/movingPlan';
import type { MovingKind } from '../../../core/analysis/regions/movingPlan';
import type * as Networks from '../../../core/testing/networks';
import { solutionOf } from '../../../core/testing/networks';
import { regionsIn } from '../../../core/analysis/regions/regions';
import { Inspector } from '../../inspector/Inspector';
import { plainBox, plainLine } from '../../map/testing';
import { bordersBetween, shadesOf } from './RegionOutlines';
import type { WorkbenchStore } from '../../state/store';
import { renderWith, settle } from '../../testing';
import { Board } from './Board';
import { GainTable } from './GainTable';
import { MovingTable } from './MovingTable';
import { RegionsTable } from './RegionsTable';
import { readRegionName, readRevision } from './RegionSection';

/** The worker's answers, in this thread. */
jest.mock('../../state/questions', () => {
  const { groupingGain } = jest.requireActual<typeof Grouping>('../../../core/analysis/regions/grouping');
  const { regionMatches } = jest.requireActual<typeof EqualModule>('../../../core/analysis/regions/matching');
  const { movingGoals, planMoving } = jest.requireActual<typeof MovingModule>(
    '../../../core/analysis/regions/movingPlan',
  );
  const { solutionOf: solved } = jest.requireActual<typeof Networks>('../../../core/testing/networks');
  const told = <T,>(of: Design, answer: () => T) => ({
    of,
    begin: () => ({ found: Promise.resolve().then(answer), stop: () => undefined }),
  });
  return {
    askGrouping: jest.fn(),
    askGain: (design: Design, commands: readonly Command[]) =>
      told(design, () => ({ ok: true, value: groupingGain(design, commands) })),
    askEqual: (design: Design, a: SwitchId, b: SwitchId) => told(design, () => regionMatches(solved(design), a, b)),
    askGoals: (design: Design) => told(design, () => movingGoals(solved(design))),
    askPlan: (design: Design, commands: readonly Command[], kind: MovingKind) =>
      told(design, () => planMoving(solved(design), commands, kind)),
  };
});

const mapOf = (store: WorkbenchStore, id = 'valley') =>
  Object.fromEntries(
    store
      .getState()
      .design.regions.find((region) => region.id === id)!
      .instances.map(({ id: mstid, vlans }) => [mstid, vlans]),
  );
const column = (name: string) => within(screen.getByRole('region', { name }));
const drop = (tag: RegExp, onto: string) => {
  const carried: Record<string, string> = {};
  const dataTransfer = {
    setData: (type: string, value: string) => (carried[type] = value),
    getData: (type: string) => carried[type] ?? '',
  };
  fireEvent.dragStart(screen.getByRole('button', { name: tag }), { dataTransfer });
  fireEvent.drop(screen.getByRole('region', { name: onto }), { dataTransfer });
};

describe('the board', () => {
  it('offers no new instance where a region has as many as there may be', async () => {
    const valley = valleyStation();
    const instances = Array.from({ length: 64 }, (_, i) => ({ id: i + 1, vlans: String(100 + i) }));
    const store = await renderWith(<Board />, {
      ...valley,
      regions: valley.regions.map((region) => (region.id === 'valley' ? { ...region, instances } : region)),
    });
    expect(screen.getByText('64 instances: a region has no more beside the IST')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /to a new instance/ })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Remove instance 7' }));
    await settle();
    expect(screen.getByRole('button', { name: 'to a new instance 7' })).toBeInTheDocument();
    expect(mapOf(store)['8']).toBe('107');
  });
  it('moves a VLAN that is dragged, and all that are picked with it', async () => {
    const store = await renderWith(<Board />, valleyStation());
    drop(/^45 Office/, 'instance 1');
    await settle();
    expect(mapOf(store)).toEqual({ 1: '15,35,45,65,75', 2: '25,55,85' });
    fireEvent.click(screen.getByRole('button', { name: /^25 Image/ }));
    fireEvent.click(screen.getByRole('button', { name: /^85 Guest/ }));
    drop(/^85 Guest/, 'IST');
    await settle();
    expect(mapOf(store)).toEqual({ 1: '15,35,45,65,75', 2: '55' });
    expect(column('IST').getByRole('button', { name: /^25 Image/ })).toBeInTheDocument();
    act(() => store.getState().undo());
    await settle();
    expect(mapOf(store)[2]).toBe('25,55,85');
  });

  it('lays ranges onto an instance or a new one, and keeps what is wrong with the reason', async () => {
    const store = await renderWith(<Board />, valleyStation());
    const field = screen.getByRole('textbox', { name: 'VLANs to assign' });
    fireEvent.change(field, { target: { value: '40-60,4095' } });
    fireEvent.click(screen.getByRole('button', { name: 'Assign' }));
    expect(screen.getByRole('alert')).toHaveTextContent('VLAN 4095 at character 7');
    expect(field).toHaveValue('40-60,4095');
    fireEvent.change(field, { target: { value: '40-60' } });
    fireEvent.change(screen.getByRole('combobox', { name: 'Instance to assign them to' }), { target: { value: '1' } });
    fireEvent.click(screen.getByRole('button', { name: 'Assign' }));
    await settle();
    expect(mapOf(store)).toEqual({ 1: '15,35,40-60,65,75', 2: '25,85' });
    expect(column('instance 1').getByText('also 40-44,46-54,56-60, not listed')).toBeInTheDocument();
    fireEvent.change(field, { target: { value: '85' } });
    fireEvent.click(screen.getByRole('button', { name: 'to a new instance 3' }));
    await settle();
    expect(mapOf(store)[3]).toBe('85');
    fireEvent.click(screen.getByRole('button', { name: 'Remove instance 3' }));
    await settle();
    expect(column('IST').getByRole('button', { name: /^85/ })).toBeInTheDocument();
  });

  it('deals by a rule, and places root and standby of an instance', async () => {
    const store = await renderWith(<Board />, valleyStation());
    fireEvent.change(screen.getByRole('combobox', { name: 'Rule' }), { target: { value: 'turn' } });
    fireEvent.click(screen.getByRole('button', { name: 'Assign all VLANs' }));
    await settle();
    expect(mapOf(store)).toEqual({ 1: '15,35,55,75', 2: '25,45,65,85' });
    const root = screen.getByRole('combobox', { name: 'Root of instance 2' });
    expect(root).toHaveValue('mill-b');
    fireEvent.change(root, { target: { value: 'belfry' } });
    await settle();
    expect(screen.getByRole('combobox', { name: 'Root of instance 2' })).toHaveValue('belfry');
    expect(store.getState().design.switches.find((sw) => sw.id === 'belfry')!.trees).toHaveProperty('mst:2');
    fireEvent.change(screen.getByRole('combobox', { name: 'Standby of instance 2' }), { target: { value: 'weir' } });
    await settle();
    expect(screen.getByRole('combobox', { name: 'Standby of instance 2' })).toHaveValue('weir');
  });

  it('marks a root that chance chose, and pins it', async () => {
    const store = await renderWith(<Board />, valleyStation());
    act(() => void store.getState().act({ do: 'map-vlans', region: 'valley' as RegionId, vlans: '85', instance: 3 }));
    await settle();
    const own = () => screen.getByRole('combobox', { name: 'Root of instance 3' });
    const was = (own() as HTMLSelectElement).value;
    fireEvent.click(screen.getByRole('button', { name: 'Choose it by priority as root of instance 3' }));
    await settle();
    expect(own()).toHaveValue(was);
    expect(screen.queryByRole('button', { name: 'Choose it by priority as root of instance 3' })).toBeNull();
    expect(store.getState().design.switches.find((sw) => (sw.id as string) === was)!.trees).toHaveProperty('mst:3');
  });

  it('says what to do where no switch speaks MSTP', async () => {
    await renderWith(<Board />);
    expect(screen.getByRole('region', { name: 'Board' })).toHaveTextContent('No switch runs MSTP yet');
  });
});

describe('regions', () => {
  it('are listed, and the one that differs is compared field by field and made equal by a click', async () => {
    const store = await renderWith(<RegionsTable />, valleyStation());
    await settle();
    expect(screen.getByRole('row', { name: /^A\. VALLEY 4/ })).toHaveTextContent('6 switches');
    expect(screen.getByRole('combobox', { name: 'First switch' })).toHaveValue('gatehouse');
    expect(screen.getByRole('row', { name: /VLAN 55/ })).toHaveTextContent('instance 1instance 2differs');
    expect(screen.getByText(/gatehouse maps VLAN 55 to instance 1, mill-a to instance 2/)).toBeInTheDocument();
    expect(screen.getByRole('list', { name: 'Proposals' })).toHaveTextContent(
      'regions 2 to 1; links across a boundary 4 to 2; 3 ports change; idle links 4 to 3',
    );
    fireEvent.click(screen.getByRole('button', { name: 'take it, proposal 1' }));
    await settle();
    expect(store.getState().design.switches.find((sw) => sw.id === 'gatehouse')!.region).toBe('valley');
    expect(screen.getByText(/are in one region: name, revision and the whole map agree/)).toBeInTheDocument();
    // What nobody has any more can go.
    fireEvent.click(screen.getByRole('button', { name: 'remove them' }));
    await settle();
    expect(store.getState().design.regions.map((region) => region.id)).toEqual(['valley']);
  });

  it('have their settings in the inspector: separate ones for a switch, bad values refused with a reason', async () => {
    const store = await renderWith(<Inspector />, valleyStation());
    act(() => {
      store.getState().setLens('Group');
      store.getState().select({ kind: 'switch', switch: 'weir' as never });
    });
    const section = within(screen.getByRole('region', { name: 'Region' }));
    const type = (label: string, value: string) => {
      const field = section.getByRole('textbox', { name: label });
      fireEvent.change(field, { target: { value } });
      fireEvent.blur(field);
    };
    type('Instance 1', '15,25');
    expect(section.getByRole('alert')).toHaveTextContent('VLAN 25 is in instance 2 already');
    type('Instance 1', '15,35,65,75');
    type('Name', 'é'.repeat(17));
    expect(section.getByRole('alert')).toHaveTextContent('at most 32 octets (this has 34)');
    type('Name', 'VALLEY');
    fireEvent.click(section.getByRole('button', { name: 'Separate settings for this switch' }));
    await settle();
    type('Revision', '5');
    await settle();
    expect(store.getState().design.regions.map((region) => [region.id, region.revision])).toEqual([
      ['valley', 4],
      ['valley-gatehouse', 4],
      ['valley-2', 5],
    ]);
    expect(section.getByText(/weir has revision 5, the others 4/)).toBeInTheDocument();
    fireEvent.click(section.getByRole('button', { name: /^make equal to/ }));
    await settle();
    expect(store.getState().design.switches.find((sw) => sw.id === 'weir')!.region).toBe('valley');
  });

  it('are given to a selection, which then speaks MSTP', async () => {
    const store = await renderWith(<Inspector />, valleyStation());
    act(() => {
      store.getState().setLens('Group');
      store.getState().select({
        kind: 'several',
        items: [
          { kind: 'switch', switch: 'ferry' as never },
          { kind: 'switch', switch: 'gatehouse' as never },
        ],
      });
    });
    fireEvent.change(
      within(screen.getByRole('region', { name: 'Region' })).getByRole('combobox', { name: 'Settings' }),
      { target: { value: 'valley' } },
    );
    await settle();
    expect(regionsIn(store.getState().solution!.network)).toMatchObject([
      { switches: expect.arrayContaining(['ferry', 'gatehouse']) as string[] },
    ]);
    expect(store.getState().undoSteps).toHaveLength(1);
  });

  it('read names of 32 octets and revisions to 65535', () => {
    expect([
      readRegionName('x'.repeat(32)).ok,
      readRegionName('x'.repeat(33)).ok,
      readRevision('65535').ok,
      readRevision('65536').ok,
      readRevision('').ok,
      readRevision('1.5').ok,
    ]).toEqual([true, false, true, false, false, false]);
  });

  it('are shaded on the map where they are: their switches, and the links between them alone', () => {
    const { network } = solutionOf(valleyStation());
    const lines = network.design.links.map((link) => plainLine(link.id, { x: 0, y: 0 }, { x: 1, y: 1 }));
    const ends = new Map(network.design.links.map((link) => [link.id, [link.a.switch, link.b.switch] as const]));
    const [large, small] = shadesOf(
      regionsIn(network),
      network.switches.map((sw) => plainBox(sw.id)),
      lines,
      (link) => ends.get(link),
    );
    expect([large?.boxes.length, small?.boxes.map((each) => each.id)]).toEqual([6, ['gatehouse']]);
    expect(large?.lines.flatMap(({ link }) => ends.get(link)!)).not.toContain('gatehouse');
    expect(large?.lines.flatMap(({ link }) => ends.get(link)!)).not.toContain('ferry');
    expect([large?.lines.length, small?.lines.length]).toEqual([9, 0]);
  });

  it('say on links between two in which parts of the settings they differ', () => {
    const regions = regionsIn(solutionOf(valleyStation()).network);
    const [inside, outside] = [regions[0]!.switches[0]!, regions[1]!.switches[0]!];
    const label = bordersBetween(regions, () => [inside, outside])('l' as LinkId);
    const [a, b] = [regions[0]!.map.configurationId, regions[1]!.map.configurationId];
    expect(label).toContain('≠ ');
    expect(label!.includes('revision')).toBe(a.revision !== b.revision);
    expect(label!.includes('name')).toBe(a.name !== b.name);
    expect(label!.includes('VLANs')).toBe(a.digest !== b.digest);
    expect(bordersBetween(regions, () => [inside, inside])('l' as LinkId)).toBeNull();
  });
});

it('the gain is told in figures against one tree for all and one tree a VLAN', async () => {
  await renderWith(<GainTable />, valleyStation());
  await settle();
  expect(
    screen.getByRole('figure', { name: 'Trees a switch keeps: one tree for all 1, instances 3, one tree a VLAN 9' }),
  ).toBeInTheDocument();
  expect(
    screen.getByText(
      /9 trees become 3 a switch, and 72 BPDUs a second 14; 4 links idle, 3 would with a tree for each VLAN, 6 with one for all/,
    ),
  ).toBeInTheDocument();
});

it('where no switch speaks MSTP, the gain is that of a grouping that can be chosen', async () => {
  await renderWith(<GainTable />, fernhollow());
  await settle();
  await settle();
  expect(
    screen.getByRole('figure', { name: 'Trees a switch keeps: one tree for all 1, instances 3, one tree a VLAN 7' }),
  ).toBeInTheDocument();
  expect(screen.getByText(/3 links idle instead of 8/)).toBeInTheDocument();
  fireEvent.change(screen.getByRole('combobox', { name: 'Grouping' }), { target: { value: 'keep' } });
  await settle();
  expect(
    screen.getByRole('figure', { name: /^Idle links: one tree for all 8, instances 8, one tree a VLAN 8/ }),
  ).toBeInTheDocument();
});

describe('moving', () => {
  it('lists the steps with what each does to regions and trees, and takes the result over', async () => {
    const store = await renderWith(<MovingTable />, valleyStation());
    await settle();
    await settle();
    const rows = () =>
      within(screen.getByRole('table', { name: 'Migration to MSTP' }))
        .getAllByRole('row')
        .slice(1)
        .map((row) => row.textContent);
    expect(rows()).toEqual([
      expect.stringMatching(/gatehouse: MSTP.*VALLEY: 7 switches; 1 outside/),
      expect.stringMatching(/ferry: MSTP.*The last one.*VALLEY: 8 switches; nobody outside/),
    ]);
    fireEvent.change(screen.getByRole('combobox', { name: 'Order of the switches' }), { target: { value: 'tree' } });
    await settle();
    expect(rows()[0]).toMatch(/Unplug these 6 cables/);
    expect(rows().at(-1)).toMatch(/Plug them in again/);
    fireEvent.click(screen.getByRole('button', { name: 'Take over the result' }));
    await settle();
    await settle();
    expect(screen.getByText(/in one region already: there is nothing to move/)).toBeInTheDocument();
    expect(store.getState().design.switches.every((sw) => sw.dialect === 'mstp' && sw.region === 'valley')).toBe(true);
  });
});
