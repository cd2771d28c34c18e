import { act, fireEvent, screen } from '@testing-library/react';
import type { Design } from '../../../core/model/document';
import type * as ControlModule from '../../../core/analysis/sharing/controlPlane';
import type * as LoadModule from '../../../core/analysis/sharing/load';
import type * as Networks from '../../../core/testing/networks';
import { fernhollow } from '../../../core/demo/demos';
import type { LinkId } from '../../../core/model/ids';
import { ok, type Result } from '../../../core/base/result';
import { linkLoads } from '../../../core/analysis/sharing/load';
import { shareTrees, type SharingProposal } from '../../../core/analysis/sharing/share';
import { solutionOf } from '../../../core/testing/networks';
import { askSharing } from '../../state/questions';
import { renderWith, settle } from '../../testing';
import { ControlTable } from './ControlTable';
import { loadRows, loadText, percentText } from '../shared/loadRows';
import { SharingTable, sharingOffer, treesTyped } from './SharingTable';

jest.mock('../../state/questions', () => {
  const core = {
    ...jest.requireActual<typeof LoadModule>('../../../core/analysis/sharing/load'),
    ...jest.requireActual<typeof ControlModule>('../../../core/analysis/sharing/controlPlane'),
    ...jest.requireActual<typeof Networks>('../../../core/testing/networks'),
  };
  const told = <T,>(of: Design, answer: () => T) => ({
    of,
    begin: () => ({ found: Promise.resolve().then(() => ({ ok: true, value: answer() })), stop: () => undefined }),
  });
  return {
    askSharing: jest.fn(),
    askLoads: (design: Design) => told(design, () => core.linkLoads(core.solutionOf(design))),
    askControl: (design: Design) => told(design, () => core.controlCosts(design)),
  };
});
let answer: (found: Result<SharingProposal[], string>) => void;
beforeEach(() => {
  jest.mocked(askSharing).mockReset();
  jest.mocked(askSharing).mockImplementation((of) => ({
    of,
    begin: () => ({ found: new Promise((done) => (answer = done)), stop: () => undefined }),
  }));
});
const solution = solutionOf(fernhollow());
const vlans = (text: string) => treesTyped(solution, text);

describe('the rows of loads', () => {
  it('lists the most loaded first, with its trees, and what it was before', () => {
    const loads = linkLoads(solution);
    const [first, ...rest] = loadRows(fernhollow(), loads, loads);
    expect(first).toMatchObject({
      link: 'ridge-a 7 = lodge 1',
      load: '5.51 Gb/s',
      state: 'carries',
      trees: '25: 5.2 Gb/s, 35: 40 Mb/s, 45: 260 Mb/s, 65: 8.3 Mb/s',
    });
    expect(first!.was).toBe(first!.percent);
    expect(rest.at(-1)).toMatchObject({ percent: 0, state: 'idle' });
  });
  it('tells figures with few digits', () =>
    expect([
      loadText(5507.8),
      loadText(8.333),
      loadText(260),
      percentText(551.2),
      percentText(0.83),
      percentText(0),
    ]).toEqual(['5.51 Gb/s', '8.3 Mb/s', '260 Mb/s', '551 %', '0.8 %', '0 %']));
});

describe('trees to share as typed', () => {
  it('are those of all listed VLANs where nothing is typed', () =>
    expect(vlans('')).toEqual(ok(['vlan:15', 'vlan:25', 'vlan:35', 'vlan:45', 'vlan:55', 'vlan:65'])));
  it('are those of a range', () => expect(vlans('15-35')).toEqual(ok(['vlan:15', 'vlan:25', 'vlan:35'])));
  it.each([
    ['15-', 'at character'],
    ['77', 'No tree has one of these VLANs.'],
  ])('refuses %s with a reason', (text, why) =>
    expect(vlans(text)).toMatchObject({ ok: false, error: expect.stringContaining(why) }),
  );
});

describe('sharing', () => {
  it('names idle links, shares over the uplinks or over the links that are selected, and shows what it brings', async () => {
    const store = await renderWith(<SharingTable />);
    expect(screen.getByText(/^8 links idle/)).toBeInTheDocument();
    expect(screen.getByText(/A VLAN added later .* root lodge, and no link carries it/)).toBeInTheDocument();
    expect(screen.getByText(/over 12 links that lead to a stronger tier/)).toBeInTheDocument();
    act(() =>
      store
        .getState()
        .select({ kind: 'several', items: ['l11', 'l12'].map((link) => ({ kind: 'link', link: link as LinkId })) }),
    );
    fireEvent.change(screen.getByLabelText('Trees to share'), { target: { value: '15-45' } });
    fireEvent.click(screen.getByRole('button', { name: 'Propose ways to share' }));
    const [, trees, links] = jest.mocked(askSharing).mock.calls[0]!;
    expect([trees, links]).toEqual([
      ['vlan:15', 'vlan:25', 'vlan:35', 'vlan:45'],
      ['l11', 'l12'],
    ]);
    const ways = shareTrees(solution, trees, links);
    await act(async () => answer(ways.ok ? ok(ways.value) : ways));
    expect(screen.getAllByRole('listitem')[0]).toHaveTextContent(
      /most loaded link 551 % to \d+ %; of these 0 % to 26 %; idle links 8 to 2; \d+ ports change/,
    );
    fireEvent.click(screen.getByRole('button', { name: 'take it, proposal 1' }));
    await settle();
    expect(store.getState().undoSteps).toHaveLength(1);
    expect(screen.getByText(/^2 links idle/)).toBeInTheDocument();
  });

  it('tells what an offer costs', () => {
    const ways = shareTrees(
      solution,
      solution.trees.map((tree) => tree.id),
      ['l11', 'l12'] as LinkId[],
    );
    expect(ways.ok && sharingOffer(ways.value[0]!).price).toMatch(/ports change$/);
  });
});

describe('the control plane', () => {
  it('compares every dialect and marks the one that is spoken', async () => {
    await renderWith(<ControlTable />);
    expect(screen.getAllByRole('row')).toHaveLength(6);
    expect(screen.getByRole('row', { name: /Per-VLAN rapid, running now 7 61.5/ })).toBeInTheDocument();
    expect(screen.getByRole('row', { name: /MSTP 1 12 / })).toBeInTheDocument();
  });
});
