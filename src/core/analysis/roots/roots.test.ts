/** Placing roots, the matrix of trees by switches, and what becomes of trees whose root dies. */
import fc from 'fast-check';
import { fernhollow, valleyStation } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { SwitchId, TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { anyDesign, networkOf, solutionOf } from '../../testing/networks';
import { compileNetwork } from '../../topology/network';
import { treeOf } from '../../tree/settled';
import { place, placeAll, placingText, type Placement } from './placing';
import { ifSwitchDies, rootSwitches } from './rootLoss';
import { rootMatrix } from './rootMatrix';
import { laterVlan } from '../steering/laterVlan';
import { forVlansToCome, laterVlanFindings } from './toCome';
import { tries } from '../../testing/runs';

const demo = fernhollow();
const tree15 = 'vlan:15' as TreeId;
const cst = 'cst' as TreeId;
const after = (design: Design, commands: Parameters<typeof editAll>[1]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};
/** Who wins the election of a tree among all its bridges, whether joined or not, the best first. */
const ranking = (design: Design, tree: TreeId): string[] => {
  const solution = solutionOf(design);
  const { rank } = treeOf(solution, tree)!;
  return solution.network.switches
    .map((sw, s) => [sw.id, rank[s]!] as const)
    .filter(([, r]) => r >= 0)
    .sort((a, b) => a[1] - b[1])
    .map(([id]) => id);
};
const placed = (design: Design, id: string, as: Placement, tree = cst) => {
  const network = compileNetwork(design);
  return place(network, tree, network.switchIndex.get(id as SwitchId)!, as);
};

describe('placing', () => {
  it('a root or a standby on any network takes its place, or says why not and what would help', () => {
    fc.assert(
      fc.property(anyDesign, fc.nat(), fc.constantFrom<Placement>('root', 'standby', 'never'), (design, pick, as) => {
        const solution = solutionOf(design);
        const network = solution.network;
        const s = pick % design.switches.length;
        const sw = design.switches[s]!;
        for (const { id: tree } of solution.trees) {
          const result = place(network, tree, s, as);
          const wish = (next: Design) => {
            const order = ranking(next, tree);
            if (as === 'never') return order.includes(sw.id);
            return order[as === 'root' ? 0 : 1] === sw.id;
          };
          if (result.done)
            expect(
              wish(after(design, result.commands)) ||
                network.switches.length === 1 ||
                ranking(design, tree).length === 1,
            ).toBe(true);
          else if (result.instead) expect(wish(after(design, result.instead.commands))).toBe(true);
          else expect(ranking(design, tree).includes(sw.id) ? ranking(design, tree).length : 0).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: tries(100) },
    );
  });

  it('leaves room for a standby, and tells whom it got past', () => {
    const root = placed(demo, 'ridge-a', 'root', tree15);
    expect(root).toMatchObject({ done: true, priority: 24_576, past: ['lodge', 'workshop', 'array-hut'] });
    const both = after(demo, root.done ? root.commands : []);
    expect(placed(both, 'ridge-b', 'standby', tree15)).toMatchObject({
      priority: 28_672,
      sentence: 'ridge-b becomes the standby of VLAN 15 with priority 28672, behind ridge-a.',
    });
    expect(placed(both, 'ridge-a', 'root', tree15)).toMatchObject({
      done: true,
      commands: [],
      sentence: 'ridge-a is root of VLAN 15 by priority already.',
    });
    expect(placed(both, 'lodge', 'never', tree15)).toMatchObject({ priority: 61_440 });
  });

  it('says when no priority can do it: the rival is at 0 with a lower MAC', () => {
    const design = networkOf({ a: { priority: 0 }, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1']);
    const refused = placed(design, 'b', 'root');
    expect(refused).toMatchObject({
      done: false,
      sentence:
        'No priority makes b root of the common tree: a (0.02:00:00:00:00:01) has priority 0 already and a lower MAC address.',
    });
    expect(!refused.done && refused.instead?.label).toBe('raise a to 4096 and place b at 0');
    // With the higher MAC at 0 the lower one can still win, by MAC alone.
    const turned = networkOf({ a: {}, b: { priority: 0 } }, ['a 1 = b 1']);
    expect(placed(turned, 'a', 'root')).toMatchObject({
      priority: 0,
      sentence:
        'a becomes root of the common tree with priority 0; b has the same priority, so only the lower MAC address decides.',
    });
  });

  it('makes room where none lies between root and rivals', () => {
    const tight = networkOf({ a: { priority: 4096 }, b: { priority: 4096 }, c: {} }, ['a 1 = b 1', 'b 2 = c 1']);
    const refused = placed(tight, 'c', 'standby');
    expect(refused).toMatchObject({ done: false, instead: { label: 'a to 0, c to 4096, b to 8192' } });
  });

  it('does many trees and switches at once, and tells alike ones together', () => {
    const network = compileNetwork(demo);
    const trees = [15, 16, 25].map((vid) => `vlan:${vid}` as TreeId);
    const all = placeAll(network, trees, ['ridge-a' as SwitchId], 'root');
    expect(placingText(all)).toBe('ridge-a becomes root of VLANs 15-16,25 with priority 24576.');
    const off = compileNetwork(after(demo, [{ do: 'set-switch', switch: 'lodge' as SwitchId, up: false }]));
    expect(placingText(placeAll(off, [tree15], ['lodge' as SwitchId], 'root'))).toBe(
      'lodge takes no part in VLAN 15: it has no power.',
    );
  });
});

describe('the matrix', () => {
  it('holds every tree once, with alike ones together', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const solution = solutionOf(design);
        const { groups } = rootMatrix(solution);
        expect(groups.flatMap((group) => group.trees).sort()).toEqual(solution.trees.map((tree) => tree.id).sort());
        for (const { trees, cells } of groups) {
          for (const id of trees) {
            const tree = treeOf(solution, id)!;
            cells.forEach((cell, s) => {
              expect(cell === null).toBe(tree.root[s]! < 0);
              if (cell?.place === 1) expect(tree.root[s]).toBe(s);
            });
          }
        }
      }),
      { numRuns: tries(30) },
    );
  });
  it('tells the demo as found in one group, and apart once one tree has a root of its own', () => {
    const found = rootMatrix(solutionOf(demo));
    expect(found.groups.map((group) => group.trees.length)).toEqual([4, 3]); // array-hut does not carry the last three, so it has no place there
    const [group] = rootMatrix(
      solutionOf(
        after(demo, [{ do: 'set-bridge-priority', switch: 'ridge-a' as SwitchId, tree: tree15, priority: 4096 }]),
      ),
    ).groups.filter(({ trees }) => trees.includes(tree15));
    expect(group?.trees).toEqual([tree15]);
    expect(group?.cells[0]).toEqual({ priority: 4096, own: true, place: 1 });
  });
});

describe('VLANs to come', () => {
  const vlans = [1, 15, 25, 35, 45, 55, 65].map((vid) => `vlan:${vid}` as TreeId);
  const placed = (...ids: readonly [SwitchId, Placement][]) => {
    let design = demo;
    for (const [id, as] of ids)
      design = after(
        design,
        placeAll(solutionOf(design).network, vlans, [id], as).flatMap((each) => (each.done ? each.commands : [])),
      );
    return design;
  };
  const roots = (design: Design) => new Set(solutionOf(design).trees.map((tree) => tree.root.join()));

  it('have a root by chance where only those there are have one, which is a finding with its remedy', () => {
    const chosen = placed(['ridge-a' as SwitchId, 'root'], ['ridge-b' as SwitchId, 'standby']);
    expect(laterVlanFindings(solutionOf(demo))).toEqual([]); // nobody chose anything yet: another finding says so
    const [finding] = laterVlanFindings(solutionOf(chosen));
    expect(finding).toMatchObject({ at: { switch: 'lodge' }, remedies: [{ label: 'ridge-a for VLANs to come too' }] });
    const then = after(chosen, finding!.remedies[0]!.commands);
    expect(laterVlanFindings(solutionOf(then))).toEqual([]);
    expect(laterVlan(solutionOf(then))?.root).toBe('ridge-a');
    expect(roots(then)).toEqual(roots(chosen));
  });

  it('go by what one tree has, and leave every tree there is as it is', () => {
    const never = placed(['workshop' as SwitchId, 'never']);
    const one = after(never, [
      { do: 'set-bridge-priority', switch: 'workshop' as SwitchId, tree: tree15, priority: null },
    ]);
    const commands = forVlansToCome(one, vlans, ['workshop' as SwitchId], 'vlan:25' as TreeId);
    expect(commands).toEqual([
      { do: 'set-bridge-priority', switch: 'workshop', tree: tree15, priority: 32_768 },
      { do: 'set-bridge-priority', switch: 'workshop', tree: null, priority: 61_440 },
    ]);
    expect(forVlansToCome(after(one, commands), vlans, ['workshop' as SwitchId], 'vlan:25' as TreeId)).toEqual([]);
    // Instances are no VLANs.
    const instance = 'mst:1' as TreeId;
    const mills = valleyStation().switches.flatMap((sw) => (sw.trees[instance] ? [sw.id] : []));
    expect(mills.length).toBeGreaterThan(0);
    expect(forVlansToCome(valleyStation(), [instance], mills, instance)).toEqual([]);
  });
});

describe('if a root dies', () => {
  it('the second in line takes over where cables still reach it', () => {
    const loss = ifSwitchDies(solutionOf(demo), 'lodge' as SwitchId)!;
    expect(loss.losses.map(({ tree, takesOver, cutOff }) => [tree, takesOver, cutOff])).toEqual(
      [1, 15, 25, 35, 45, 55, 65].map((vid) => [`vlan:${vid}`, 'workshop', []]),
    );
    expect(loss.losses.every((each) => each.ends.length > 0 && each.ends.every((end) => end.switch !== 'lodge'))).toBe(
      true,
    );
    expect(rootSwitches(solutionOf(demo))).toEqual(['lodge']);
  });
  it('cuts off the hosts that hang on nothing else, each in the tree of its VLAN', () => {
    const host = (id: string, vlan: number, ...attach: [string, string][]) => ({
      id,
      mac: `02:00:00:00:01:0${id.length}`,
      vlan,
      attach: attach.map(([sw, port]) => ({ switch: sw, port })),
    });
    const design = networkOf(
      { a: {}, b: { priority: 0 }, c: {} },
      ['a 1 = b 1', 'b 2 = c 1'],
      Object.fromEntries(['a 7', 'b 7', 'b 8', 'b 9', 'c 7'].map((end) => [end, end === 'b 9' ? { up: false } : {}])),
      {
        hosts: [
          host('x', 1, ['b', '7']),
          host('both', 1, ['b', '8'], ['a', '7']),
          host('off', 1, ['b', '9']),
          host('beyond', 1, ['c', '7']),
        ],
      },
    );
    expect(ifSwitchDies(solutionOf(design), 'b' as SwitchId)?.losses).toMatchObject([
      { cutOff: ['c'], hostsCutOff: ['x', 'beyond'] },
    ]);
    const lodge = ifSwitchDies(solutionOf(demo), 'lodge' as SwitchId)!;
    const alone = demo.hosts.filter((each) => each.attach.every((at) => at.switch === ('lodge' as SwitchId)));
    expect(alone.length).toBeGreaterThan(0);
    for (const { tree, hostsCutOff } of lodge.losses)
      expect(hostsCutOff).toEqual(alone.flatMap(({ id, vlan }) => (tree === `vlan:${vlan}` ? [id] : [])));
  });
  it('tells who is cut off, and which trees then share a root', () => {
    const chain = networkOf({ a: {}, b: { priority: 0 }, c: {} }, ['a 1 = b 1', 'b 2 = c 1']);
    expect(ifSwitchDies(solutionOf(chain), 'b' as SwitchId)?.losses).toMatchObject([{ takesOver: 'a', cutOff: ['c'] }]);
    const two = after(demo, [
      { do: 'set-bridge-priority', switch: 'ridge-a' as SwitchId, tree: tree15, priority: 4096 },
      { do: 'set-bridge-priority', switch: 'ridge-b' as SwitchId, tree: tree15, priority: 8192 },
      { do: 'set-bridge-priority', switch: 'ridge-b' as SwitchId, tree: 'vlan:25' as TreeId, priority: 4096 },
    ]);
    expect(ifSwitchDies(solutionOf(two), 'ridge-a' as SwitchId)?.losses).toMatchObject([
      { tree: tree15, takesOver: 'ridge-b', sharesWith: ['vlan:25'] },
    ]);
    expect(ifSwitchDies(solutionOf(two), 'nobody' as SwitchId)).toBeNull();
  });
});
