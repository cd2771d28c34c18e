/** What LACP settles to: which members are taken, by whom, and why the others are not. */
import fc from 'fast-check';
import { BUNDLE_MODES, type BundleMode, type Design } from '../../model/document';
import { bundledDesign } from '../../testing/bundles';
import { networkOf } from '../../testing/networks';
import { bundlesOf } from './ends';
import { modePair } from './modes';
import { settleBundles } from './settled';
import { viewBundles } from './view';
import { tries } from '../../testing/runs';

const two = ['a 1 = b 1', 'a 2 = b 2'];
const pair = (
  a: object,
  b: object | null,
  cables: readonly string[] = two,
  ports: Parameters<typeof networkOf>[2] = {},
  switches: Parameters<typeof networkOf>[0] = { a: {}, b: {} },
): Design =>
  networkOf(switches, cables, ports, {
    bundles: [
      { id: 'at-a', switch: 'a', number: 1, ports: cables.map((_, i) => String(i + 1)), ...a },
      ...(b ? [{ id: 'at-b', switch: 'b', number: 7, ports: cables.map((_, i) => String(i + 1)), ...b }] : []),
    ],
  });
const states = (design: Design, id = 'at-a') =>
  Object.values(viewBundles(design).find((bundle) => bundle.id === id)!.members)
    .map((member) => member.state)
    .join(' ');
const view = (design: Design, id = 'at-a') => viewBundles(design).find((bundle) => bundle.id === id)!;

describe('pairs of modes', () => {
  const pairs = BUNDLE_MODES.flatMap((a) => BUNDLE_MODES.map((b) => [a, b] as const));
  it.each(pairs)('%s with %s is as the matrix has it', (a, b) => {
    const design = pair({ mode: a }, { mode: b });
    const up = [view(design).up, view(design, 'at-b').up];
    const { outcome } = modePair(a, b);
    expect(
      outcome === 'up' ? up.every(Boolean) : outcome === 'down' ? !up.some(Boolean) : up.filter(Boolean).length === 1,
    ).toBe(true);
  });
  it('come up as the trade has it: one active end is enough, passive with passive never, static with static alone', () => {
    expect(
      [
        modePair('active', 'active'),
        modePair('active', 'passive'),
        modePair('static', 'static'),
        modePair('initiate', 'answer'),
      ].map(({ outcome }) => outcome),
    ).toEqual(['up', 'up', 'up', 'up']);
    expect(
      [
        modePair('passive', 'passive'),
        modePair('answer', 'answer'),
        modePair('active', 'initiate'),
        modePair('active', 'none'),
      ].map(({ outcome }) => outcome),
    ).toEqual(['down', 'down', 'down', 'down']);
    expect(
      [modePair('static', 'active'), modePair('static', 'none'), modePair('passive', 'static')].map(
        ({ outcome }) => outcome,
      ),
    ).toEqual(['one-sided', 'one-sided', 'one-sided']);
  });
  it('say of two passive ends why neither comes up', () => {
    const design = pair({ mode: 'passive' }, { mode: 'passive' });
    expect(view(design)).toMatchObject({
      up: false,
      reason: expect.stringContaining('both ends wait for the other to speak'),
    });
    expect(states(design)).toBe('individual individual');
  });
});

