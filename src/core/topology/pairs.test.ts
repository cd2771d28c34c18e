/** Pairs: which two switches are one, and that one switch twice as wide does the same. */
import fc from 'fast-check';
import type { Design, Dialect } from '../model/document';
import { readDesign } from '../model/read';
import { collapsed, halfOf, pairedNetwork, type PairedOptions } from '../testing/pairs';
import { roleAt, settledTree } from '../testing/networks';
import { tries } from '../testing/runs';
import { solve } from '../tree/solve';
import { pairsOf, type PairState } from './pairs';

const stateOf = (design: Design): PairState => pairsOf(design)[0]!.state;

/** A design with links cut and switches without power. */
const without = (design: Design, links: readonly string[], switches: readonly string[] = []): Design => ({
  ...design,
  links: design.links.map((link) => (links.includes(link.id) ? { ...link, up: false } : link)),
  switches: design.switches.map((sw) => (switches.includes(sw.id) ? { ...sw, up: false } : sw)),
});
const PEER = ['l0', 'l1'];
const KEEPALIVE = 'l2';

describe('a pair', () => {
  const whole = pairedNetwork();
  it.each<[PairState, string[], string[]]>([
    ['together', [], []],
    ['together', ['l0'], []],
    ['together', [KEEPALIVE], []],
    ['yields', PEER, []],
    ['both-alone', [...PEER, KEEPALIVE], []],
    ['alone', [], ['p']],
    ['alone', [...PEER, KEEPALIVE], ['s']],
    ['off', [], ['p', 's']],
  ])('is %s without %j and %j', (state, links, switches) =>
    expect(stateOf(without(whole, links, switches))).toBe(state),
  );
  it('hears by each keepalive as far as that goes', () => {
    const by = (keepalive: string, more: object = {}) => {
      const half = { keepalive, keepalivePort: undefined, ...more };
      return stateOf(without(pairedNetwork({ half: { p: half, s: half } }), PEER));
    };
    expect([by('none'), by('peer-link'), by('out-of-band'), by('out-of-band', { keepaliveUp: false })]).toEqual([
      'both-alone',
      'both-alone',
      'yields',
      'both-alone',
    ]);
  });
  it.each<[string, PairedOptions]>([
    ['spanning tree modes', { switches: { s: { dialect: 'stp' } } }],
    ['addresses of the pair', { half: { s: { mac: '02:00:00:00:0a:02' } } }],
    ['peer links: no cable joins them', { half: { s: { peerLink: 's-x' } } }],
  ])('is none where the two are unlike: %s', (what, options) => {
    const design = pairedNetwork(options);
    expect(stateOf(design)).toBe('unlike');
    expect(pairsOf(design)[0]!.unlike).toContain(what);
    expect(solve(design).network.acting!.owner).toEqual(solve(design).network.owner);
  });
  it('has the one with the lower priority as primary, then the one with the lower address', () => {
    const primary = (p: number, s: number) =>
      pairsOf(pairedNetwork({ half: { p: { priority: p }, s: { priority: s } } }))[0]!.switches[0].id;
    expect([primary(1, 2), primary(2, 1), primary(5, 5)]).toEqual(['p', 's', 'p']);
  });
});

describe('the trees of a pair', () => {
  const roles = (design: Design, ...ends: string[]) => ends.map((end) => roleAt(settledTree(design), end)).join(' ');
  const root = pairedNetwork({ switches: { r: { priority: 0 } } });
  it('have one root port for both, and a peer link that forwards', () => {
    expect(roles(root, 'p 6', 's 6', 'p peer-p', 's peer-s')).toBe('R A D R');
    expect(settledTree(root).switches['s' as never]!.rootPathCost).toBe(20_000);
  });
  it('have the secondary give way where the peer link is lost and the keepalive is not', () => {
    const lost = without(root, PEER);
    expect(roles(lost, 's s-x', 's s-y', 's 6', 'p p-y')).toBe('- - R D');
    expect(roles(without(lost, [KEEPALIVE]), 's s-x', 's s-y', 'p p-y')).toBe('D D D');
  });
  it('go on by either one under the address of the pair', () => {
    const as = pairedNetwork({ switches: { p: { priority: 0 }, s: { priority: 0 } } });
    const rootOf = (design: Design) => settledTree(design).switches['y' as never]!.root;
    expect([rootOf(as), rootOf(without(as, [], ['s'])), rootOf(without(as, [], ['p']))]).toEqual(['p', 'p', 's']);
  });
  it('have a half that says otherwise than the other one down', () => {
    const unlike = pairedNetwork({ bundles: { 's-x': { vlans: { mode: 'trunk', allowed: '1,15' } } } });
    expect(roles(unlike, 's s-x', 's s-y')).toBe('- D');
    expect(pairsOf(unlike)[0]!.bundles.map((bundle) => bundle.unlike)).toEqual([['VLANs'], []]);
  });
});

