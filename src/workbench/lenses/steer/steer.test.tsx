/** The tables of the Steer view, and how near a port says it is to flipping. */
import { act, fireEvent, screen } from '@testing-library/react';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import type { LinkId, PortId, SwitchId, TreeId } from '../../../core/model/ids';
import { steerGroups } from '../../../core/analysis/steering/costMatrix';
import { anyDesign, networkOf, solutionOf } from '../../../core/testing/networks';
import fc from 'fast-check';
import { Inspector } from '../../inspector/Inspector';
import { marginText } from '../root/MarginNote';
import { selectionOf } from '../../state/selection';
import { renderWith, settle } from '../../testing';
import { PathTable, pathRows } from './PathTable';
import { compileNetwork } from '../../../core/topology/network';
import { SteerMatrix, steerCommands, steerRows } from './SteerMatrix';
import { tries } from '../../../core/testing/runs';

const demo = fernhollow();
const solution = solutionOf(demo);
const vlan = (vid: number) => `vlan:${vid}` as TreeId;
const ridge7 = { switch: 'ridge-b' as SwitchId, port: '7' as PortId };

describe('ways to the root', () => {
  it('are added up in words', () => {
    const rows = pathRows(solution, [vlan(15)], 'ridge-b' as SwitchId);
    expect(rows[0]).toMatchObject({
      tree: 'VLAN 15',
      taken: 'the way taken',
      way: 'ridge-b 7 › lodge',
      sum: '20\u202f000',
      over: '',
    });
    expect(rows[1]).toMatchObject({
      taken: 'dearer',
      way: 'ridge-b 1 › ridge-a 7 › lodge',
      sum: '2\u202f000 + 20\u202f000',
      total: '22\u202f000',
      over: '+2\u202f000',
    });
    expect(rows.at(-1)).toMatchObject({ way: 'ridge-b 6 › workshop 3 › lodge' });
  });
  it('say what to do first, and that a root has none', async () => {
    const store = await renderWith(<PathTable />);
    expect(screen.getByText(/Select a switch/)).toBeInTheDocument();
    act(() => store.getState().select({ kind: 'switch', switch: 'lodge' as SwitchId }));
    expect(screen.getByText('lodge is the root of VLAN 15: it has no way to go.')).toBeInTheDocument();
    const both = ['ridge-a', 'ridge-b'].map((id) => ({ kind: 'switch', switch: id as SwitchId }) as const);
    act(() => store.getState().select({ kind: 'several', items: both }));
    expect(screen.getByText(/^2 switches are selected; select one of them/)).toBeInTheDocument();
    act(() => store.getState().select({ kind: 'switch', switch: 'ridge-a' as SwitchId }));
    act(() => void store.getState().act({ do: 'set-switch', switch: 'ridge-a' as SwitchId, up: false }));
    await settle();
    expect(screen.getByText('ridge-a has no power: it has no way to go.')).toBeInTheDocument();
  });
});