describe('members', () => {
  it('tell their partners what the standard has in an LACPDU', () => {
    const { members } = view(
      pair(
        { timeout: 'fast' },
        { mode: 'passive', key: 300 },
        two,
        { 'b 1': { lacp: { priority: 5 } } },
        { a: { lacp: { systemPriority: 100 } }, b: {} },
      ),
    );
    expect(members['1']).toMatchObject({
      state: 'active',
      actor: {
        system: '02:00:00:00:00:01',
        systemPriority: 100,
        key: 1,
        port: 1,
        portPriority: 32_768,
        bits: ['activity', 'timeout', 'aggregation', 'synchronization', 'collecting', 'distributing'],
      },
      partner: {
        system: '02:00:00:00:00:02',
        systemPriority: 32_768,
        key: 300,
        port: 1,
        portPriority: 5,
        bits: ['aggregation', 'synchronization', 'collecting', 'distributing'],
      },
    });
  });
  it('stay out whose cable leads to another system, another key, or has another speed', () => {
    const three = networkOf(
      { a: {}, b: {}, c: {} },
      ['a 1 = b 1', 'a 2 = b 2', 'a 3 = c 1'],
      {},
      {
        bundles: [
          { id: 'at-a', switch: 'a', number: 1, ports: ['1', '2', '3'] },
          { id: 'at-b', switch: 'b', number: 1, ports: ['1', '2'] },
          { id: 'at-c', switch: 'c', number: 1, ports: ['1'] },
        ],
      },
    );
    expect(states(three)).toBe('active active standby');
    expect(view(three).members['3']!.reason).toContain('its cable leads to c');
    expect(states(three, 'at-c')).toBe('waiting');
    const keys = networkOf(
      { a: {}, b: {} },
      ['a 1 = b 1', 'a 2 = b 2', 'a 3 = b 3'],
      {},
      {
        bundles: [
          { id: 'at-a', switch: 'a', number: 1, ports: ['1', '2', '3'] },
          { id: 'at-b', switch: 'b', number: 1, ports: ['1', '2'] },
          { id: 'more', switch: 'b', number: 2, ports: ['3'] },
        ],
      },
    );
    expect(states(keys)).toBe('active active standby');
    expect(view(keys).members['3']!.reason).toContain('has key 2');
    const cables = ['a 1 = b 1', 'a 2 = b 2', 'a 3 = b 3'];
    expect(states(pair({}, {}, cables, { 'a 2': { speed: 100 }, 'b 2': { speed: 100 } }))).toBe(
      'active standby active',
    );
    expect(states(pair({}, {}, cables, { 'a 3': { lacp: { key: 9 } } }))).toBe('active active standby');
  });
  it('a lone odd cable does not take the others down, even on the best port', () => {
    const design = networkOf(
      { a: {}, b: {}, c: {} },
      ['a 1 = c 1', 'a 2 = b 2', 'a 3 = b 3'],
      {},
      {
        bundles: [
          { id: 'at-a', switch: 'a', number: 1, ports: ['1', '2', '3'] },
          { id: 'at-b', switch: 'b', number: 1, ports: ['2', '3'] },
          { id: 'at-c', switch: 'c', number: 1, ports: ['1'] },
        ],
      },
    );
    expect(states(design)).toBe('standby active active');
  });
  it('beyond the most stand by, in the order of the better system', () => {
    const cables = Array.from({ length: 10 }, (_, i) => `a ${i + 1} = b ${10 - i}`);
    // a has the lower MAC: its own port numbers count.
    expect(states(pair({}, {}, cables))).toBe(
      'active active active active active active active active standby standby',
    );
    const theirs = pair({}, {}, cables, {}, { a: {}, b: { lacp: { systemPriority: 1 } } });
    expect(states(theirs)).toBe('standby standby active active active active active active active active');
    expect(view(theirs).members['1']!.reason).toContain('which has the better system identifier');
    expect(
      states(pair({ maxActive: 2 }, {}, cables, { 'a 10': { lacp: { priority: 1 } } }))
        .split(' ')
        .flatMap((state, i) => (state === 'active' ? [i + 1] : [])),
    ).toEqual([1, 10]);
  });
  it('too few for the minimum take the bundle down, at both ends', () => {
    const design = pair({ minLinks: 2 }, {}, two, { 'a 2': { up: false } });
    expect([view(design).up, view(design, 'at-b').up]).toEqual([false, false]);
    expect([states(design), states(design, 'at-b')]).toEqual(['waiting down', 'waiting down']);
    expect(view(design).reason).toContain('the minimum is 2');
    expect(view(pair({ minLinks: 2 }, {})).up).toBe(true);
    expect(view(pair({ minLinks: 2 }, { maxActive: 1 })).up).toBe(false);
  });
  it('of a cable that leads back to the same bundle stand by', () => {
    const design = networkOf(
      { a: {} },
      ['a 1 = a 2'],
      {},
      { bundles: [{ id: 'at-a', switch: 'a', number: 1, ports: ['1', '2'] }] },
    );
    expect(states(design)).toBe('standby standby');
  });
  it('are a host’s cards as well', () => {
    const cards = (mode: BundleMode): Design =>
      networkOf(
        { a: {} },
        [],
        { 'a 1': {}, 'a 2': {} },
        {
          bundles: [{ id: 'at-a', switch: 'a', number: 1, ports: ['1', '2'], mode }],
          hosts: [
            {
              id: 'store',
              mac: '02:00:00:00:09:01',
              attach: [
                { switch: 'a', port: '1' },
                { switch: 'a', port: '2' },
              ],
              bundle: { mode: 'passive' },
            },
          ],
        },
      );
    expect(states(cards('active'))).toBe('active active');
    expect(states(cards('passive'))).toBe('individual individual');
    expect(viewBundles(cards('active'))[1]).toMatchObject({ host: 'store', up: true });
  });
});

it('two ends never disagree on what is active, and no end has more than either allows', () => {
  fc.assert(
    fc.property(bundledDesign({ modes: ['active', 'passive', 'initiate', 'answer'] }), (design) => {
      const bundles = bundlesOf(design);
      const settled = settleBundles(bundles);
      for (const member of bundles.members) {
        if (settled.members[member.index]!.state !== 'active') continue;
        expect(settled.members[member.far]!.state).toBe('active');
      }
      for (const end of bundles.ends) {
        const active = settled.ends[end.index]!.active;
        expect(active.length).toBeLessThanOrEqual(end.maxActive);
        expect(new Set(active.map((m) => bundles.members[m]!.speed)).size).toBeLessThanOrEqual(1);
        expect(new Set(active.map((m) => bundles.members[bundles.members[m]!.far]!.end)).size).toBeLessThanOrEqual(1);
        if (settled.ends[end.index]!.up) expect(active.length).toBeGreaterThanOrEqual(end.minLinks);
      }
    }),
    { numRuns: tries(200) },
  );
});
