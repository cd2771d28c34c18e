import type { LiveEvent, Presence } from '../contract/api';
import { createLive } from './live';

const at = (window: string, more: Partial<Presence> = {}): Presence => ({
  window,
  design: 'd',
  lens: 'Root',
  at: null,
  leave: false,
  ...more,
});

describe('who looks where', () => {
  it('is told to every stream when it changes, with a letter for each window of a design', () => {
    const live = createLive();
    const heard: LiveEvent[] = [];
    live.watch((event) => heard.push(event));
    expect(live.look(at('one'), 0).map(({ name }) => name)).toEqual(['A']);
    expect(live.look(at('two', { at: 'switch lodge' }), 0)).toMatchObject([
      { name: 'A' },
      { name: 'B', at: 'switch lodge' },
    ]);
    live.look(at('two', { at: 'switch lodge' }), 1000); // nothing new
    expect(heard).toHaveLength(2);
    live.look(at('one', { leave: true }), 2000);
    expect(heard.at(-1)).toMatchObject({ kind: 'here', design: 'd', windows: [{ window: 'two', name: 'B' }] });
    expect(live.look(at('three'), 3000).map(({ name }) => name)).toEqual(['B', 'A']);
    expect(live.look(at('elsewhere', { design: 'e' }), 3000).map(({ name }) => name)).toEqual(['A']);
  });

  it('forgets a window that is not heard of any more', () => {
    const live = createLive();
    live.look(at('one'), 0);
    expect(live.look(at('two'), 60_000)).toMatchObject([{ window: 'two' }]);
  });

  it('tells of revisions until a stream ends, and has no more streams than it can serve', () => {
    const live = createLive();
    const heard: LiveEvent[] = [];
    const end = live.watch((event) => heard.push(event));
    live.revised('d', 3);
    end?.();
    live.revised('d', 4);
    expect(heard).toEqual([{ kind: 'revision', design: 'd', revision: 3 }]);
    const streams = Array.from({ length: 501 }, () => live.watch(() => undefined));
    expect([streams[499] === null, streams[500] === null]).toEqual([false, true]);
  });
});
