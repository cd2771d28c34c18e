import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { vlanTree, type LinkId } from '../../model/ids';
import type { Design } from '../../model/document';
import { campusOf } from '../../testing/campus';
import { meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { linkLoads } from './load';
import { middlesOf, preferInTurn } from './middles';
import { bundleThese } from '../lag/bundling';
import { shareTrees, uplinksOf } from './share';
import { tries } from '../../testing/runs';

const all = (design: Design) => solutionOf(design).trees.map((tree) => tree.id);
const links = (...ids: string[]) => ids as LinkId[];
const edited = (design: Design, commands: Parameters<typeof editAll>[1]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const refusal = (design: Design, trees = all(design), uplinks = links('l11', 'l12')): string => {
  const found = shareTrees(solutionOf(design), trees, uplinks);
  return found.ok ? `${found.value.length} ways` : found.error;
};

describe('sharing', () => {
  it('never loads a link more than the most loaded one was, and says what the solver says', () => {
    let found = 0;
    fc.assert(
      fc.property(meshDesign, (design) => {
        const before = solutionOf(design);
        const ways = shareTrees(
          before,
          all(design),
          design.links.map((link) => link.id),
        );
        if (!ways.ok) return;
        found += 1;
        for (const { commands, after, uplinks } of ways.value) {
          const now = linkLoads(solutionOf(edited(design, commands)));
          expect(now).toEqual(after);
          expect(now.peak?.share ?? 0).toBeLessThanOrEqual((linkLoads(before).peak?.share ?? 0) + 1e-9);
          expect(Math.max(...now.links.map((each) => each.share))).toBeCloseTo(uplinks[1]);
        }
      }),
      { numRuns: tries(30) },
    );
    expect(found).toBeGreaterThan(0); // some are refused
  });

  it('makes both ridges root and standby for alternate trees of the demo, so that the uplinks no longer idle', () => {
    const design = fernhollow();
    const before = solutionOf(design);
    const uplinks = uplinksOf(before.network);
    expect(uplinks).toHaveLength(12);
    const ways = shareTrees(before, [15, 25, 35, 45, 55, 65].map(vlanTree), uplinks);
    if (!ways.ok) throw new Error(ways.error);
    const [best] = ways.value;
    expect(best).toMatchObject({
      how: 'roots',
      sentence:
        'ridge-a root of VLANs 15,35,55, ridge-b its standby; ridge-b root of VLANs 25,45,65, ridge-a its standby; preferred below in turn: dome-east and dome-west',
    });
    expect(best!.after.idle).toEqual(['l2']);
    expect(best!.after.peak!.share).toBeLessThan(0.6);
  });

  it('shares the two uplinks of a single switch by its costs, without a second root', () => {
    const design = fernhollow();
    const ways = shareTrees(solutionOf(design), [15, 25, 35, 45, 55, 65].map(vlanTree), links('l11', 'l12'));
    if (!ways.ok) throw new Error(ways.error);
    const costs = ways.value.find((way) => way.how === 'costs')!;
    expect(costs.commands.every((command) => command.do === 'set-port-cost' && command.switch === 'workshop')).toBe(
      true,
    );
    expect(costs.after.idle).not.toContain('l11');
    expect(costs.after.idle).not.toContain('l12');
  });

  it.each<[string, string, string]>([
    [
      'one tree for all VLANs',
      refusal(networkOf({ a: {}, b: {} }, ['a 1 = b 1', 'a 2 = b 2']), undefined, links('l0', 'l1')),
      'One tree carries every VLAN here',
    ],
    ['one tree', refusal(fernhollow(), [vlanTree(15)]), 'two trees or more'],
    ['one link', refusal(fernhollow(), undefined, links('l11')), 'two links or more'],
    [
      'a cut link',
      refusal(edited(fernhollow(), [{ do: 'set-link', link: 'l11' as LinkId, up: false }])),
      'ridge-a port 6 has no signal',
    ],
    ['links with nothing in common', refusal(fernhollow(), undefined, links('l9', 'l11')), 'nothing to choose between'],
  ])('says why it cannot: %s', (_, text, expected) => expect(text).toContain(expected));

  it('says why there is nothing to share, and shares two cables between two access switches', () => {
    const pair = networkOf(
      { a: { dialect: 'per-vlan-rstp', tier: 'access' }, b: { dialect: 'per-vlan-rstp', tier: 'access' } },
      ['a 1 = b 1', 'a 2 = b 2'],
      {},
      { vlans: [{ id: 1 }, { id: 2 }] },
    );
    const solution = solutionOf(pair);
    const trees = solution.trees.map((tree) => tree.id);
    expect(refusal(pair, trees, [])).toMatch(/no link to share/);
    expect(refusal(pair, trees, links('l0'))).toBe('Sharing needs two links or more; this is one.');
    const both = bundleThese(pair, links('l0', 'l1'));
    const bundled = edited(pair, both.ok ? both.value.commands : []);
    expect(refusal(bundled, trees, links('l0', 'l1'))).toMatch(/^These 2 links are one bundle/);
    const found = shareTrees(solution, trees, links('l0', 'l1'));
    expect(found.ok && found.value[0]!.after.idle).toEqual([]);
  });

  it('can be stopped', () =>
    expect(shareTrees(solutionOf(fernhollow()), all(fernhollow()), links('l11', 'l12'), () => false).ok).toBe(true));

  it('lets the switches of each pair of a campus take turns, so that no uplink idles', () => {
    const campus = campusOf({ switches: 50, vlans: 4, perPair: 10 });
    const before = solutionOf(campus);
    const uplinks = uplinksOf(before.network);
    const idle = (design: Design): number => {
      const { links: all } = linkLoads(solutionOf(design));
      return campus.links.filter(({ id }, l) => uplinks.includes(id) && all[l]!.state === 'idle').length;
    };
    expect(idle(campus)).toBeGreaterThan(20);
    const ways = shareTrees(before, all(campus), uplinks);
    if (!ways.ok) throw new Error(ways.error);
    const [best] = ways.value;
    expect(best!.sentence).toMatch(/preferred below in turn: dist-1 and dist-2; dist-3 and dist-4; .* 1 more$/);
    expect(idle(edited(campus, best!.commands))).toBe(0);
  });

  it('prefers one of each set in a tree without moving a root', () => {
    fc.assert(
      fc.property(meshDesign, (design) => {
        const { network, trees } = solutionOf(design);
        const sets = middlesOf(
          network.switches
            .flatMap((_, from) => network.switches.map((_, to) => ({ from, to })))
            .filter(({ from, to }) => from !== to),
          [...new Set(trees.flatMap((tree) => [...tree.root]))],
        );
        const dealt = new Map(trees.map(({ id }, i) => [id, i]));
        const after = solutionOf(edited(design, preferInTurn(network, sets, dealt)));
        trees.forEach((tree, t) => expect(after.trees[t]!.root).toEqual(tree.root));
        for (const set of sets)
          for (const [tree, at] of dealt) {
            const { rank } = after.trees.find(({ id }) => id === tree)!;
            const preferred = set[at % set.length]!;
            const others = set.filter((s) => s !== preferred);
            const most = Math.max(
              ...set.map((s) => network.switches[s]!.trees[tree]?.priority ?? network.switches[s]!.priority),
            );
            if (most < 57_344) for (const s of others) expect(rank[s]).toBeGreaterThan(rank[preferred]!);
          }
      }),
      { numRuns: tries(30) },
    );
  });
});
