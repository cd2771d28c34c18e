import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import type { HistoryEntry } from '../../../contract/api';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import type { SwitchId } from '../../../core/model/ids';
import { leanDesign } from '../../../core/model/derive/write';
import { api } from '../../state/api';
import { revisionName } from '../../state/revisions';
import { renderWith, settle } from '../../testing';
import { HistoryTable } from './HistoryTable';

jest.mock('../../state/api', () => ({ api: { history: jest.fn(), documentAt: jest.fn(), nameBaseline: jest.fn() } }));
const server = jest.mocked(api);

const demo = fernhollow();
const edited = editAll(demo, [{ do: 'set-switch', switch: 'lodge' as SwitchId, up: false }]);
const now = edited.ok ? edited.value.design : demo;
const entries: HistoryEntry[] = [
  { number: 2, label: 'lodge: switched off', at: 2000, baseline: null },
  { number: 1, label: 'name: <b>old</b>', at: 1000, baseline: null },
  { number: 0, label: 'as created', at: 0, baseline: 'As found' },
];

/** The history that the server has. */
let there = entries;

beforeEach(() => {
  there = entries;
  server.history.mockReset();
  server.history.mockImplementation((_, { after = -1, before = Infinity, most = Infinity } = {}) =>
    Promise.resolve({
      ok: true,
      value: { entries: there.filter(({ number }) => number > after && number < before).slice(0, most) },
    }),
  );
  server.documentAt.mockResolvedValue({ ok: true, value: { document: leanDesign(demo) } });
  server.nameBaseline.mockResolvedValue({ ok: true, value: null });
});

// jsdom gives the grid no height, so it draws no rows: the tests look at what stands around it and at the store.
async function opened() {
  const store = await renderWith(<HistoryTable />, now);
  await screen.findByText('3 revisions');
  return store;
}

describe('the history', () => {
  it('is fetched on after each save, and says when it cannot be', async () => {
    const store = await opened();
    expect(server.history).toHaveBeenCalledWith('test', { most: 100 });
    there = [{ number: 3, label: 'name: to Other', at: 3000, baseline: null }, ...entries];
    act(() => void store.getState().act({ do: 'rename-design', name: 'Other' }));
    await settle();
    expect(server.history.mock.calls.at(-1)).toEqual(['test', { after: 2 }]);
    expect(screen.getByText('4 revisions')).toBeInTheDocument();
    server.history.mockResolvedValue({
      ok: false,
      error: { status: 0, message: 'The server does not answer.', details: [] },
    });
    act(() => void store.getState().act({ do: 'rename-design', name: 'Another' }));
    await waitFor(() => expect(screen.getByRole('alert')).toHaveTextContent('The server does not answer.'));
  });

  it('shows the newest part at once, and the rest after it', async () => {
    there = Array.from({ length: 260 }, (_, n) => ({ number: 259 - n, label: 'x', at: 1, baseline: null }));
    await renderWith(<HistoryTable />, now);
    expect(await screen.findByText('260 revisions')).toBeInTheDocument();
    expect(server.history.mock.calls.map(([, part]) => part)).toEqual([{ most: 100 }, { before: 160 }]);
  });

  it('is filtered by words', async () => {
    await opened();
    fireEvent.change(screen.getByLabelText('Filter revisions'), { target: { value: 'switched' } });
    expect(await screen.findByText('1 of 3 revisions')).toBeInTheDocument();
  });

  it('calls a revision by its number and its baseline', () => {
    expect([revisionName(4, null), revisionName(0, 'As found')]).toEqual(['revision 4', 'revision 0, As found']);
  });
});
