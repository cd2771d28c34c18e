import fc from 'fast-check';
import { demoOf } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { vlanTree, type SwitchId } from '../../model/ids';
import { isPerVlan, runsTrees } from '../../model/document';
import { anyDesign } from '../../testing/networks';
import { islandRoots, standbyRoot } from '../../tree/explain/election';
import { solve } from '../../tree/solve';
import type { DealRule } from '../regions/grouping';
import { pairOfRoots, sharedOut } from './pair';

const demo = demoOf('observatory');
const PAIR = ['ridge-a', 'ridge-b'] as [SwitchId, SwitchId];
const RULES: readonly DealRule[] = ['parity', 'ranges', 'turn', 'load'];
const TREES = [1, 15, 25, 35, 45, 55, 65].map(vlanTree);

describe('a pair of roots', () => {
  it.each(RULES)('by %s: each tree has one of them as root and the other as standby', (rule) => {
    const parts = sharedOut(demo, TREES, rule);
    expect(parts.flat().sort()).toEqual([...TREES].sort());
    // All VLANs of the demo are odd.
    for (const part of parts) expect(part.length > 0).toBe(rule !== 'parity' || part === parts[0]);
    const pair = pairOfRoots(demo, parts, PAIR);
    if (!pair.ok) throw new Error('refused');
    expect(pair.value.placings.every((placing) => placing.done)).toBe(true);
    const edited = editAll(demo, pair.value.commands);
    if (!edited.ok) throw new Error('refused');
    const { network, trees } = solve(edited.value.design);
    for (const tree of trees) {
      const [root] = islandRoots(network, tree);
      const at = [root!, standbyRoot(tree, root!)].map((s) => network.switches[s]!.id);
      expect(at).toEqual(parts[0].includes(tree.id) ? PAIR : [...PAIR].reverse());
    }
  });

  it('is a pair of any two switches that take part in a tree for each VLAN, or says why not', () =>
    fc.assert(
      fc.property(anyDesign, fc.nat(), (design, pick) => {
        const own = design.switches.filter((sw) => runsTrees(sw) && isPerVlan(sw) && sw.up);
        fc.pre(own.length > 1 && own.length === design.switches.length);
        const pair: [SwitchId, SwitchId] = [own[pick % own.length]!.id, own[(pick + 1) % own.length]!.id];
        const before = solve(design).trees.map((tree) => tree.id);
        const parts = sharedOut(design, before, 'parity');
        const made = pairOfRoots(design, parts, pair);
        if (!made.ok) throw new Error('refused');
        const edited = editAll(design, made.value.commands);
        if (!edited.ok) throw new Error('refused');
        const { network, trees } = solve(edited.value.design);
        for (const placing of made.value.placings) {
          if (!placing.done) expect(placing.sentence).toMatch(/^No priority/);
        }
        const stuck = new Set(made.value.placings.filter((placing) => !placing.done).map(({ tree }) => tree));
        for (const tree of trees) {
          if (stuck.has(tree.id)) continue;
          const wanted = network.switchIndex.get(pair[parts[0].includes(tree.id) ? 0 : 1])!;
          // It is root of the part that it stands in, whoever else is cut off from it.
          expect(tree.root[wanted]).toBe(wanted);
        }
      }),
      { numRuns: 40 },
    ));
});
