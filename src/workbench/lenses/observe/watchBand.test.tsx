/** The band of a watch: its time is played as the clock plays a run, and the map shows what was read last at the instant. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import type { WatchView } from '../../../contract/observe';
import { fail, ok } from '../../../core/base/result';
import { fernhollow } from '../../../core/demo/demos';
import { editAll } from '../../../core/edit/edit';
import { eventsBetween } from '../../../core/exchange/observation/watch/events';
import { observedAtRest } from '../../../core/testing/observed';
import { api } from '../../state/api';
import { renderWith, settle } from '../../testing';
import { refreshWatch } from '../../state/watching';
import { WatchBand } from './WatchBand';
import { WatchTable } from './WatchTable';
import { ACTIONS } from '../break/actions';

const START = Date.parse('2026-01-05T10:00:00Z');
const demo = fernhollow();
const link = demo.links.find(({ a, b }) => [a, b].some(({ switch: sw }) => sw === 'dome-north'))!.id;
const cut = editAll(demo, [{ do: 'set-link', link, up: false }]);
if (!cut.ok) throw new Error(cut.error.found);
const readings = [demo, cut.value.design, demo, demo].map((design, i) => ({
  ...observedAtRest(design),
  at: new Date(START + i * 30_000).toISOString(),
}));
const polls = readings.map(({ at }) => Date.parse(at));
const [FIRST, CUT, MENDED, LAST] = polls as [number, number, number, number];
const view: WatchView = {
  ...{ settings: null, credentials: [], trouble: null, kept: 1000, unsent: null },
  ...{ first: FIRST, last: LAST, readings: polls.length, oldest: 1000 },
  events: readings.flatMap((reading, i) =>
    eventsBetween(readings[i - 1] ?? null, reading).map((event, n) => ({ ...event, at: polls[i]!, id: i * 1000 + n })),
  ),
};

beforeEach(() => {
  jest.spyOn(api, 'readingAt').mockImplementation((_, at) => {
    const i = polls.findLastIndex((poll) => poll <= at);
    return Promise.resolve(ok({ observation: readings[i], next: polls[i + 1] ?? null }));
  });
});
afterEach(() => jest.restoreAllMocks());

async function shown() {
  const store = await renderWith(<WatchBand view={view} beside={() => null} />);
  act(() => store.getState().setLens('Observe'));
  await settle();
  /** The moment of the reading on the map, and whether the cable is up in it. */
  const map = () => {
    const { looking } = store.getState();
    if (looking.kind !== 'observed') return null;
    return looking.solution.network.design.links.find(({ id }) => id === link)!.up ? 'whole' : 'cut';
  };
  return { store, map };
}
const slider = () => screen.getByRole('slider', { name: 'Time' });
const key = async (name: string) => {
  fireEvent.keyDown(slider(), { key: name });
  await settle();
};

it('goes from change to change, to the start and the end; the map shows what was read last then', async () => {
  const { store, map } = await shown();
  expect([map(), slider().getAttribute('aria-valuenow')]).toEqual([null, String((LAST - FIRST) * 1000)]);
  const seen = [];
  for (const name of ['ArrowLeft', 'ArrowLeft', 'ArrowLeft', 'Home', 'ArrowRight', 'End']) {
    await key(name);
    seen.push([FIRST + Number(slider().getAttribute('aria-valuenow')) / 1000, map()]);
  }
  expect(seen).toEqual([
    [MENDED, 'whole'],
    [CUT, 'cut'],
    [CUT, 'cut'],
    [FIRST, 'whole'],
    [CUT, 'cut'],
    [LAST, 'whole'],
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'go back to now' }));
  await settle();
  expect(store.getState().looking.kind).toBe('present');
  expect(slider()).toHaveAttribute('aria-valuenow', String((LAST - FIRST) * 1000));
  // A reading that is on the map is not asked for again.
  await key('Home');
  const asked = jest.mocked(api.readingAt).mock.calls.length;
  await key('Home');
  expect(jest.mocked(api.readingAt).mock.calls).toHaveLength(asked);
});

it('leaves the map to the design where it was given back before a reading came', async () => {
  const { store, map } = await shown();
  await key('Home');
  const ways: (() => void)[] = [];
  jest
    .spyOn(api, 'readingAt')
    .mockImplementation(
      () => new Promise((done) => ways.push(() => done(ok({ observation: readings[1], next: MENDED })))),
    );
  await key('ArrowRight');
  act(() => store.getState().look(null));
  await settle();
  expect(ways).toHaveLength(1);
  await act(async () => ways[0]!());
  await settle();
  expect(map()).toBeNull();
});

