import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { LinkId, BridgePortId, SwitchId, TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { meshDesign, networkOf, roleAt, settledTree, solutionOf } from '../../testing/networks';
import { roleOf, treeOf } from '../../tree/settled';
import { steer } from './steer';
import type { Wish } from './wishes';
import { parts } from '../../testing/runs';

const demo = fernhollow();
const block = (sw: string, port: string): Wish => ({
  wants: 'block',
  switch: sw as SwitchId,
  port: port as BridgePortId,
});
const carry = (link: string): Wish => ({ wants: 'carry', link: link as LinkId });
const vlan = (vid: number) => `vlan:${vid}` as TreeId;
const cst = 'cst' as TreeId;
const after = (design: Design, commands: Parameters<typeof editAll>[1]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(edited.error.found);
  return edited.value.design;
};
const refusal = (design: Design, wish: Wish | readonly Wish[], trees: readonly TreeId[] = [cst]) => {
  const found = steer(solutionOf(design), [wish].flat(), trees);
  return found.ok ? `${found.value.length} ways` : found.error;
};

describe('steering', () => {
  it.each(parts(2, 40))(
    'proposes nothing that the solver does not confirm, for one wish or several, and finds a way for every single wish that nothing stands against (%#)',
    (runs) => {
      let found = 0;
      fc.assert(
        fc.property(
          meshDesign,
          fc.array(fc.record({ pick: fc.nat(), blocking: fc.boolean() }), { minLength: 1, maxLength: 3 }),
          (design, picks) => {
            const wishes = picks.map(({ pick, blocking }): Wish => {
              const link = design.links[pick % design.links.length]!;
              return blocking ? { wants: 'block', ...link.a } : { wants: 'carry', link: link.id };
            });
            const before = solutionOf(design);
            const { id } = before.trees.at(-1)!;
            const ways = steer(before, wishes, [id]);
            if (!ways.ok) return wishes.length > 1 || expect(ways.error).not.toContain('that was tried');
            found += 1;
            for (const proposal of ways.value) {
              const now = solutionOf(after(design, proposal.commands));
              const role = (end: { switch: SwitchId; port: BridgePortId }) =>
                roleOf(treeOf(now, id)!, now.network.portIndexOf(end.switch, end.port))!;
              for (const each of wishes) {
                if (each.wants === 'block') expect(['alternate', 'backup']).toContain(role(each));
                else
                  for (const end of Object.values(
                    (({ a, b }) => ({ a, b }))(design.links.find((link) => link.id === each.link)!),
                  ))
                    expect(['root', 'designated']).toContain(role(end));
              }
            }
          },
        ),
        runs,
      );
      expect(found).toBeGreaterThan(0);
    },
  );

  it('makes the other end of the ridge link block, in every tree that is wished for', () => {
    const found = steer(solutionOf(demo), [block('ridge-a', '1')], [vlan(15), vlan(25)]);
    if (!found.ok) throw new Error(found.error);
    const [best] = found.value;
    expect(best?.settings).toBe(1);
    for (const vid of [15, 25])
      expect(roleAt(settledTree(after(demo, best!.commands), `vlan:${vid}`), 'ridge-a 1')).toBe('A');
    for (const vid of [35, 45])
      expect(settledTree(after(demo, best!.commands), `vlan:${vid}`)).toEqual(settledTree(demo, `vlan:${vid}`));
  });

  it('makes an idle link carry the frames', () => {
    const found = steer(solutionOf(demo), [carry('l2')], [vlan(15)]);
    if (!found.ok) throw new Error(found.error);
    const done = settledTree(after(demo, found.value[0]!.commands), 'vlan:15');
    expect([roleAt(done, 'ridge-a 2'), roleAt(done, 'ridge-b 2')].sort()).toEqual(['D', 'R']);
  });

  it('prefers ways in which no access switch becomes root, few settings, few other ends', () => {
    const found = steer(solutionOf(demo), [block('ridge-a', '1')], [vlan(15)]);
    if (!found.ok) throw new Error(found.error);
    const ranks = found.value.map(({ weakRoots, settings, spills, weakWays, others }) => [
      weakRoots.length,
      settings,
      Number(spills),
      weakWays.length,
      others.length,
    ]);
    expect(ranks).toEqual(
      [...ranks].sort((x, y) => x.map((value, i) => value - y[i]!).find((difference) => difference !== 0) ?? 0),
    );
  });

  it.each<[string, Design, Wish, string]>([
    [
      'the only way',
      networkOf({ a: {}, b: {} }, ['a 1 = b 1']),
      block('b', '1'),
      'Blocking b port 1 would cut b from a in the common tree: no other way joins them.',
    ],
    [
      'a cut link',
      { ...demo, links: demo.links.map((link, i) => ({ ...link, up: i > 0 })) },
      block('ridge-a', '1'),
      'ridge-a port 1 has no signal: nothing can be steered there.',
    ],
    ['a host', demo, block('ridge-a', '9'), 'ridge-a port 9 has no cable to another switch.'],
    ['what blocks already', demo, block('ridge-b', '1'), 'It blocks there already in VLAN 15.'],
    ['what carries already', demo, carry('l7'), 'It carries the frames already in VLAN 15.'],
  ])('says why it cannot: %s', (_, design, wish, text) =>
    expect(refusal(design, wish, [solutionOf(design).trees.length > 1 ? vlan(15) : cst])).toBe(text),
  );

  it.each<[string, Wish[], string]>([
    ['both ends of a link', [block('ridge-a', '1'), block('ridge-b', '1')], 'are the two ends of one link'],
    ['one link both ways', [carry('l1'), block('ridge-a', '1')], 'cannot both block and carry the frames'],
    [
      'parallel links, one each way',
      [block('ridge-a', '1'), block('ridge-b', '2')],
      'ridge-b has to be nearer to the root than ridge-a; to block at ridge-b port 2, ridge-a nearer than ridge-b',
    ],
    ['a loop', [carry('l1'), carry('l2')], 'close a loop at the one from ridge-a port 2 to ridge-b port 2'],
    [
      'every way of a switch',
      [block('lodge', '1'), block('lodge', '2'), block('lodge', '3')],
      'would cut lodge from ridge-a in VLAN 15',
    ],
  ])('names the contradiction: %s', (_, wishes, text) => expect(refusal(demo, wishes, [vlan(15)])).toContain(text));

  it('fulfils several wishes at once', () => {
    const wishes = [carry('l2'), block('dome-east', '1'), block('workshop', '2')];
    const found = steer(solutionOf(demo), wishes, [vlan(15)]);
    if (!found.ok) throw new Error(found.error);
    const done = settledTree(after(demo, found.value[0]!.commands), 'vlan:15');
    expect(['ridge-b 2', 'ridge-a 2'].map((end) => roleAt(done, end)).sort()).toEqual(['D', 'R']);
    expect([roleAt(done, 'dome-east 1'), roleAt(done, 'workshop 2')]).toEqual(['A', 'A']);
  });

  it('gives trees of different shapes settings of their own', () => {
    const split = after(demo, [
      { do: 'set-bridge-priority', switch: 'ridge-a' as SwitchId, tree: vlan(15), priority: 4096 },
      { do: 'set-bridge-priority', switch: 'ridge-b' as SwitchId, tree: vlan(25), priority: 4096 },
    ]);
    const found = steer(solutionOf(split), [carry('l2')], [vlan(15), vlan(25)]);
    if (!found.ok) throw new Error(found.error);
    const now = after(split, found.value[0]!.commands);
    for (const tree of ['vlan:15', 'vlan:25'])
      expect(['ridge-a 2', 'ridge-b 2'].map((end) => roleAt(settledTree(now, tree), end)).sort()).toEqual(['D', 'R']);
  });

  it('says that an end does not carry the VLAN', () =>
    expect(refusal(demo, block('array-hut', '1'), [vlan(25)])).toContain('does not carry VLAN 25'));

  it('can be stopped, keeping what it has', () => {
    let told = 0;
    const found = steer(solutionOf(demo), [block('ridge-a', '1')], [vlan(15)], () => (told += 1) < 3);
    expect(told).toBe(3);
    expect(found.ok ? found.value.length : found.error).not.toBe(0);
  });
});
