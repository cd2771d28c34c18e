import { act, fireEvent, screen } from '@testing-library/react';
import { CST, type PortId, type SwitchId } from '../../../../core/model/ids';
import { networkOf } from '../../../../core/testing/networks';
import { Drawer } from '../../../shell/Drawer';
import { answeredOn, outlinedOn } from '../../../map/linkStrands';
import { MovedBar } from '../../../map/MovedBar';
import { TreeRail } from '../../../shell/TreeRail';
import { readDraft, saveDraft, withCost, withPort, withRoot } from '../../../state/worksheet';
import { renderWith, settle } from '../../../testing';
import { progressOf } from './FillSheet';
import { WorksheetTable } from './WorksheetTable';
import { sideBySide, solvedOf, viewOf } from '../../../state/revisions';

const triangle = () => networkOf({ a: {}, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']);
const [a, c, p1] = ['a' as SwitchId, 'c' as SwitchId, '1' as PortId];
const choose = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const begin = () => fireEvent.click(screen.getByRole('button', { name: 'Begin' }));

beforeEach(() => sessionStorage.clear());

describe('the worksheet', () => {
  it('hides everything computed until it is compared, and nothing can be changed or looked at meanwhile', async () => {
    const store = await renderWith(
      <>
        <TreeRail />
        <MovedBar />
        <WorksheetTable />
      </>,
      triangle(),
    );
    expect(screen.getByText(/^root a/)).toBeInTheDocument();
    begin();
    expect(store.getState()).toMatchObject({
      solution: null,
      problem: null,
      moved: null,
      shownTrees: [],
      looking: { kind: 'worksheet', tree: CST },
    });
    expect(screen.queryByText(/^root a/)).toBeNull();
    expect(screen.getByText(/Hidden while a worksheet/)).toBeInTheDocument();
    let refused: string | null = null;
    act(() => {
      refused = store.getState().act({ do: 'set-bridge-priority', switch: c, tree: null, priority: 0 });
      store.getState().look(viewOf(sideBySide(solvedOf(triangle(), 0, 'revision 0'), solvedOf(triangle(), 1, 'now'))));
    });
    expect(refused).toContain('A worksheet is open');
    expect(store.getState().looking.kind).toBe('worksheet');
    fireEvent.click(screen.getByRole('button', { name: 'close, keep answers' }));
    expect(screen.getByText(/^root a/)).toBeInTheDocument();
  });

  it('gives nothing away in the drawer', async () => {
    const store = await renderWith(<Drawer />, triangle());
    act(() => store.getState().openWorksheet(CST));
    for (const tab of ['Ports', 'Roots', 'If a root dies', 'Changed ports', 'Findings', 'History']) {
      fireEvent.click(screen.getByRole('tab', { name: tab }));
      expect(screen.getByRole('tabpanel')).toHaveTextContent('Hidden while a worksheet is filled in.');
    }
  });

  it('compares, tells the one wrong answer with its why, keeps the result and marks the end on the map', async () => {
    const store = await renderWith(<WorksheetTable />, triangle());
    begin();
    choose('Root of the common tree', 'a');
    for (const [name, cost] of [
      ['a', '0'],
      ['b', '20 000'],
      ['c', '20000'],
    ])
      choose(`Root path cost of ${name}`, cost!);
    const roles = {
      'a port 1': 'designated',
      'a port 2': 'designated',
      'b port 1': 'root',
      'b port 2': 'designated',
      'c port 1': 'backup',
      'c port 2': 'root',
    };
    for (const [end, role] of Object.entries(roles)) {
      choose(`Role of ${end}`, role);
      choose(`State of ${end}`, role === 'backup' ? 'discarding' : 'forwarding');
    }
    expect(screen.getByRole('status')).toHaveTextContent('16 of 16 answers filled in');
    const [, bc] = store.getState().design.links;
    expect(answeredOn(store.getState(), bc!)).toEqual(['D', 'B']);
    fireEvent.click(screen.getByRole('button', { name: 'Compare' }));
    await settle();
    expect(screen.getByRole('status')).toHaveTextContent('15 of 16 right in the common tree');
    expect(
      screen.getByRole('row', { name: /c port 1 role backup alternate Alternate: both ends/ }),
    ).toBeInTheDocument();
    expect(screen.getAllByRole('row')).toHaveLength(2);
    expect(outlinedOn(store.getState(), bc!)).toEqual(['b']);
    expect(store.getState().design.worksheets).toMatchObject([
      { tree: 'cst', right: 15, of: 16, answers: { root: 'a' } },
    ]);
    expect(store.getState().solution).not.toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'show the right ones too' }));
    expect(screen.getAllByRole('row')).toHaveLength(17);
    fireEvent.click(screen.getByRole('button', { name: 'Close' }));
    expect(screen.getByRole('list', { name: 'Results' })).toHaveTextContent('15 of 16 right in the common tree');
    fireEvent.click(screen.getByRole('button', { name: 'forget them' }));
    await settle();
    expect(store.getState().design.worksheets).toEqual([]);
  });

  it('keeps what was written when it is put aside, and marks a cost that is none', async () => {
    await renderWith(<WorksheetTable />, triangle());
    begin();
    choose('Root path cost of b', '20000');
    choose('Root path cost of b', '20000 or so');
    expect(screen.getByLabelText('Root path cost of b')).toBeInvalid();
    choose('Role of c port 1', 'alternate');
    fireEvent.click(screen.getByRole('button', { name: 'Close, keep answers' }));
    begin();
    expect(screen.getByLabelText('Root path cost of b')).toHaveValue('20000');
    expect(screen.getByLabelText('Role of c port 1')).toHaveValue('alternate');
    expect(screen.getByRole('status')).toHaveTextContent('2 of 16 answers');
  });

  it('says so where there is nothing to work out', async () => {
    const store = await renderWith(<WorksheetTable />, networkOf({ a: { dialect: 'off' } }, []));
    expect(screen.getByText('No switch here runs spanning tree yet.')).toBeInTheDocument();
    act(() => store.getState().openWorksheet(CST));
    expect(screen.getByText(/there is nothing to work out/)).toBeInTheDocument();
  });
});

describe('answers', () => {
  it('change one at a time', () => {
    const answers = withPort(withPort(withCost(withRoot({ switches: {} }, a), c, 7), c, p1, { role: 'root' }), c, p1, {
      state: 'forwarding',
    });
    expect(answers).toEqual({
      root: 'a',
      switches: { c: { rootPathCost: 7, ports: { 1: { role: 'root', state: 'forwarding' } } } },
    });
    expect(
      progressOf(
        [{ switch: c, name: 'c', bridgeId: '', ports: [{ port: p1, cost: 1, inside: false, identifier: '', to: '' }] }],
        answers,
      ),
    ).toEqual({ filled: 4, all: 4 });
  });
  it('are kept for the tab, and what is not ours is let be', () => {
    saveDraft('x', CST, withRoot({ switches: {} }, a));
    expect(readDraft('x', CST)).toEqual({ root: 'a', switches: {} });
    sessionStorage.setItem('knot-path worksheet x cst', '{ broken');
    expect(readDraft('x', CST)).toEqual({ switches: {} });
  });
});