it.each<Dialect>(['stp', 'rstp', 'mstp', 'per-vlan-rstp'])(
  'a pair with everything right is one switch twice as wide: %s',
  (dialect) => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(0, 4096, 32768), { minLength: 4, maxLength: 4 }),
        fc.subarray(['l3', 'l4', 'l5', 'l6', 'l7', 'l8', 'l9']),
        fc.array(fc.constantFrom(undefined, 100, 20_000, 50_000), { minLength: 6, maxLength: 6 }),
        ([pair, ...others], cut, costs) => {
          const own = (priority: number | undefined) => ({ dialect, priority });
          const ends = ['p 6', 's 6', 'x 3', 'r 1', 'r 2', 'r 3'];
          const design = without(
            pairedNetwork({
              switches: {
                ...{ p: own(pair), s: own(pair), x: own(others[0]), y: own(others[1]), r: own(others[2]) },
              },
              ports: Object.fromEntries(ends.map((end, i) => [end, costs[i] === undefined ? {} : { cost: costs[i] }])),
            }),
            cut,
          );
          const tree = dialect === 'mstp' ? 'mst:0' : dialect === 'per-vlan-rstp' ? 'vlan:1' : 'cst';
          const [two, one] = [settledTree(design, tree), settledTree(collapsed(design), tree)];
          for (const sw of ['x', 'y', 'r']) expect(two.switches[sw as never]).toEqual(one.switches[sw as never]);
          const wide = one.switches['p' as never]!.ports;
          expect(two.switches['s' as never]!.ports['6' as never]).toEqual(wide['26' as never]);
          expect(two.switches['p' as never]!.ports['6' as never]).toEqual(wide['6' as never]);
        },
      ),
      { numRuns: tries(60) },
    );
  },
);

describe('bad input', () => {
  const faults = (options: PairedOptions) => {
    const good = pairedNetwork();
    const read = readDesign({
      ...good,
      switches: good.switches.map((sw) => ({
        ...sw,
        ...(options.switches?.[sw.id] ?? {}),
        ...(sw.pair ? { pair: { ...sw.pair, ...(options.half?.[sw.id] ?? {}) } } : {}),
        ...(sw.id === 'x' ? options.switches?.['x'] : {}),
      })),
    });
    return read.ok ? [] : read.error.map(({ path, allowed }) => `${path}: ${allowed}`);
  };
  it('has three switches in a pair', () =>
    expect(faults({ switches: { x: { pair: halfOf('x', { peerLink: 'x-pair' }) } } })).toContain(
      'switches[2].pair.domain: a domain of two switches: p, s have it already',
    ));
  it('has a peer link that is no bundle, or that of another switch', () => {
    expect(faults({ half: { p: { peerLink: '1' } } })).toEqual(['switches[0].pair.peerLink: the id of a bundle of p']);
    expect(faults({ half: { p: { peerLink: 'peer-s' } } })).toHaveLength(1);
  });
  it('has a keepalive to nowhere', () => {
    expect(faults({ half: { p: { keepalivePort: '77' } } })).toEqual([
      'switches[0].pair.keepalivePort: the id of a port of p',
    ]);
    expect(faults({ half: { p: { keepalivePort: undefined } } })).toEqual([
      'switches[0].pair.keepalivePort: the port that the cable for the keepalive is in',
    ]);
    expect(faults({ half: { p: { keepalive: 'none' } } })).toEqual([
      'switches[0].pair.keepalivePort: no port, since the keepalive has no cable of its own',
    ]);
  });
});