describe('the table of costs', () => {
  it('holds every tree once, and the value that the solver used', () => {
    fc.assert(
      fc.property(anyDesign, fc.constantFrom('cost' as const, 'priority' as const), (design, setting) => {
        const solved = solutionOf(design);
        const groups = steerGroups(solved, setting);
        expect(groups.flatMap((group) => group.trees).sort()).toEqual(solved.trees.map((tree) => tree.id).sort());
        if (setting === 'cost')
          for (const tree of solved.trees)
            groups
              .find((group) => group.trees.includes(tree.id))!
              .cells.forEach((cell, p) => cell && expect(cell.value).toBe(tree.cost[p]));
      }),
      { numRuns: tries(20) },
    );
    expect(steerRows(solution, steerGroups(solution, 'cost'))).toHaveLength(30);
  });
  it('sets a value on ports in trees, refusing what is not legal with the nearest that is', () => {
    expect(steerCommands(compileNetwork(demo), 'cost', [vlan(15), vlan(25)], [ridge7], '9000')).toMatchObject({
      ok: true,
      value: [{ do: 'set-port-cost', tree: 'vlan:15', cost: 9000 }, { tree: 'vlan:25' }],
    });
    expect(steerCommands(compileNetwork(demo), 'cost', [vlan(15)], [ridge7], '0')).toMatchObject({
      ok: false,
      error: expect.stringContaining('1 to 200000000') as string,
    });
    expect(steerCommands(compileNetwork(demo), 'priority', [vlan(15)], [ridge7], '100')).toMatchObject({
      ok: false,
      error: expect.stringContaining('Nearest: 96 and 112.') as string,
    });
    expect(steerCommands(compileNetwork(demo), 'priority', [vlan(15)], [ridge7], '')).toMatchObject({
      ok: true,
      value: [{ priority: null }],
    });
    const standard = networkOf({ a: {}, b: {} }, ['a 1 = b 1']);
    expect(
      steerCommands(
        compileNetwork(standard),
        'cost',
        ['cst' as TreeId],
        [{ switch: 'a' as SwitchId, port: '1' as PortId }],
        '5',
      ),
    ).toMatchObject({ value: [{ tree: 'cst', cost: 5 }] });
  });
  it('sets both ends of selected links at once, as one step', async () => {
    const store = await renderWith(<SteerMatrix />);
    act(() => store.getState().select(selectionOf([{ kind: 'link', link: 'l1' as LinkId }])));
    fireEvent.change(screen.getByLabelText('Trees in the table'), { target: { value: '15-25' } });
    const field = screen.getByLabelText('New path cost of the selected ports in these trees');
    fireEvent.change(field, { target: { value: 'much' } });
    fireEvent.click(screen.getByText('Set', { selector: 'button' }));
    expect(screen.getByRole('alert')).toHaveTextContent('A path cost is 1 to 200000000');
    expect(field).toHaveValue('much');
    fireEvent.change(field, { target: { value: '700' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    await settle();
    expect(store.getState().undoSteps.map((step) => step.label)).toEqual([
      'cost of ridge-a port 1, ridge-b port 1 in VLANs 15,25: from speed to 700',
    ]);
    fireEvent.click(screen.getByText('port priorities', { selector: 'button' }));
    expect(screen.getByLabelText('New port priority of the selected ports in these trees')).toBeInTheDocument();
  });
});

describe('how near a port is to flipping', () => {
  const flip = (cost: number, role: 'root' | 'alternate', ends: number) => ({
    cost,
    role,
    ends: Array.from({ length: ends }, () => ({}) as never),
  });
  it('is said in a sentence', () => {
    expect(marginText({ cost: 5, role: 'root', below: null, above: flip(2001, 'alternate', 1) })).toBe(
      'From 2\u202f001 on it becomes alternate (1 port changes); no lower cost changes anything.',
    );
    expect(marginText({ cost: 5, role: 'root', below: flip(3, 'root', 2), above: null })).toBe(
      'No higher cost changes anything; from 3 down 2 other ports change.',
    );
    expect(marginText({ cost: 5, role: 'root', below: null, above: null })).toBe('No other cost changes anything.');
  });
  it('stands under the why of a port, and follows the design', async () => {
    const store = await renderWith(<Inspector />);
    act(() => store.getState().select({ kind: 'port', ...ridge7 }));
    expect(await screen.findByText(/From 22 001 on it becomes alternate/)).toBeInTheDocument();
    const edited = editAll(demo, [{ do: 'set-port-cost', ...ridge7, tree: vlan(15), cost: 21_000 }]);
    expect(edited.ok).toBe(true);
    act(() => void store.getState().act({ do: 'set-port-cost', ...ridge7, tree: vlan(15), cost: 21_000 }));
    await settle();
    expect(await screen.findByText('Cost 21 000.')).toBeInTheDocument();
  });
});
