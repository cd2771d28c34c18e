import fc from 'fast-check';
import { fernhollow, valleyStation } from '../../demo/demos';
import { edit } from '../../edit/edit';
import { vlanTree, type LinkId, type PortId, type RegionId, type SwitchId, type TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { anyDesign, networkOf, regionsDesign, solutionOf } from '../../testing/networks';
import { explainRegionalRoot, explainRoot, standbyRoot, takesPart } from './election';
import { explainPort } from './explain';
import { movedEnds, movedVlans } from '../moved';
import { roleOf, treeOf } from '../settled';
import { compareField, compareVectors, VECTOR_FIELDS } from './vector';
import { tries } from '../../testing/runs';

function why(design: Design, sw: string, port: string, tree = 'cst') {
  const solution = solutionOf(design);
  const found = explainPort(
    solution,
    treeOf(solution, tree as TreeId)!,
    solution.network.portIndexOf(sw as SwitchId, port as PortId),
  );
  if (!found) throw new Error('not in the tree');
  return found;
}

describe('an explanation', () => {
  it('compares vectors of which the winner is better, and names the first part in which they differ', () => {
    fc.assert(
      fc.property(fc.oneof(anyDesign, regionsDesign()), (design) => {
        const { network, trees } = solutionOf(design);
        for (const tree of trees) {
          network.ports.forEach((_, p) => {
            const found = explainPort({ network, trees }, tree, p);
            expect(found?.role ?? null).toBe(roleOf(tree, p));
            for (const { winner, loser, decidedBy } of found?.comparisons ?? []) {
              expect(compareVectors(winner.vector, loser.vector)).toBeLessThan(0);
              const first = VECTOR_FIELDS.findIndex((field) => compareField(winner.vector, loser.vector, field) !== 0);
              expect(decidedBy).toBe(VECTOR_FIELDS[first]);
            }
            if (found?.role === 'alternate' || found?.role === 'backup') expect(found.comparisons).not.toEqual([]);
          });
        }
      }),
      { numRuns: tries(100) },
    );
  });

  it('says at what cost an alternate end lost its segment, and what its way to the root would cost', () => {
    const design = networkOf({ a: {}, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'], {
      'c 2': { cost: 30_000 },
    });
    const { sentence, comparisons } = why(design, 'c', '1');
    expect(sentence).toBe(
      'Alternate: b offers this segment at 20\u202f000, c could only at 30\u202f000. Its way to the root is port 2; this one would cost 40\u202f000.',
    );
    expect(comparisons.map((c) => c.decidedBy)).toEqual(['rootPathCost', 'rootPathCost']);
  });

  it('names the identifier that breaks a tie', () => {
    const parallel = networkOf({ a: {}, b: {} }, ['a 1 = b 1', 'a 2 = b 2']);
    expect(why(parallel, 'b', '1').sentence).toContain(
      "port 2 costs the same, but a's port ID 128.1 is lower than its 128.2",
    );
    const shared = networkOf({ hub: { dialect: 'off' }, a: {}, b: {} }, ['hub 1 = a 1', 'hub 2 = b 1', 'hub 3 = b 2']);
    expect(why(shared, 'b', '1').comparisons[0]?.decidedBy).toBe('receivingPort');
  });

  it.each([
    ['1', 'nothing is plugged in'],
    ['2', 'the port is set down'],
    ['3', 'the link is cut'],
    ['4', 'the port at the other end is set down'],
  ])('says why port %s has no signal', (port, reason) => {
    const design = networkOf({ a: {}, b: {} }, ['a 2 = b 2', 'a 3 = b 3', 'a 4 = b 4'], {
      'a 1': {},
      'a 2': { up: false },
      'b 4': { up: false },
    });
    const cut = edit(design, { do: 'set-link', link: 'l1' as LinkId, up: false });
    expect(why(cut.ok ? cut.value.design : design, 'a', port).sentence).toContain(reason);
  });
});

describe('the election', () => {
  const solution = solutionOf(fernhollow());
  const tree = treeOf(solution, vlanTree(15))!;

  it('ranks bridge identifiers and says that a MAC decided', () => {
    const election = explainRoot(solution.network, tree, 0)!;
    expect(election.decidedBy).toBe('mac');
    expect(election.ranking.map((c) => c.name)).toEqual([
      'lodge',
      'workshop',
      'array-hut',
      'ridge-a',
      'ridge-b',
      'dome-north',
      'dome-east',
      'dome-west',
    ]);
    expect(election.sentence).toContain('all 8 bridges have priority 32783');
  });

  it('has the second in the ranking stand by: it is root when the first is gone', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const before = solutionOf(design);
        for (const t of before.trees) {
          const root = t.root.find((r) => r >= 0);
          if (root === undefined) continue;
          const standby = standbyRoot(t, root);
          expect(standby < 0 || t.rank[standby]! > t.rank[root]!).toBe(true);
          expect([...t.root].filter((r, s) => r === root && s !== root && t.rank[s]! < t.rank[standby]!)).toEqual([]);
        }
      }),
      { numRuns: tries(50) },
    );
  });

  it('does not count a switch without a port in the tree as an island', () => {
    const hut = solution.network.switchIndex.get('array-hut' as SwitchId)!;
    expect(takesPart(solution.network, treeOf(solution, vlanTree(25))!, hut)).toBe(false);
    expect(takesPart(solution.network, tree, hut)).toBe(true);
  });
});

