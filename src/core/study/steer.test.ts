import fc from 'fast-check';
import { fernhollow } from '../demo/fernhollow';
import { editAll } from '../design/edit';
import type { LinkId, PortId, SwitchId, TreeId } from '../design/ids';
import type { Design } from '../design/schema';
import { anyDesign, networkOf, roleAt, settledTree, solutionOf } from '../testing/networks';
import { roleOf, treeOf } from '../tree/settled';
import { steer, type Wish } from './steer';

const demo = fernhollow();
const block = (sw: string, port: string): Wish => ({ wants: 'block', switch: sw as SwitchId, port: port as PortId });
const carry = (link: string): Wish => ({ wants: 'carry', link: link as LinkId });
const vlan = (vid: number) => `vlan:${vid}` as TreeId;
const cst = 'cst' as TreeId;
const after = (design: Design, commands: Parameters<typeof editAll>[1]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(edited.error.found);
  return edited.value.design;
};
const refusal = (design: Design, wish: Wish, trees: readonly TreeId[] = [cst]) => {
  const found = steer(solutionOf(design), wish, trees);
  return found.ok ? `${found.value.length} ways` : found.error;
};

describe('steering', () => {
  it('proposes nothing that the solver does not confirm, and counts what else moves', () => {
    fc.assert(fc.property(anyDesign, fc.nat(), fc.boolean(), (design, pick, blocking) => {
      if (design.links.length === 0) return;
      const link = design.links[pick % design.links.length]!;
      const before = solutionOf(design);
      const tree = before.trees[pick % Math.max(1, before.trees.length)];
      if (!tree) return;
      const wish = blocking ? block(link.a.switch, link.a.port) : carry(link.id);
      const found = steer(before, wish, [tree.id]);
      if (!found.ok) return expect(found.error).not.toBe('');
      for (const proposal of found.value) {
        const now = solutionOf(after(design, proposal.commands));
        const role = (end: typeof link.a) => roleOf(treeOf(now, tree.id)!, now.network.portIndexOf(end.switch, end.port))!;
        if (blocking) expect(['alternate', 'backup']).toContain(role(link.a));
        else for (const end of [link.a, link.b]) expect(['root', 'designated']).toContain(role(end));
      }
    }), { numRuns: 60 });
  });

  it('makes the other end of the ridge link block, in every tree that is wished for', () => {
    const found = steer(solutionOf(demo), block('ridge-a', '1'), [vlan(15), vlan(25)]);
    if (!found.ok) throw new Error(found.error);
    const [best] = found.value;
    expect(best?.settings).toBe(1);
    for (const vid of [15, 25]) expect(roleAt(settledTree(after(demo, best!.commands), `vlan:${vid}`), 'ridge-a 1')).toBe('A');
    for (const vid of [35, 45]) expect(settledTree(after(demo, best!.commands), `vlan:${vid}`)).toEqual(settledTree(demo, `vlan:${vid}`));
  });

  it('makes an idle link carry the frames', () => {
    const found = steer(solutionOf(demo), carry('l2'), [vlan(15)]);
    if (!found.ok) throw new Error(found.error);
    const done = settledTree(after(demo, found.value[0]!.commands), 'vlan:15');
    expect([roleAt(done, 'ridge-a 2'), roleAt(done, 'ridge-b 2')].sort()).toEqual(['D', 'R']);
  });

  it('prefers ways in which no access switch becomes root, few settings, few other ends', () => {
    const found = steer(solutionOf(demo), block('ridge-a', '1'), [vlan(15)]);
    if (!found.ok) throw new Error(found.error);
    const ranks = found.value.map(({ weakRoot, settings, others }) => [Number(weakRoot), settings, others.length] as const);
    expect(ranks).toEqual([...ranks].sort((x, y) => x[0] - y[0] || x[1] - y[1] || x[2] - y[2]));
  });

  it.each<[string, Design, Wish, string]>([
    ['the only way', networkOf({ a: {}, b: {} }, ['a 1 = b 1']), block('b', '1'), 'Blocking b port 1 would cut b from a in the common tree: no other way joins them.'],
    ['a cut link', { ...demo, links: demo.links.map((link, i) => ({ ...link, up: i > 0 })) }, block('ridge-a', '1'), 'ridge-a port 1 has no signal: nothing can be steered there.'],
    ['a host', demo, block('ridge-a', '9'), 'ridge-a port 9 has no cable to another switch.'],
    ['what blocks already', demo, block('ridge-b', '1'), 'It blocks there already in VLAN 15.'],
    ['what carries already', demo, carry('l7'), 'It carries the frames already in VLAN 15.'],
  ])('says why it cannot: %s', (_, design, wish, text) => expect(refusal(design, wish, [solutionOf(design).trees.length > 1 ? vlan(15) : cst])).toBe(text));

  it('says that an end does not carry the VLAN', () => expect(refusal(demo, block('array-hut', '1'), [vlan(25)])).toContain('does not carry VLAN 25'));

  it('can be stopped, keeping what it has', () => {
    let told = 0;
    const found = steer(solutionOf(demo), block('ridge-a', '1'), [vlan(15)], () => (told += 1) < 3);
    expect(told).toBe(3);
    expect(found.ok ? found.value.length : found.error).not.toBe(0);
  });
});