it('has a lane for each port that changed in the trees shown, and leads to it', async () => {
  const { store } = await shown();
  act(() => store.setState({ shownTrees: ['mst:9' as never] }));
  const lanes = () => within(screen.getByRole('list', { name: 'Rows' })).getAllByRole('listitem');
  const few = lanes().length;
  fireEvent.click(screen.getByRole('checkbox', { name: 'all trees' }));
  expect(lanes().length).toBeGreaterThan(few);
  expect(screen.getByRole('img', { name: /^signal and neighbours: at .*: 2/ })).toBeInTheDocument();
  fireEvent.click(screen.getAllByRole('button', { name: /^dome-north port/ })[0]!);
  expect(store.getState().selection).toMatchObject({ kind: 'port', switch: 'dome-north' });
});

it('tells what came since it was asked last, and what happened before where that is wanted', async () => {
  const all = view.events.map((event, n) => ({ ...event, id: n + 1 }));
  const asked: (number | null | undefined)[] = [];
  let told = all.slice(3, 6);
  jest.spyOn(api, 'reading').mockResolvedValue(fail({ kind: 'unreachable', message: '' } as never));
  jest.spyOn(api, 'watch').mockImplementation((_, after) => {
    asked.push(after);
    return Promise.resolve(ok({ ...view, oldest: 1, events: told }));
  });
  jest
    .spyOn(api, 'earlierEvents')
    .mockImplementation((_, before) => Promise.resolve(ok({ events: all.filter(({ id }) => id < before) })));
  const store = await renderWith(<WatchTable />);
  const rows = () => within(screen.getByRole('table', { name: 'What happened' })).getAllByRole('row').length - 1;
  await act(() => refreshWatch(store.getState().id));
  expect(rows()).toBe(3);
  told = all.slice(6);
  await act(() => refreshWatch(store.getState().id));
  expect([asked, rows()]).toEqual([[null, 6], all.length - 3]);
  fireEvent.click(screen.getByRole('button', { name: 'what happened before' }));
  await settle();
  expect([rows(), screen.queryByRole('button', { name: 'what happened before' })]).toEqual([all.length, null]);
});

it('forgets what was read when it is told so twice', async () => {
  const forgotten = jest.spyOn(api, 'forgetWatch').mockResolvedValue(ok(null));
  jest.spyOn(api, 'reading').mockResolvedValue(fail({ kind: 'unreachable', message: '' } as never));
  const settings = { on: true, source: {}, every: 30, rules: [], webhook: null, syslog: null, days: 1, mib: 1 };
  jest.spyOn(api, 'watch').mockResolvedValue(ok({ ...view, settings: settings as never }));
  const store = await renderWith(<WatchTable />);
  await act(() => refreshWatch(store.getState().id));
  const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
  press('forget what was read');
  expect(screen.getByRole('alert')).toHaveTextContent('4 readings and all events go for good.');
  press('keep them');
  press('forget what was read');
  expect(forgotten).not.toHaveBeenCalled();
  press('forget them');
  await settle();
  expect(forgotten).toHaveBeenCalledTimes(1);
});

it('is played change by change, also by the keys of the clock, and halts where the map is given back', async () => {
  const { store, map } = await shown();
  jest.useFakeTimers();
  const turn = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
  const press = (id: string) => {
    const action = ACTIONS.find((each) => each.id === id)!;
    expect(action.when!(store.getState())).toBe(true);
    act(() => action.run(store.getState()));
  };
  press('clock-play');
  await turn(100);
  expect(map()).toBe('cut'); // from the end it begins at the first change
  await turn(2000);
  expect(map()).toBe('whole');
  await turn(2000);
  expect(screen.queryByRole('button', { name: 'Pause' })).toBeNull();
  press('clock-start');
  await turn(50);
  fireEvent.click(screen.getByRole('button', { name: '×60' }));
  await turn(200);
  fireEvent.click(screen.getByRole('button', { name: 'go back to now' }));
  await turn(3000);
  expect([map(), screen.queryByRole('button', { name: 'Pause' })]).toEqual([null, null]);
  jest.useRealTimers();
});