it('an end says why it throws away what it hears, and the other one why it discards', () => {
  const names = Array.from({ length: 9 }, (_, i) => `s${i}`);
  const chain = (settings: Record<string, unknown>, rest: Record<string, unknown> = {}) =>
    networkOf(
      Object.fromEntries(names.map((name) => [name, settings])),
      names.slice(1).map((name, i) => `s${i} 2 = ${name} 1`),
      {},
      rest,
    );
  const old = chain({ timers: { maxAge: 6 } });
  expect(why(old, 's6', '2')).toMatchObject({
    role: 'designated',
    state: 'discarding',
    sentence:
      'Designated, but it discards: the bridge at the other end throws its BPDUs away, since they are older than the max age of their root, and is designated itself.',
  });
  expect(why(old, 's7', '1').sentence).toBe(
    'Designated: the BPDUs of s6 are thrown away here, since they are older than the max age of their root, so this port is designated as well, and the other one discards.',
  );
  expect(why(old, 's8', '1').sentence).toContain('straight to the root s7');
  const region = chain({ dialect: 'mstp', region: 'r', timers: { maxHops: 6 } }, { regions: [{ id: 'r', name: 'R' }] });
  expect(why(region, 's5', '2', 'mst:0').sentence).toContain('since no hop is left');
});

describe('moved ends', () => {
  it('are none between a solution and itself', () => {
    fc.assert(
      fc.property(anyDesign, (design) => expect(movedEnds(solutionOf(design), solutionOf(design))).toEqual([])),
      { numRuns: tries(25) },
    );
  });

  it('are the ends whose role differs, found by name where ports come and go', () => {
    const before = networkOf({ a: {}, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']);
    const after = { ...before, switches: [...before.switches].reverse(), links: before.links.slice(0, 2) };
    expect(movedEnds(solutionOf(before), solutionOf(after)).map(({ index: _, ...end }) => end)).toEqual([
      { tree: 'cst', switch: 'c', port: '1', before: 'alternate', after: 'root' },
      { tree: 'cst', switch: 'c', port: '2', before: 'root', after: 'disabled' },
      { tree: 'cst', switch: 'a', port: '2', before: 'designated', after: 'disabled' },
    ]);
  });

  it('are joined by the VLANs that go with another tree, though no end changed', () => {
    const before = solutionOf(valleyStation());
    const laid = edit(valleyStation(), { do: 'map-vlans', region: 'valley' as RegionId, vlans: '45', instance: 1 });
    if (!laid.ok) throw new Error(laid.error.found);
    const after = solutionOf(laid.value.design);
    expect(movedEnds(before, after)).toEqual([]);
    // The links of every switch of the region but the roots: one way out instead of the other.
    expect(movedVlans(before, after)).toEqual([{ vid: 45, links: 4 }]);
    expect(movedVlans(before, before)).toEqual([]);
  });
});

describe('the CIST, the IST and instances', () => {
  const solution = solutionOf(valleyStation());
  const whyIn = (tree: string, sw: string, port: string): string =>
    explainPort(
      solution,
      treeOf(solution, tree as TreeId)!,
      solution.network.portIndexOf(sw as SwitchId, port as PortId),
    )!.sentence;
  it('tell costs outside of regions and inside apart', () => {
    expect(whyIn('mst:0', 'weir', '1')).toBe(
      'Root port: leads straight to the root mill-a at 0 outside of regions and 2\u202f000 inside of its own; port 2 costs the same outside of regions, and 4\u202f000 inside of its own.',
    );
    expect(whyIn('mst:0', 'ferry', '1')).toContain(
      'leads to the root mill-a through weir at 20\u202f000 outside of regions;',
    );
    expect(whyIn('mst:0', 'orchard', '2')).toContain(
      "both ends would offer this segment at 0 outside of regions, and belfry's internal root path cost 2\u202f000 is lower than orchard's 22\u202f000",
    );
    expect(whyIn('mst:2', 'weir', '2')).toBe(
      'Root port: leads straight to the regional root mill-b at 2\u202f000; port 1 would cost 4\u202f000.',
    );
  });
  it('say what a boundary and a master port are', () => {
    expect(whyIn('mst:1', 'gatehouse', '1')).toMatch(
      /^Master: it leads out of the region toward the root of the CIST.* In the CIST it is root port: leads straight to the root mill-a at 20\u202f000 outside of regions; port 2 /,
    );
    expect(whyIn('mst:1', 'gatehouse', '2')).toMatch(
      /an instance does what the CIST does, which blocks this port. In the CIST it is alternate: mill-b offers this segment at 0 outside of regions/,
    );
    expect(whyIn('mst:1', 'belfry', '5')).toMatch(
      /at the boundary of a region an instance does what the CIST does, which has this port designated. In the CIST it is designated: /,
    );
  });
  it('compare at a boundary what the CIST compares there', () => {
    const at = (tree: string) =>
      explainPort(
        solution,
        treeOf(solution, tree as TreeId)!,
        solution.network.portIndexOf('gatehouse' as SwitchId, '1' as PortId),
      )!;
    expect(at('mst:1').comparisons).toEqual(at('mst:0').comparisons);
    expect(at('mst:1')).toMatchObject({ role: 'master', state: 'forwarding' });
  });
  it('say who is regional root, and where the region leaves for the root', () => {
    const cist = treeOf(solution, 'mst:0' as TreeId)!;
    const of = (sw: string) =>
      explainRegionalRoot(solution.network, cist, solution.network.switchIndex.get(sw as SwitchId)!);
    expect(of('quarry')).toBe('mill-a is the root of the CIST, and so the regional root of its own region.');
    expect(of('gatehouse')).toBe(
      'gatehouse is the regional root: through its port 1 the region leaves for the root, at an external root path cost of 20\u202f000.',
    );
    expect(of('ferry')).toBeNull();
  });
});
